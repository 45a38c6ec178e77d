import type { Page } from '@playwright/test';
import { expectAccessible } from './lib/accessibility.ts';
import { restAll } from './lib/api.ts';
import { mailTo } from './lib/standins.ts';
import { bringSession, expect, signIn, test } from './lib/velarium.ts';
import { addTrigger, beginCampaign, openPlace, openWorkbench, say } from './lib/workbench.ts';

const open = (name: string) => async (page: Page) => {
  await page.getByRole('link', { name, exact: true }).click();
};

async function openCampaign(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Welcome to members', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Visit line' })).toBeVisible();
}

test('a wrong password is told in words; signing in leads on to where one wanted to go', async ({
  visitor,
  velarium,
}) => {
  // Nobody has ever signed in here.
  const page = await visitor.newPage();
  await openPlace(page, velarium, 'season');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByText('write it as name@example.org')).toBeVisible();
  await page.getByLabel('Mail address').fill('mara@quillonfell.example');
  await page.getByLabel('Password').fill('not the word');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert')).toContainText('do not belong together');
  await expectAccessible(page);
  await page.getByLabel('Password').fill('clear-skies-tonight');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Season' })).toBeVisible();
});

test('the Workbench does not scroll at 1280 by 800, nor at 1440 by 900', async ({
  memberPage: page,
  velarium,
}) => {
  await openWorkbench(page, velarium, 'Welcome to members');
  for (const size of [
    { width: 1280, height: 800 },
    { width: 1440, height: 900 },
  ]) {
    await page.setViewportSize(size);
    await expect(page.getByRole('region', { name: 'Visit line' })).toBeInViewport({ ratio: 1 });
    for (const key of ['1', '2', '3', '4']) {
      await page.keyboard.press(key);
      const overflow = await page.evaluate(() => {
        const main = document.querySelector('main');
        return {
          x: document.documentElement.scrollWidth - innerWidth,
          y: (main?.scrollHeight ?? 0) - (main?.clientHeight ?? 0),
        };
      });
      expect(overflow).toEqual({ x: 0, y: 0 });
    }
  }
});

test('the page picker stays within its drawer, and Ctrl + Enter in it launches', async ({
  memberPage: page,
  velarium,
}) => {
  await openWorkbench(page, velarium, 'Welcome to members');
  await page.keyboard.press('3');
  const picker = page
    .getByRole('group', { name: 'Opens on' })
    .getByRole('combobox', { name: 'Find a page by title or path' });
  await picker.fill('a');
  await expect(page.getByRole('option').first()).toBeVisible();
  const drawer = page.getByRole('region', { name: /^Reach/ });
  expect(await drawer.evaluate((element) => element.scrollWidth - element.clientWidth)).toBe(0);
  await picker.press('ControlOrMeta+Enter');
  await expect(page.getByRole('dialog')).toContainText('Launch “Welcome to members”');
  await expect(page.getByRole('dialog')).toContainText('only on /members,');
});

test('everything on the Workbench can be done by keyboard', async ({ memberPage: page, velarium }) => {
  await openWorkbench(page, velarium, 'Welcome to members');
  const sentence = page.getByRole('region', { name: 'Rule sentence' });
  await expect(sentence).toContainText('after 8 seconds');
  await sentence.getByRole('button', { name: 'after 8 seconds' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('dialog', { name: 'Moment' }).getByLabel('Seconds on the page').fill('20');
  await page.keyboard.press('Escape');
  await expect(sentence.getByRole('button', { name: 'after 20 seconds' })).toBeFocused();
  await page.keyboard.press('3');
  await page.getByRole('switch', { name: 'Phone' }).focus();
  await page.keyboard.press('Space');
  await expect(sentence).toContainText('on desktops and tablets only');
  await page.keyboard.press('ControlOrMeta+z');
  await expect(sentence).toContainText('on every device');
  await page.keyboard.press('ControlOrMeta+Shift+z');
  await expect(sentence).toContainText('on desktops and tablets only');
  await page.keyboard.press('ControlOrMeta+k');
  await page.keyboard.type('side: limits');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^Limits/ })).toHaveAttribute('aria-expanded', 'true');
  const heading = page
    .frameLocator('iframe[title="Message on desktop"]')
    .getByRole('textbox', { name: 'Heading' });
  await heading.focus();
  await page.keyboard.press('ControlOrMeta+a');
  // Letters that are keys elsewhere are letters here.
  await page.keyboard.type('1 night, n stars / m');
  await expect(heading).toHaveText('1 night, n stars / m');
  await page.keyboard.press('ControlOrMeta+Enter');
  await expect(page.getByRole('dialog')).toContainText('Launch “Welcome to members”');
});

