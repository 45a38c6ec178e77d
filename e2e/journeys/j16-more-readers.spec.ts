import { restAll } from '../lib/api.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';
import { launch, newCampaign, say, sentence } from '../lib/workbench.ts';

test('J16 a sign-up that fades in after 9 s, 440 by 340, once per visitor, then every 14 days', async ({
  studioPage: page,
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await newCampaign(page, 'Readers', /Among readers/);
  await page.getByText('Size and spacing').click();
  await page.getByLabel('Width in pixels').fill('440');
  await page.getByRole('group', { name: 'Height' }).getByRole('radio', { name: 'px' }).check();
  await page.getByLabel('Height in pixels').fill('340');
  await page.getByText('Animation', { exact: true }).click();
  await page.getByRole('combobox', { name: 'Coming in' }).click();
  await page.getByRole('option', { name: 'Fade in', exact: true }).click();
  await say(page, 'after 9 seconds, everywhere, on every device, once per visitor');
  await launch(page);
  const site = await visit(await newVisitor(browser), `${velarium.fell}/about`);
  await site.pass(8.5);
  await expect(site.message).toHaveCount(0);
  await site.pass(1);
  const box = await site.message.locator('.box').boundingBox();
  expect([box?.width, box?.height]).toEqual([440, 340]);
  await expect(site.message.getByText(/readers/)).toBeHidden();
  await site.go(`${velarium.fell}/contact`);
  await site.pass(10);
  await expect(site.message).toHaveCount(0);

  await page.getByRole('link', { name: 'Readers', exact: true }).click();
  await say(page, 'once every 14 days');
  await expect(sentence(page)).toContainText('once every 14 days');
  await launch(page);
  // To the hour: 14 days are 14 times 24 hours from the showing, and a new visitor begins a count of their own.
  const later = await visit(await newVisitor(browser), `${velarium.fell}/about`);
  await later.pass(9.5);
  await later.shows(1);
  const DAY_MS = 24 * 3_600_000;
  await later.sleep(13.9 * DAY_MS);
  await later.reload();
  await later.pass(10);
  await later.shows(0);
  // It is over while the page is open, so it opens there and then.
  await later.sleep(0.2 * DAY_MS);
  await later.shows(1);

  await page.getByRole('link', { name: 'Readers', exact: true }).click();
  await say(page, 'every time');
  await expect(sentence(page)).toContainText('every time a page is opened');
  await launch(page);
  await later.reload();
  await later.pass(10);
  await later.shows(1);

  // Two weeks before and after, counted elsewhere: by how much, how sure that is, and whether chance explains it.
  await page.getByRole('button', { name: 'Actions for Readers' }).click();
  await page.getByRole('menuitem', { name: 'Results' }).click();
  await page.getByRole('radio', { name: 'Counts of mine' }).check();
  await page.getByLabel('The first day after').fill('2026-11-15');
  const counts = page.getByLabel('A day and a count on each line');
  const dayOf = (n: number) => new Date(Date.UTC(2026, 10, 1 + n)).toISOString().slice(0, 10);
  const [before, after] = [
    [16, 12, 9, 14, 11, 13, 17],
    [38, 29, 24, 33, 28, 30, 41],
  ];
  const lines = [...before, ...before, ...after, ...after].map((count, n) => `${dayOf(n)},${count}`);
  await counts.fill([...lines.slice(0, 3), '2026-11-04;fourteen', ...lines.slice(4)].join('\n'));
  await expect(page.getByRole('alert')).toContainText('Line 4');
  await counts.fill(lines.join('\n'));
  const found = page.getByRole('status').filter({ hasText: 'a day before' });
  await expect(found).toContainText(
    /13\.1 a day before, 31\.9 after: 2\.42 times as many \(2\.\d\d to 2\.\d\d\)/,
  );
  await expect(found).toContainText(/Chance alone would do this once in [\d,]+/);
  await expect(found).toContainText('14 days against 14 days');
});
