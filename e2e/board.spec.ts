import { expectAccessible } from './lib/accessibility.ts';
import { publish, restAll } from './lib/api.ts';
import { expect, test } from './lib/velarium.ts';
import { launch, newCampaign, openPlace, say } from './lib/workbench.ts';

const EVERYWHERE = { pages: { include: [{ kind: 'every' as const }], exclude: [], follows: null } };

test('campaigns stand by state; what wants a look is found at once; rows are roomy or close, and open in full', async ({
  velarium,
  memberPage: page,
}) => {
  await restAll(velarium);
  const end = new Date(Date.now() + 3 * 86_400_000).toISOString().slice(0, 16);
  await publish(velarium, {
    name: 'Ends soon',
    triggers: [{ kind: 'time', seconds: 4 }],
    reach: EVERYWHERE,
    limits: {
      schedule: { zone: 'site', start: null, end, days: [], hours: [], blackouts: [] },
    },
  });
  const unseen = await publish(velarium, {
    name: 'Never met',
    triggers: [{ kind: 'time', seconds: 5 }],
    reach: EVERYWHERE,
  });
  // The newest, of which nothing is to be said.
  await publish(velarium, {
    name: 'Just begun',
    triggers: [{ kind: 'time', seconds: 6 }],
    reach: { pages: { include: [{ kind: 'exact', address: '/about' }], exclude: [], follows: null } },
    message: { format: 'bar', anchor: 'top' },
  });
  await velarium.query(
    "UPDATE campaign_version SET published_at = now() - interval '8 days' WHERE campaign_id = $1",
    [unseen],
  );
  await openPlace(page, velarium, 'board');
  const group = (name: string) => page.getByRole('region', { name });
  await expect(group('Running').getByRole('listitem')).toHaveCount(3);
  await expect(group('Resting').getByRole('listitem')).toHaveCount(3);
  const row = (name: string) => page.getByRole('listitem').filter({ hasText: name });
  await expect(row('Ends soon')).toContainText('ends within 3 days');
  await expect(group('Running').getByRole('link')).toHaveText(['Never met', 'Ends soon', 'Just begun']);
  await expect(row('Never met')).toContainText('nobody has met it for a week');
  // Worked out while nobody waits for it.
  await expect(page.getByText(/comes after “.*” on \d+ pages/)).toBeVisible();

  await page.getByRole('button', { name: '◇ 2 worth a look' }).click();
  await expect(page.getByRole('listitem')).toHaveCount(2);
  await page.getByRole('button', { name: '◇ 2 worth a look' }).click();

  const heights = async () =>
    page
      .getByRole('listitem')
      .evaluateAll((rows) => [...new Set(rows.map((one) => one.getBoundingClientRect().height))]);
  const [roomy = 0, ...others] = await heights();
  expect(others).toEqual([]);
  await page.getByRole('radio', { name: 'Close rows' }).check();
  const [close = 0, ...closeOthers] = await heights();
  expect(closeOthers).toEqual([]);
  expect(close).toBeLessThan(roomy);
  await expectAccessible(page);
  await page.reload();
  await expect(page.getByRole('radio', { name: 'Close rows' })).toBeChecked();

  await expect(row('Ends soon')).not.toContainText('After a close');
  await page.getByRole('button', { name: 'In full: Ends soon' }).click();
  await expect(row('Ends soon')).toContainText('After a close');
  // Heads and the state one is in stay in sight, and no picture is cut off.
  await page.setViewportSize({ width: 1280, height: 400 });
  await page.mouse.move(600, 300);
  await page.mouse.wheel(0, 500);
  await expect(page.getByText('Rate of visitors').first()).toBeInViewport();
  await expect(page.getByRole('heading', { name: /Resting/ })).toBeInViewport();
});

test('what was just launched stands where it belongs from the first: nothing moves under a hand', async ({
  velarium,
  studioPage: page,
}) => {
  await restAll(velarium);
  await newCampaign(page, 'Just launched', /Corner invitation/);
  await say(page, 'everywhere, on every device, every time');
  // The list comes late, as over a slow line: when the row's menu is open.
  const lists = /\/api\/sites\/[^/]+\/campaigns$/;
  let isLate = true;
  await page.route(lists, async (route) => {
    const answer = await route.fetch();
    if (isLate) await page.getByRole('menu').waitFor();
    isLate = false;
    await route.fulfill({ response: answer });
  });
  await launch(page);
  const came = page.waitForResponse(lists);
  await page.getByRole('button', { name: 'Actions for Just launched' }).click();
  await came;
  // What the list says has been drawn.
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  await page.getByRole('menuitem', { name: 'Duplicate' }).click({ timeout: 30_000 });
  await expect(page.getByRole('link', { name: 'Just launched, copy' })).toBeVisible();
  await page.unrouteAll({ behavior: 'ignoreErrors' });
});
