import type { Page } from '@playwright/test';
import { expectAccessible } from './lib/accessibility.ts';
import { restAll } from './lib/api.ts';
import { bringSession, expect, newVisitor, signIn, test, visit } from './lib/velarium.ts';
import { beginCampaign, openCampaign, openPlace, saved, say, stage } from './lib/workbench.ts';

const retitle = async (page: Page, words: string) => {
  await stage(page, 'desktop').getByRole('textbox', { name: 'Heading' }).fill(words);
  await saved(page);
};
const openLaunch = async (page: Page) => {
  await saved(page);
  await page.keyboard.press('ControlOrMeta+Enter');
  return page.getByRole('dialog', { name: /^Launch/ });
};

test('Launch says what changes; versions are compared as visitors had them, and one comes back live', async ({
  velarium,
  memberPage: page,
  browser,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Kept whole', /Corner invitation/);
  await say(page, 'after 2 seconds, on /about, every time');
  await retitle(page, 'The first words');
  let launch = await openLaunch(page);
  await launch.getByLabel('What and why, for the history').fill('The season opens');
  await launch.getByRole('button', { name: 'Publish' }).click();
  await openCampaign(page, 'Kept whole');
  await say(page, 'after 3 seconds, on /contact');
  await retitle(page, 'Other words');
  launch = await openLaunch(page);
  const changes = launch.getByText('What changes for visitors').locator('../..');
  await expect(changes.getByRole('row').filter({ hasText: 'after 3 seconds' })).toContainText(
    'after 2 seconds',
  );
  await expect(changes.getByText('The first words')).toBeVisible();
  await expect(changes.getByText(/^Pages it leaves: 1/)).toBeVisible();
  await expectAccessible(page);
  await launch.getByRole('button', { name: 'Publish this version' }).click();

  await openCampaign(page, 'Kept whole');
  await page.getByRole('link', { name: 'Versions' }).click();
  const history = page.getByRole('list', { name: 'History' });
  await expect(history.getByRole('listitem')).toHaveCount(2);
  await expect(history.getByRole('listitem').last()).toContainText('The season opens');
  await history.getByRole('button', { name: /Version 1/ }).click();
  await expect(page.getByRole('region', { name: 'Version 1' })).toContainText('after 2 seconds');
  await expect(page.getByText('Version 1, as visitors had it')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Live at once' }).click();
  await expect(history.getByRole('listitem').first()).toContainText('Version 1 again');

  const site = await visit(await newVisitor(browser), `${velarium.fell}/about`);
  await site.pass(2.5);
  await expect(site.message.getByRole('heading')).toHaveText('The first words');

  // The draft was let be; as a draft it comes back too, and can be undone.
  await history.getByRole('button', { name: /^Version 2/ }).click();
  await page.getByRole('button', { name: 'Bring back as draft' }).click();
  await expect(stage(page, 'desktop').getByRole('textbox', { name: 'Heading' })).toHaveText('Other words');
});

test('a launch is planned, shown on the Board and called off; another comes at its time as it was planned', async ({
  velarium,
  memberPage: page,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'For later', /Corner invitation/);
  await say(page, 'after 2 seconds, on /about, every time');
  await retitle(page, 'As planned');
  let launch = await openLaunch(page);
  await launch.getByRole('radio', { name: 'At a set time' }).check();
  await expectAccessible(page);
  await launch.getByRole('button', { name: 'Plan the launch' }).click();
  const row = page.getByRole('listitem').filter({ hasText: 'For later' });
  await expect(row.getByText(/^◷ launches/)).toBeVisible();
  await openCampaign(page, 'For later');
  await page.getByRole('link', { name: 'Versions' }).click();
  await page.getByRole('button', { name: 'Call it off' }).click();
  await expect(page.getByText(/Launches by itself/)).toHaveCount(0);

  await page.getByRole('link', { name: 'For later' }).click();
  launch = await openLaunch(page);
  await launch.getByRole('radio', { name: 'At a set time' }).check();
  await launch.getByRole('button', { name: 'Plan the launch' }).click();
  await openCampaign(page, 'For later');
  await retitle(page, 'An afterthought');
  // Its time has come: the worker takes it by itself.
  await velarium.query(
    "UPDATE job.job SET start_after = now() WHERE name = 'launch-planned' AND data ->> 'planId' = (SELECT id::text FROM planned_launch)",
    [],
  );
  await page.getByRole('link', { name: 'Board', exact: true }).first().click();
  await expect(row.getByText('Running')).toBeVisible();
  await expect(row.getByText('edits not yet published')).toBeVisible();
});

test('several are launched together from the Board', async ({ velarium, memberPage: page }) => {
  await restAll(velarium);
  await openPlace(page, velarium, 'board');
  for (const name of ['Sky letter for readers', 'Summit road closed'])
    await page.getByLabel(`Choose ${name}`).check();
  await page.getByRole('button', { name: 'Launch together' }).click();
  const launch = page.getByRole('dialog', { name: 'Launch 2 campaigns together' });
  await expect(launch.getByRole('listitem')).toHaveCount(2);
  await expectAccessible(page);
  await launch.getByRole('button', { name: 'Publish all of them' }).click();
  await expect(page.getByText('2 campaigns published together.')).toBeVisible();
  const row = page.getByRole('listitem').filter({ hasText: 'Sky letter for readers' });
  await expect(row.getByText('Running')).toBeVisible();
});

test('several are asked of a second person together, looked at on one sheet, and launched in one moment', async ({
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await velarium.query('UPDATE workspace SET asks_second = true');
  // Browsers of their own: the kept one would go on asking for a second person in the next test.
  const [page, other] = [
    await (await browser.newContext()).newPage(),
    await (await browser.newContext()).newPage(),
  ];
  await signIn(page, velarium);
  await signIn(other, velarium, 'idris@quillonfell.example');
  for (const name of ['Sky letter for readers', 'Summit road closed'])
    await other.getByLabel(`Choose ${name}`).check();
  await other.getByRole('button', { name: 'Launch together' }).click();
  const asking = other.getByRole('dialog', { name: 'Launch 2 campaigns together' });
  await expect(asking.getByText('In this workspace a second person agrees first.')).toBeVisible();
  await asking.getByLabel('What and why, for the history').fill('Both for the open evening');
  await asking.getByRole('button', { name: 'Ask a second person' }).click();
  await expect(
    other.getByText('2 campaigns wait for a second person to agree to all of them.'),
  ).toBeVisible();
  await other.getByRole('link', { name: '◇ waits for a second person' }).first().click();
  await expect(other.getByText('as soon as they do, together with 1 other campaign')).toBeVisible();
  await expect(other.getByRole('button', { name: 'Call all of them off' })).toBeVisible();

  await page.goto(velarium.studio);
  const waits = page.getByRole('link', { name: '◇ waits for a second person' });
  await expect(waits).toHaveCount(2);
  await waits.first().click();
  await page.getByRole('button', { name: 'Look at it' }).click();
  const agreeing = page.getByRole('dialog', { name: 'Launch 2 campaigns together' });
  await expect(agreeing.getByText('All of them are published in one moment, or none is.')).toBeVisible();
  for (const name of ['Sky letter for readers', 'Summit road closed'])
    await expect(agreeing.getByRole('article', { name })).toContainText('What changes for visitors');
  await expectAccessible(page);
  await agreeing.getByRole('button', { name: 'Agree and publish all' }).click();
  await expect(page.getByText(/^Agreed\. “.*” and 1 other campaign are published\.$/)).toBeVisible();
  await page.goto(velarium.studio);
  for (const name of ['Sky letter for readers', 'Summit road closed'])
    await expect(page.getByRole('listitem').filter({ hasText: name }).getByText('Running')).toBeVisible();
  await expect(waits).toHaveCount(0);
});

test('a link shows a draft on the site to somebody without an account, with the panel or without', async ({
  velarium,
  memberPage: page,
  visitor,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'For the board', /Corner invitation/);
  await say(page, 'after 1 second, on /about, every time');
  await retitle(page, 'Only drafted');
  await page.getByRole('button', { name: 'Try it' }).click();
  await page.getByRole('button', { name: 'A link for somebody else' }).click();
  const dialog = page.getByRole('dialog', { name: 'A link for somebody else' });
  await expectAccessible(page);
  const make = async () => {
    await dialog.getByRole('button', { name: 'Make the link' }).click();
    return (await dialog.getByText(/#velarium-preview=/).textContent()) ?? '';
  };
  const withPanel = await make();
  await dialog.getByRole('switch', { name: 'With the panel' }).click();
  const without = await make();
  expect(without).not.toBe(withPanel);
  for (const [address, panels] of [
    [withPanel, 1],
    [without, 0],
  ] as const) {
    const guest = await visitor.newPage();
    await guest.goto(address);
    await expect(guest.getByRole('heading', { name: 'Only drafted' })).toBeVisible();
    await expect(guest.locator('velarium-panel')).toHaveCount(panels);
  }
  expect(
    await velarium.query(
      "SELECT 1 FROM event WHERE kind = 'shown' AND page = '/about' AND at > now() - interval '1 minute' AND version = 1",
    ),
  ).toHaveLength(0);
});

test('any earlier draft is found on a line, held against what it says now, and brought back', async ({
  velarium,
  memberPage: page,
}) => {
  await beginCampaign(page, velarium, 'Many drafts', /Corner invitation/);
  for (const words of ['The first words', 'The second words', 'The third words']) {
    await retitle(page, words);
    // What is typed one upon the other is one save.
    await expect
      .poll(() => velarium.query('SELECT FROM campaign_revision WHERE draft::text LIKE $1', [`%${words}%`]))
      .toHaveLength(1);
  }
  await page.getByRole('link', { name: 'Versions' }).click();
  await page.getByRole('radio', { name: 'Earlier drafts' }).check();
  const drafts = page.getByRole('region', { name: 'Earlier drafts' });
  const line = drafts.getByRole('slider');
  await expect(drafts.getByText('1 before what it says now')).toBeVisible();
  await expect(drafts.getByText('The second words')).toBeVisible();
  await expectAccessible(page);
  await line.press('ArrowLeft');
  await expect(drafts.getByText('The first words')).toBeVisible();
  await line.press('End');
  await expect(drafts.getByRole('button', { name: 'Bring back as draft' })).toBeDisabled();
  await line.press('ArrowLeft');
  await line.press('ArrowLeft');
  await expect(drafts.getByText('The first words')).toBeVisible();
  await drafts.getByRole('button', { name: 'Bring back as draft' }).click();
  const heading = stage(page, 'desktop').getByRole('textbox', { name: 'Heading' });
  await expect(heading).toHaveText('The first words');
});

test('where the workspace asks for it, a second person sees what a launch changes, and agrees to it or not', async ({
  velarium,
  studioPage: page,
  browser,
}) => {
  await restAll(velarium);
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Team' }).click();
  const asks = page.getByRole('switch', { name: 'A second person agrees before anything is launched' });
  await asks.click();
  await expect(asks).toBeChecked();

  const other = await (await browser.newContext()).newPage();
  await bringSession(other, velarium, 'idris@quillonfell.example');
  await beginCampaign(other, velarium, 'For two to see', /Corner invitation/);
  await say(other, 'after 5 seconds, everywhere');
  await saved(other);
  await other.keyboard.press('ControlOrMeta+Enter');
  const sheet = other.getByRole('dialog');
  await expect(sheet.getByText('In this workspace a second person agrees first.')).toBeVisible();
  await sheet.getByLabel('What and why, for the history').fill('For the open evening');
  await sheet.getByRole('button', { name: 'Ask a second person' }).click();
  await expect(other.getByText(/“For two to see” waits for a second person to agree/)).toBeVisible();
  // Whoever asks can call it off, and does not agree themselves.
  const waits = { name: '◇ waits for a second person' };
  await other.getByRole('link', waits).click();
  await expect(other.getByText('You ask a second person to agree to a launch')).toBeVisible();
  await expect(other.getByRole('button', { name: 'Call it off' })).toBeVisible();
  await expect(other.getByRole('button', { name: 'Look at it' })).toHaveCount(0);

  await page.goto(velarium.studio);
  await page.getByRole('link', waits).click();
  await expect(
    page.getByText(/Idris Vane asks a second person to agree to a launch as soon as they do/),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Look at it' }).click();
  const agreeing = page.getByRole('dialog', { name: 'Launch “For two to see”' });
  await expect(agreeing.getByText('“For the open evening”')).toBeVisible();
  await expect(agreeing.getByText('As visitors would meet it first')).toBeVisible();
  await expect(agreeing.getByRole('button', { name: 'Agree and publish' })).toBeEnabled();
  await expectAccessible(page);
  await agreeing.getByLabel('If you do not agree: why, for the history').fill('Not before Friday');
  await agreeing.getByRole('button', { name: 'Do not agree' }).click();
  await expect(page.getByText(/“For two to see” stays as it is/)).toBeVisible();
  await other.reload();
  await expect(other.getByText('You ask a second person')).toHaveCount(0);

  // Asked again, it is agreed to, and runs.
  await other.getByRole('link', { name: 'For two to see' }).click();
  await saved(other);
  await other.keyboard.press('ControlOrMeta+Enter');
  await sheet.getByRole('button', { name: 'Ask a second person' }).click();
  await page.reload();
  await page.getByRole('button', { name: 'Look at it' }).click();
  await agreeing.getByRole('button', { name: 'Agree and publish' }).click();
  await expect(page.getByText('Agreed. “For two to see” is published.')).toBeVisible();
  const lines = page.getByRole('list', { name: 'History' }).getByRole('listitem');
  await expect(lines.filter({ hasText: 'Version 1' })).toContainText('Idris Vane, agreed to by Mara Tindall');
  await expect(lines.filter({ hasText: 'Not agreed to' })).toContainText('Not before Friday');
});
