import type { Page } from '@playwright/test';
import { PLAIN_LOOK } from '@velarium/core';
import { expectAccessible } from './lib/accessibility.ts';
import { draft, makeGroup } from './lib/api.ts';
import { expect, test, type Velarium } from './lib/velarium.ts';
import { openWorkbench, sentence, side, stage } from './lib/workbench.ts';

const PROBLEM = {
  type: 'about:blank',
  title: 'Something broke',
  status: 500,
  detail: 'Try again.',
  code: 'broken',
};

/** One of the answers that a place is put together from does not come, until it is let through. */
async function withhold(page: Page, address: RegExp): Promise<() => Promise<void>> {
  await page.route(address, (route) =>
    route.fulfill({ status: 500, contentType: 'application/problem+json', body: JSON.stringify(PROBLEM) }),
  );
  return () => page.unroute(address);
}
const goTo = (page: Page, place: string) =>
  page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: place, exact: true }).click();
const notice = (page: Page) =>
  page.getByRole('alert').filter({ hasText: 'Part of this place could not be read' });

test('what a place could not read is said, and read at a press', async ({ studioPage: page }) => {
  for (const [place, address, words] of [
    ['People', /\/answers\/counts/, /\d+ answers in 28 days/],
    ['Site', /\/sites\/[^/]+\/pages$/, 'Seen on 17 of 17 pages'],
    ['Team', /\/api\/tokens$/, 'Keys for other programs'],
  ] as const) {
    const letThrough = await withhold(page, address);
    await goTo(page, place);
    await expect(notice(page)).toBeVisible();
    // Nothing is made out of what is not known.
    await expect(page.getByText(/\b0 of 0\b/)).toHaveCount(0);
    await letThrough();
    await notice(page).getByRole('button', { name: 'Try again' }).click();
    await expect(notice(page)).toHaveCount(0);
    await expect(page.getByText(words)).toBeVisible();
  }
});

test('what is told over a dialog is pressed without closing it', async ({ studioPage: page }) => {
  await page.getByRole('checkbox', { name: /Summit road/ }).check();
  await page.getByRole('toolbar', { name: 'Chosen campaigns' }).getByRole('button', { name: 'Rest' }).click();
  const rested = page.getByRole('listitem').filter({ hasText: 'put to rest' });
  await expect(rested).toBeVisible();
  const letThrough = await withhold(page, /\/looks$/);
  await page.getByRole('button', { name: 'New campaign' }).click();
  const name = page.getByRole('dialog').getByRole('textbox', { name: 'Name', exact: true });
  await name.fill('Kept meanwhile');
  await expect(notice(page)).toBeVisible();
  await expectAccessible(page);
  await letThrough();
  await notice(page).getByRole('button', { name: 'Try again' }).click();
  await expect(notice(page)).toHaveCount(0);
  await rested.getByRole('button', { name: 'Undo' }).click();
  await expect(rested).toHaveCount(0);
  await expect(name).toHaveValue('Kept meanwhile');
  // The rest of it is no obstacle: what lies under it is pressed.
  await page.getByRole('dialog').getByRole('button', { name: 'Make the campaign' }).click();
  await expect(page.getByLabel('Campaign name')).toHaveValue('Kept meanwhile');
});

test('without what runs neither Season nor Coverage says that nothing does', async ({ studioPage: page }) => {
  for (const [place, falsely, truly] of [
    ['Season', 'Summit road closed', 'Notes of the team'],
    ['Coverage', 'Nothing can appear', 'Pages, with page views of 30 days'],
  ] as const) {
    // Two of what they cannot do without: both are told of at once, and asked for again at one press.
    const letThrough = await withhold(page, /\/(campaigns\/running|sites\/[^/]+\/pages)$/);
    await goTo(page, place);
    await expect(page.getByRole('alert').filter({ hasText: PROBLEM.title })).toBeVisible();
    await expect(page.getByText(falsely)).toHaveCount(0);
    // Told of in its own place, and so not twice.
    await expect(notice(page)).toHaveCount(0);
    await letThrough();
    await page.getByRole('button', { name: 'Try again' }).click();
    await expect(page.getByText(truly)).toBeVisible();
    // What was had stays when it cannot be had anew.
    const letThroughAgain = await withhold(page, /\/campaigns\/running$/);
    const asked = page.waitForResponse(/\/campaigns\/running$/);
    await page.evaluate(() => window.dispatchEvent(new Event('visibilitychange')));
    await asked;
    await expect(page.getByText(truly)).toBeVisible();
    await expect(page.getByText(PROBLEM.title)).toHaveCount(0);
    await letThroughAgain();
    // Nothing of it is known at the next place.
    await goTo(page, 'Board');
    await page.reload();
  }
});

test('a place that cannot be had anew stays as it was', async ({ studioPage: page }) => {
  for (const [place, address, truly] of [
    ['Rehearsal', /\/cast/, 'Rehearsal'],
    ['Forecast', /\/cast/, 'Forecast'],
    ['Results', /\/results\?/, 'Results'],
  ] as const) {
    await goTo(page, place);
    const head = page.getByRole('heading', { name: truly, exact: true });
    await expect(head).toBeVisible();
    await page.waitForLoadState('networkidle');
    const letThrough = await withhold(page, address);
    const asked = page.waitForResponse(address);
    await page.evaluate(() => window.dispatchEvent(new Event('visibilitychange')));
    await asked;
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => setTimeout(done))));
    await expect(page.getByText(PROBLEM.title)).toHaveCount(0);
    await expect(head).toBeVisible();
    await letThrough();
  }
});