test('words typed are saved by themselves and are there after a reload', async ({
  memberPage: page,
  velarium,
}) => {
  await openWorkbench(page, velarium, 'Welcome to members');
  const text = page.frameLocator('iframe[title="Message on desktop"]').getByRole('textbox', { name: 'Text' });
  await text.click();
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('Good to see you. ');
  await page.keyboard.press('ControlOrMeta+b');
  await page.keyboard.type('Thursday');
  await page.keyboard.press('Enter');
  await page.keyboard.press('ControlOrMeta+b');
  await page.keyboard.type('Bring a lamp.');
  await expect(page.getByRole('status').filter({ hasText: 'All saved' })).toBeVisible();
  await page.reload();
  await expect(text.locator('p')).toHaveText(['Good to see you. Thursday', 'Bring a lamp.']);
  await expect(text.locator('b')).toHaveText(['Thursday']);
});

test('two people in one campaign: the second is told, and neither is overwritten', async ({
  memberPage: page,
  browser,
  velarium,
}) => {
  const other = await (await browser.newContext()).newPage();
  await bringSession(other, velarium, 'idris@quillonfell.example');
  await openWorkbench(page, velarium, 'Welcome to members');
  await openWorkbench(other, velarium, 'Welcome to members');
  // Nothing of the first is heard before the second has typed.
  await other.route('**/presence', (route) => route.abort());
  await page.keyboard.press('2');
  await other.keyboard.press('2');
  await page.getByLabel('Seconds on the page').fill('11');
  await expect(page.getByRole('status').filter({ hasText: 'All saved' })).toBeVisible();
  await other.getByLabel('Seconds on the page').fill('22');
  const dialog = other.getByRole('dialog', { name: 'Somebody else saved this first' });
  await expect(dialog).toContainText('after 22 seconds');
  await expect(dialog).toContainText('after 11 seconds');
  await dialog.getByRole('button', { name: 'Go on with theirs' }).click();
  const sentence = other.getByRole('region', { name: 'Rule sentence' });
  await expect(sentence).toContainText('after 11 seconds');
  await other.getByRole('button', { name: 'Undo' }).click();
  await expect(sentence).toContainText('after 22 seconds');
  await expect(other.getByRole('status').filter({ hasText: 'All saved' })).toBeVisible();
  // The first is told as well, with both texts, and can put back what was replaced.
  const told = page.getByRole('dialog', { name: 'Somebody else changed what you had changed' });
  await expect(told).toContainText('after 11 seconds');
  await expect(told).toContainText('after 22 seconds');
  await told.getByRole('button', { name: 'Put mine back' }).click();
  await expect(page.getByRole('region', { name: 'Rule sentence' })).toContainText('after 11 seconds');
});

