import { restAll } from '../lib/api.ts';
import { expect, test, visit } from '../lib/velarium.ts';
import { newCampaign, openEverywhere } from '../lib/workbench.ts';

test('J10 a code that can be copied, at most 420 px wide, that closes by itself after 20 s', async ({
  studioPage: page,
  velarium,
  visitor,
}) => {
  await restAll(velarium);
  await newCampaign(page, 'Welcome', /Welcome code/);
  await page.getByText('Size and room').click();
  await page.getByLabel('Never wider than').fill('420');
  await page.getByText('Way out', { exact: true }).click();
  await page.getByRole('switch', { name: 'Closes by itself' }).click();
  await expect(page.getByRole('region', { name: 'Rule sentence' })).toContainText(
    'It closes by itself after 20 seconds.',
  );
  await openEverywhere(page, velarium);
  await visitor.grantPermissions(['clipboard-read', 'clipboard-write']);
  const site = await visit(visitor, `${velarium.fell}/shop`);
  await site.pass(0.3);
  expect((await site.dialog.boundingBox())?.width).toBeLessThanOrEqual(420);
  await site.dialog.getByRole('button', { name: 'Copy it' }).click();
  await expect(site.dialog.getByRole('button', { name: 'Copied' })).toBeVisible();
  expect(await site.page.evaluate(() => navigator.clipboard.readText())).toBe('FIRSTLIGHT');
  await site.pass(18);
  await expect(site.message).toHaveCount(1);
  await site.pass(3);
  await expect(site.message).toHaveCount(0);
});