test('what has been as it is for a while, and cannot be had anew, says as of when', async ({
  studioPage: page,
}) => {
  const stale = page.getByRole('status').filter({ hasText: /^What you see is as of / });
  const again = () => page.evaluate(() => window.dispatchEvent(new Event('visibilitychange')));
  const address = /\/campaigns$/;
  const letThrough = await withhold(page, address);
  const asked = page.waitForResponse(address);
  await again();
  await asked;
  await expect(page.getByRole('link', { name: 'Summit road closed' }).first()).toBeVisible();
  // One that stumbles is nothing to speak of.
  await expect(stale).toHaveCount(0);
  await page.evaluate(() => {
    const now = Date.now.bind(Date);
    Date.now = () => now() + 31_000;
  });
  await expect(stale).toBeVisible();
  await expectAccessible(page);
  await letThrough();
  await stale.getByRole('button', { name: 'Try again' }).click();
  await expect(stale).toHaveCount(0);
});

test('a sign-out that did not happen is not taken for one', async ({ studioPage: page }) => {
  await page.route(/\/api\/session$/, (route) =>
    route.request().method() === 'DELETE'
      ? route.fulfill({ status: 500, contentType: 'application/problem+json', body: JSON.stringify(PROBLEM) })
      : route.fallback(),
  );
  await page.getByRole('button', { name: 'Mara Tindall' }).click();
  await page.getByRole('menuitem', { name: 'Sign out', exact: true }).click();
  await expect(page.getByText(PROBLEM.title)).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Board' })).toBeVisible();
});

test('a studio that is opened while its server is away says so, and comes by itself once it is back', async ({
  studioPage: page,
}) => {
  const letThrough = await withhold(page, /\/api\//);
  await page.reload();
  const away = page.getByRole('alert').filter({ hasText: PROBLEM.title });
  await expect(away).toBeVisible();
  await expectAccessible(page);
  await away.getByRole('button', { name: 'Try again' }).click();
  await expect(away).toBeVisible();
  await letThrough();
  await expect(page.getByRole('heading', { name: 'Board' })).toBeVisible();
});

/** Some answers are kept back until they are let in; what is written in them is the server's. */
async function keepBack(page: Page, address: RegExp): Promise<() => void> {
  let letIn = () => {};
  const isLetIn = new Promise<void>((resolve) => {
    letIn = resolve;
  });
  await page.route(address, async (route) => {
    await isLetIn;
    await route.continue();
  });
  return letIn;
}

/** The ground a message stands on, as the stage draws it. */
const surfaceOf = (page: Page) =>
  stage(page, 'desktop')
    .locator('.card')
    .first()
    .evaluate((card) => getComputedStyle(card).getPropertyValue('--surface').trim());

/** That of the site's own Look. */
async function ownSurface(velarium: Velarium): Promise<string | undefined> {
  const [own] = await velarium.query<{ surface: string }>(
    `SELECT style->'palette'->>'surface' AS surface FROM look
      WHERE is_default AND site_id = (SELECT id FROM site ORDER BY created_at LIMIT 1)`,
  );
  return own?.surface;
}

test('what is not known yet is not said to be gone, and nothing is drawn otherwise than it will be', async ({
  memberPage: page,
  velarium,
}) => {
  const group = await makeGroup(velarium, 'The tours', [{ kind: 'begins', address: '/night-tours' }]);
  await draft(velarium, {
    name: 'Of a group',
    reach: { pages: { include: [{ kind: 'group', id: group }], exclude: [], follows: null } },
  });
  const letLooksIn = await keepBack(page, /\/looks$/);
  const letGroupsIn = await keepBack(page, /\/groups$/);
  const letPagesIn = await keepBack(page, /\/sites\/[^/]+\/pages$/);
  const lettersCame = page.waitForResponse(/\/letters$/);
  const isThere = openWorkbench(page, velarium, 'Of a group');
  await expect(page.getByRole('status', { name: 'Loading the campaign' })).toBeVisible();
  await lettersCame;
  await expect(page.locator('iframe')).toHaveCount(0);
  letLooksIn();
  await isThere;
  await expect(sentence(page)).toContainText('of the group “…”');
  await side(page, 'Moment');
  await expect(page.getByText('Loading the curves …')).toBeVisible();
  letPagesIn();
  await page.getByRole('button', { name: /^Launch/ }).click();
  const sheet = page.getByRole('dialog');
  await expect(sheet.getByRole('status')).toHaveText('Looking at the site’s pages …');
  await expect(sheet.getByText('no page')).toHaveCount(0);
  await expect(sheet.getByRole('button', { name: /^Publish/ })).toBeDisabled();
  letGroupsIn();
  await expect(sheet.getByRole('button', { name: /^Publish/ })).toBeEnabled();
  await page.keyboard.press('Escape');
  await expect(sentence(page)).toContainText('of the group “The tours”');
  // In the site's own Look, which it had from the first.
  await expect.poll(() => surfaceOf(page)).toBe(await ownSurface(velarium));
});

test('what cannot be had keeps nobody from the Workbench', async ({ memberPage: page, velarium }) => {
  const letThrough = await withhold(page, /\/looks$/);
  await openWorkbench(page, velarium, 'Places on Friday’s tour');
  await expect(notice(page)).toBeVisible();
  await expect.poll(() => surfaceOf(page)).toBe(PLAIN_LOOK.palette.surface);
  await letThrough();
  await notice(page).getByRole('button', { name: 'Try again' }).click();
  await expect(notice(page)).toHaveCount(0);
  await expect.poll(() => surfaceOf(page)).toBe(await ownSurface(velarium));
});