test('what another saves is followed, and a sheet that shows something else does not publish', async ({
  memberPage: page,
  browser,
  velarium,
}) => {
  const other = await (await browser.newContext()).newPage();
  await bringSession(other, velarium, 'idris@quillonfell.example');
  await openWorkbench(page, velarium, 'Welcome to members');
  await openWorkbench(other, velarium, 'Welcome to members');
  await page.keyboard.press('ControlOrMeta+Enter');
  const sheet = page.getByRole('dialog', { name: /^Launch/ });
  await expect(sheet).toBeVisible();
  await other.keyboard.press('2');
  await other.getByLabel('Seconds on the page').fill('77');
  await expect(other.getByRole('status').filter({ hasText: 'All saved' })).toBeVisible();
  await expect(sheet.getByRole('alert')).toContainText('Moment: when it opens');
  await expect(sheet.getByRole('button', { name: /^Publish/ })).toBeDisabled();
  await expect(sheet).not.toContainText('after 77 seconds');
  await sheet.getByRole('button', { name: 'Show it as it is now' }).click();
  await expect(sheet).toContainText('after 77 seconds');
  await expect(sheet.getByRole('button', { name: /^Publish/ })).toBeEnabled();
  await sheet.getByRole('button', { name: /^Publish/ }).click();
  await expect(page.getByText('“Welcome to members” is running.')).toBeVisible();
  // It runs already: what is not yet published is called so, wherever it is looked at.
  await openCampaign(page);
  await expect(page.getByText('◇ edits not yet published')).toHaveCount(0);
  await page.keyboard.press('2');
  await page.getByLabel('Seconds on the page').fill('78');
  await expect(page.getByText('◇ edits not yet published')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Rule sentence' })).toContainText('With the edits:');
  await expect(page.getByRole('button', { name: 'Launch the edits' })).toBeVisible();
  await expect(other.getByText('◇ edits not yet published')).toBeVisible();
});

test('two people on different blocks of one campaign: neither loses a word', async ({
  memberPage: page,
  browser,
  velarium,
}) => {
  const other = await (await browser.newContext()).newPage();
  await bringSession(other, velarium, 'idris@quillonfell.example');
  await openWorkbench(page, velarium, 'Welcome to members');
  await openWorkbench(other, velarium, 'Welcome to members');
  const stage = (of: typeof page) => of.frameLocator('iframe[title="Message on desktop"]');
  const type = async (of: typeof page, name: string, words: string) => {
    await stage(of).getByRole('textbox', { name }).click();
    await of.keyboard.press('ControlOrMeta+a');
    await of.keyboard.type(words);
  };
  await type(page, 'Heading', 'Mara was here');
  await type(other, 'Button words', 'Idris was here');
  for (const one of [page, other]) {
    await expect(one.getByRole('status').filter({ hasText: 'All saved' })).toBeVisible();
  }
  await page.reload();
  for (const one of [page, other]) {
    await expect(stage(one).getByRole('textbox', { name: 'Heading' })).toHaveText('Mara was here');
    await expect(stage(one).getByRole('textbox', { name: 'Button words' })).toHaveText('Idris was here');
  }
});

test('a campaign that would open nowhere cannot be launched, and is told where to mend it', async ({
  studioPage: page,
}) => {
  await page.getByRole('button', { name: 'New campaign' }).click();
  await page.getByRole('button', { name: 'Make the campaign' }).click();
  await expect(page.getByText('give it a name')).toBeVisible();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Nowhere yet');
  await page.getByRole('button', { name: 'Make the campaign' }).click();
  await page.getByRole('button', { name: 'Launch' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('It would open on no page');
  await expect(dialog.getByRole('button', { name: 'Publish' })).toBeDisabled();
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Mend' }).click();
  await expect(page.getByRole('button', { name: /^Reach/ })).toHaveAttribute('aria-expanded', 'true');
});

test('the Board is searched by its sentences and keeps the search in its address', async ({
  studioPage: page,
}) => {
  await page.getByRole('searchbox').fill('deep-sky');
  await expect(page.getByRole('list', { name: 'Campaigns' }).getByRole('listitem')).toHaveCount(1);
  await page.reload();
  await expect(page.getByRole('list', { name: 'Campaigns' }).getByRole('listitem')).toHaveCount(1);
  await page.getByRole('searchbox').fill('no such words');
  await expect(page.getByText('Nothing matches')).toBeVisible();
});

test('a viewer reads and changes nothing', async ({ page, velarium }) => {
  await signIn(page, velarium, 'wren@quillonfell.example');
  await expect(page.getByRole('button', { name: 'New campaign' })).toHaveCount(0);
  await expect(page.getByRole('button', { name: /^Actions for/ })).toHaveCount(0);
  await openCampaign(page);
  await expect(page.getByText('You may look; changing takes the role editor.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Launch' })).toHaveCount(0);
  await page.keyboard.press('2');
  // What cannot be changed looks and acts like it, and can still be read and copied.
  const seconds = page.getByLabel('Seconds on the page');
  await expect(seconds).not.toBeEditable();
  await seconds.press('ArrowUp');
  await expect(page.getByRole('button', { name: 'Add a trigger' })).toBeDisabled();
  await expect(page.getByRole('region', { name: 'Rule sentence' })).toContainText('after 8 seconds');
  await page.keyboard.press('3');
  await expect(page.getByRole('region', { name: 'Reach' }).getByRole('radio').first()).toBeDisabled();
  await expectAccessible(page);
  await open('Team')(page);
  await expect(page.getByRole('button', { name: 'Invite somebody' })).toHaveCount(0);
});

test('an owner invites somebody, who joins by the mail; their role is changed and taken back; a password is forgotten', async ({
  studioPage: page,
  velarium,
  browser,
}) => {
  await open('Team')(page);
  await page.getByRole('button', { name: 'Invite somebody' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill('Lark Ashby');
  await dialog.getByLabel('Mail address').fill('lark');
  await dialog.getByRole('button', { name: 'Invite' }).click();
  await expect(dialog.getByText('write it as name@example.org')).toBeVisible();
  await dialog.getByLabel('Mail address').fill('lark@quillonfell.example');
  await dialog.getByRole('button', { name: 'Invite' }).click();
  await expect(page.getByRole('region', { name: 'Invited' })).toContainText('the mail: sent');
  await expectAccessible(page);

  const guest = await (await browser.newContext()).newPage();
  const follow = async () => {
    const { text } = await mailTo(velarium, 'lark@quillonfell.example');
    await guest.goto(/http:\/\/127\.0\.0\.1:\d+\/(join|password)\S+/.exec(text)?.[0] ?? '');
  };
  await follow();
  await expect(guest.getByText('You are invited to Fell and Sound.')).toBeVisible();
  await guest.getByLabel('Choose a password').fill('short');
  await guest.getByRole('button', { name: 'Join' }).click();
  await expect(guest.getByText('use at least 10 characters')).toBeVisible();
  await expectAccessible(guest);
  await guest.getByLabel('Choose a password').fill('long-enough-now');
  await guest.getByRole('button', { name: 'Join' }).click();
  await expect(guest.getByRole('button', { name: 'Sign in' })).toBeVisible();
  await guest.getByRole('link', { name: 'Forgotten your password?' }).click();
  await guest.getByLabel('Mail address').fill('lark@quillonfell.example');
  await guest.getByRole('button', { name: 'Send the link' }).click();
  await expect(guest.getByText(/a mail is on its way/)).toBeVisible();
  await expect
    .poll(async () => (await mailTo(velarium, 'lark@quillonfell.example')).subject)
    .toBe('A new password');
  await follow();
  await guest.getByLabel('New password').fill('another-long-one');
  await guest.getByRole('button', { name: 'Set it' }).click();
  await guest.getByLabel('Mail address').fill('lark@quillonfell.example');
  await guest.getByLabel('Password').fill('another-long-one');
  await guest.getByRole('button', { name: 'Sign in' }).click();
  await expect(guest.getByRole('heading', { name: 'Board' })).toBeVisible();
  await guest.context().close();

  await page.reload();
  const role = page.getByRole('combobox', { name: 'Role of Lark Ashby' });
  await expect(role).toContainText('Editor');
  await role.click();
  await page.getByRole('option', { name: /Viewer/ }).click();
  await expect(role).toContainText('Viewer');
  await page
    .getByRole('listitem')
    .filter({ hasText: 'is now viewer' })
    .getByRole('button', { name: 'Undo' })
    .click();
  await expect(role).toContainText('Editor');
});

test('two people see that the other is here', async ({ memberPage: page, velarium, browser }) => {
  await openWorkbench(page, velarium, 'Sky letter for readers');
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const other = await context.newPage();
  await bringSession(other, velarium, 'idris@quillonfell.example');
  await openWorkbench(other, velarium, 'Sky letter for readers');
  await expect(other.getByText('Mara Tindall is here too')).toBeVisible();
  await context.close();
});

test('Launch names a page the site does not have and an element that is on none of its pages', async ({
  memberPage: page,
  velarium,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Slips', /Corner invitation/);
  await say(page, 'on /jornal/ and on shop, once per session');
  await addTrigger(page, 'An element used');
  await page.getByRole('button', { name: 'Launch', exact: true }).click();
  const checks = page.getByRole('dialog').getByRole('list', { name: 'Checks' });
  await expect(checks).toContainText(
    'known pages is among “addresses that begin with /jornal/”. Is “/journal/” meant?',
  );
  await expect(checks).toContainText('no element “.open” in its source');
  await expect(checks).not.toContainText('begins with /shop/');
});
