import type { Page } from '@playwright/test';
import { expectAccessible } from './lib/accessibility.ts';
import { restAll } from './lib/api.ts';
import { expect, signIn, test, visit } from './lib/velarium.ts';
import {
  beginCampaign,
  openEverywhere,
  openWorkbench,
  outline,
  saved,
  say,
  sentence,
  side,
  stage,
} from './lib/workbench.ts';

/** Nothing of the place stands beyond the right edge of the window. */
const expectNoOverflow = async (page: Page) =>
  expect(
    await page.evaluate(
      () =>
        document.documentElement.scrollWidth -
        innerWidth +
        Math.max(
          0,
          ...[...document.querySelectorAll('main')].map((one) => one.scrollWidth - one.clientWidth),
        ),
    ),
  ).toBeLessThanOrEqual(0);

test('the title says where one is, the keyboard can skip to the place, and stays in it when a row goes', async ({
  studioPage: page,
  velarium,
}) => {
  await expect(page).toHaveTitle('Board · Quillon Fell Observatory · Velarium');
  await openWorkbench(page, velarium, 'Welcome to members');
  await expect(page).toHaveTitle('Welcome to members · Velarium');
  await page.goBack();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Board' })).toBeVisible();
  await page.keyboard.press('Tab');
  await expect(page.getByRole('button', { name: 'Skip to the place' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('main')).toBeFocused();
  await page.getByRole('button', { name: 'Actions for Welcome to members' }).click();
  await page.getByRole('menuitem', { name: 'Archive' }).click();
  await expect(page.getByRole('link', { name: 'Welcome to members' })).toHaveCount(0);
  await expect(page.getByRole('main')).toBeFocused();
});

test('a campaign that is gone is said to be, and leads on', async ({ studioPage: page, velarium }) => {
  await page.goto(page.url().replace('/board', '/campaigns/00000000-0000-4000-8000-000000000000'));
  await expect(page.getByText('It may have been removed since')).toBeVisible();
  await page.getByRole('link', { name: 'Go to the Board' }).click();
  await expect(page.getByRole('heading', { name: 'Board' })).toBeVisible();
  // A file of an older build is no page of the studio.
  expect((await page.request.get(`${velarium.studio}/assets/gone-12345678.js`)).status()).toBe(404);
});

test('publishing leads to where it can be seen, and a frame says when its device is left out', async ({
  memberPage: page,
  context,
  velarium,
}) => {
  await openWorkbench(page, velarium, 'Welcome to members');
  await say(page, 'after 3 seconds, only on /about, not on phones, once per session');
  await expect(page.getByText('◇ never shown on phones')).toBeVisible();
  await page.getByRole('button', { name: /^Launch/ }).click();
  await page.getByRole('button', { name: /^Publish/ }).click();
  const opened = context.waitForEvent('page');
  await page.getByRole('button', { name: 'See it on the site' }).click();
  await (await opened).waitForURL(/\/about$/);
});

test('Tab comes to the words on the stage and to nothing there that does nothing; the scales of a visit have names', async ({
  memberPage: page,
  velarium,
}) => {
  await openWorkbench(page, velarium, 'Welcome to members');
  for (const device of ['desktop', 'phone'] as const) {
    const message = stage(page, device).locator('velarium-message');
    await expect(message.getByRole('textbox').first()).toBeVisible();
    const stops = await message.evaluate(({ shadowRoot }) => ({
      words: shadowRoot?.querySelectorAll('[contenteditable]:not([tabindex])').length ?? 0,
      others: [...(shadowRoot?.querySelectorAll<HTMLElement>('a, button, input, select, textarea') ?? [])]
        .filter(({ tabIndex }) => tabIndex >= 0)
        .map(({ outerHTML }) => outerHTML),
    }));
    expect(stops).toEqual({ words: 3, others: [] });
  }
  for (const name of ['The visit by seconds', 'The visit by depth'])
    await expect(page.getByRole('group', { name })).toBeVisible();
});

test('what somebody opens lies over what was said before, which stays to be read', async ({
  memberPage: page,
  velarium,
}) => {
  await openWorkbench(page, velarium, 'Welcome to members');
  await say(page, 'after 3 seconds, only on /about, once per session');
  await page.getByRole('button', { name: /^Launch/ }).click();
  await page.getByRole('button', { name: /^Publish/ }).click();
  const word = page.getByRole('button', { name: 'See it on the site' });
  await expect(word).toBeVisible();
  await openWorkbench(page, velarium, 'Welcome to members');
  await page.getByRole('button', { name: 'Add a block' }).click();
  const choices = page.getByRole('dialog', { name: 'Add a block' });
  await expect(choices).toBeVisible();
  const boxes = await Promise.all([choices.boundingBox(), word.boundingBox()]);
  const [open, said] = boxes.map((box) => box ?? { x: 0, y: 0, width: 0, height: 0 });
  // They do lie on one another here.
  expect(open && said && open.x < said.x + said.width && said.x < open.x + open.width).toBe(true);
  expect(
    await choices.getByRole('button').evaluateAll((buttons) =>
      buttons.flatMap((button) => {
        const { left, top, width, height } = button.getBoundingClientRect();
        const above = document.elementFromPoint(left + width / 2, top + height / 2);
        return button.contains(above)
          ? []
          : [`${button.textContent} lies under ${above?.outerHTML.slice(0, 80)}`];
      }),
    ),
  ).toEqual([]);
});

test('the first page weighs little, and what is named by its content is kept for a year', async ({
  browser,
  velarium,
}) => {
  const page = await (await browser.newContext()).newPage();
  const session = await page.context().newCDPSession(page);
  await session.send('Network.enable');
  let bytes = 0;
  session.on('Network.loadingFinished', ({ encodedDataLength }) => {
    bytes += encodedDataLength;
  });
  const caching = new Map<string, string | undefined>();
  const policies = new Map<string, string | undefined>();
  page.on('response', (response) => {
    const { pathname } = new URL(response.url());
    caching.set(pathname, response.headers()['cache-control']);
    policies.set(pathname, response.headers()['content-security-policy']);
    expect([pathname, response.headers()['x-content-type-options']]).toEqual([pathname, 'nosniff']);
  });
  await page.goto(`${velarium.studio}/sign-in`);
  await expect(page.getByLabel('Password')).toBeVisible();
  await page.waitForLoadState('networkidle');
  expect(bytes).toBeGreaterThan(50_000);
  // 200 kB of code, and the letters on top of it.
  const letters = await page.evaluate(() =>
    performance
      .getEntriesByType('resource')
      .filter(({ name }) => name.endsWith('.woff2'))
      .reduce((sum, one) => sum + (one as PerformanceResourceTiming).encodedBodySize, 0),
  );
  expect(bytes - letters).toBeLessThanOrEqual(200_000);
  const hashed = [...caching].filter(([path]) => path.startsWith('/assets/'));
  expect(hashed.length).toBeGreaterThan(2);
  for (const [path, control] of hashed)
    expect([path, control]).toEqual([path, 'public, max-age=31536000, immutable']);
  expect(caching.get('/sign-in')).toBe('no-cache');
  // What a page may do is said by the page.
  expect([...policies].filter(([, policy]) => policy).map(([path]) => path)).toContain('/sign-in');
  for (const [path] of hashed) expect([path, policies.get(path)]).toEqual([path, undefined]);
  await page.context().close();
});

for (const [width, height] of [
  [390, 844],
  [640, 400],
] as const)
  test(`at ${width} by ${height} the Board is read, and a campaign is worded, timed and launched`, async ({
    browser,
    velarium,
  }) => {
    const page = await (await browser.newContext({ viewport: { width, height } })).newPage();
    await signIn(page, velarium);
    await expectNoOverflow(page);
    const row = page.getByRole('listitem').filter({ hasText: 'Sky letter for readers' });
    await expect(row.getByText('Visitors', { exact: true })).toBeVisible();
    await expectAccessible(page);
    await openWorkbench(page, velarium, 'Welcome to members');
    await expectNoOverflow(page);
    await expect(page.getByText('Phone, 390 by 844')).toBeVisible();
    await page.getByRole('radio', { name: 'Panel' }).check();
    await expect(page.getByText('Phone, 390 by 844')).toBeHidden();
    await page.getByRole('button', { name: 'Moment' }).click();
    await page.getByLabel('Seconds on the page').fill('9');
    await expect(page.getByRole('region', { name: 'Rule sentence' })).toContainText('after 9 seconds');
    await expectNoOverflow(page);
    await expectAccessible(page);
    await page.getByRole('button', { name: /^Launch/ }).click();
    await page.getByRole('button', { name: /^Publish/ }).click();
    await expect(page.getByText('“Welcome to members” is running.')).toBeVisible();
    for (const place of ['Results', 'People', 'Outbox', 'Site', 'Team']) {
      await page
        .getByRole('navigation', { name: 'Places' })
        .getByRole('link', { name: place, exact: true })
        .click();
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      await expect(page.getByRole('status', { name: /^Loading/ })).toHaveCount(0);
      await expectNoOverflow(page);
    }
    await page.context().close();
  });

test('what another changes, and what is taken back, leaves whoever types where they were', async ({
  memberPage: page,
  velarium,
}) => {
  await beginCampaign(page, velarium, 'Late', /Corner invitation/);
  const heading = stage(page, 'desktop').getByRole('textbox', { name: 'Heading' });
  await heading.click();
  await page.keyboard.press('Home');
  await page.keyboard.type('Tonight ');
  const before = await heading.evaluateHandle((element) => element);
  // Another keeps a block meanwhile, which is asked for when one comes back from another window after half a minute.
  await page.route('**/api/sites/*/blocks', (route) =>
    route.fulfill({
      json: [{ id: 'late', name: 'Late', block: { id: 'late', kind: 'divider', style: {} }, usedBy: [] }],
    }),
  );
  await page.evaluate(() => {
    const now = Date.now;
    Date.now = () => now() + 31_000;
    document.dispatchEvent(new Event('visibilitychange', { bubbles: true }));
  });
  // Drawn anew: what was there is gone.
  await expect.poll(() => before.evaluate(({ isConnected }) => isConnected)).toBe(false);
  await page.keyboard.type('or tomorrow ');
  await expect(heading).toHaveText(/^Tonight or tomorrow \w/);
  await expect(heading).toBeFocused();
  await page.keyboard.press('ControlOrMeta+z');
  await expect(heading).toBeFocused();
  await saved(page);
});

test('a reload in the middle of typing loses neither words nor the way back; a note of the team stays', async ({
  memberPage: page,
  velarium,
}) => {
  await beginCampaign(page, velarium, 'Kept', /Corner invitation/);
  const heading = stage(page, 'desktop').getByRole('textbox', { name: 'Heading' });
  await heading.click();
  await page.keyboard.press('End');
  await page.keyboard.type(' tonight');
  await saved(page);
  const text = stage(page, 'desktop').getByRole('textbox', { name: 'Text' });
  await text.click();
  await page.keyboard.press('ControlOrMeta+End');
  await page.keyboard.type(' Come along');
  // Before it was saved: a browser asks, and is told to go on.
  page.once('dialog', (dialog) => void dialog.accept());
  await page.reload();
  await expect(text).toHaveText(/ Come along$/);
  await saved(page);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(text).not.toHaveText(/Come along/);
  await expect(heading).toHaveText(/ tonight$/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(heading).not.toHaveText(/tonight/);

  await page.getByRole('button', { name: 'Note', exact: true }).click();
  await page.getByRole('textbox', { name: 'Note for the team' }).fill('Ends with the season.');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Note: Ends with the season.' })).toBeVisible();
  await page.getByRole('link', { name: 'Board', exact: true }).first().click();
  await expect(page.getByText('Note: Ends with the season.')).toBeVisible();
});

test('what is set for one device is seen on the stage and in every group that sets it', async ({
  memberPage: page,
  velarium,
}) => {
  await beginCampaign(page, velarium, 'For one', /Corner invitation/);
  await page.getByText('Size and spacing', { exact: true }).click();
  await page.getByRole('radio', { name: 'Phone' }).check();
  await expect(page.getByText('▸ being set')).toHaveCount(1);
  await expect(page.getByRole('figure').filter({ hasText: '▸ being set' })).toContainText(
    'Phone, 390 by 844',
  );
  // Also in a group that is folded.
  await expect(
    page.locator('summary').filter({ hasText: 'Background and border' }).getByText('▸ set for phone'),
  ).toBeVisible();
  await page.getByRole('radio', { name: 'Tablet' }).check();
  await expect(page.getByRole('figure').filter({ hasText: '▸ being set' })).toContainText('Tablet');
  await page.getByRole('radio', { name: 'All devices' }).check();
  await expect(page.getByText('▸ being set')).toHaveCount(0);
});

test('a trigger that is added lies open and differs; a link is made of chosen words only; a heading leads on', async ({
  velarium,
  memberPage: page,
  visitor,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Added', /Corner invitation/);
  await side(page, 'Moment');
  await page.getByRole('button', { name: 'Add a trigger' }).click();
  await page.getByRole('menuitem', { name: 'Time on the page', exact: true }).click();
  await expect(page.getByLabel('Seconds on the page').last()).toBeVisible();
  await page.getByRole('button', { name: 'Add a trigger' }).click();
  await page.getByRole('menuitem', { name: 'Time on the page', exact: true }).click();
  const seconds = async () => (await sentence(page).textContent())?.match(/after \d+ seconds/g) ?? [];
  await expect.poll(async () => new Set(await seconds()).size).toBe(3);

  await side(page, 'Message');
  await outline(page).getByRole('button', { name: /^Text/ }).click();
  await page.getByRole('button', { name: 'Link', exact: true }).click();
  await page.getByLabel('Address the chosen words lead to').fill('/membership');
  await page.getByRole('button', { name: 'Link them' }).click();
  await expect(page.getByRole('alert')).toContainText('No words are chosen');
  await page.keyboard.press('Escape');
  await outline(page)
    .getByRole('button', { name: /^Heading/ })
    .click();
  await page.getByLabel('Leads to').fill('/membership');
  await page.getByRole('radio', { name: 'The same tab' }).check();
  await openEverywhere(page, velarium);
  const site = await visit(visitor, `${velarium.fell}/about`);
  await site.pass(0.3);
  const link = site.message.getByRole('heading').getByRole('link');
  await expect(link).toHaveAttribute('href', '/membership');
  await expect(link).not.toHaveAttribute('target', '_blank');
  await link.click();
  await expect(site.page).toHaveURL(/membership/);
  await expect
    .poll(() =>
      velarium.query(
        "SELECT 1 FROM event WHERE kind = 'clicked' AND campaign_id = (SELECT id FROM campaign WHERE name = 'Added')",
      ),
    )
    .toHaveLength(1);
});
