import { restAll } from '../lib/api.ts';
import { expect, test, visit } from '../lib/velarium.ts';
import { addCondition, beginCampaign, launch, say, sentence } from '../lib/workbench.ts';

test('J10 a code that can be copied, at most 420 px wide, that closes by itself after 20 s', async ({
  memberPage: page,
  velarium,
  visitor,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Welcome', /Welcome code/);
  await page.getByText('Size and spacing').click();
  await page.getByLabel('Never wider than').fill('420');
  await page.getByText('Way out', { exact: true }).click();
  await page.getByRole('switch', { name: 'Closes by itself' }).click();
  await expect(page.getByRole('region', { name: 'Rule sentence' })).toContainText(
    'It closes by itself after 20 seconds.',
  );
  await say(page, 'at once, everywhere, on every device, once per session');
  await addCondition(page, 'Things in the basket');
  await page.getByLabel('Number', { exact: true }).fill('3');
  await addCondition(page, 'Worth of the basket');
  await expect(sentence(page)).toContainText(
    'for visitors with at least 3 things in the basket and with a basket worth at least 60',
  );
  await launch(page);
  await visitor.grantPermissions(['clipboard-read', 'clipboard-write']);
  const site = await visit(visitor, `${velarium.fell}/shop`);
  const lamp = site.page.getByRole('button', { name: 'Put in the basket' }).nth(1);
  await lamp.click();
  const another = site.page.getByRole('button', { name: 'In the basket', exact: true });
  await another.click();
  await site.pass(1);
  await expect(site.message).toHaveCount(0);
  await another.click();
  await site.pass(0.5);
  expect((await site.dialog.boundingBox())?.width).toBeLessThanOrEqual(420);
  await site.dialog.getByRole('button', { name: 'Copy it' }).click();
  await expect(site.dialog.getByRole('button', { name: 'Copied' })).toBeVisible();
  expect(await site.page.evaluate(() => navigator.clipboard.readText())).toBe('FIRSTLIGHT');
  await site.pass(18);
  await expect(site.message).toHaveCount(1);
  await site.pass(3);
  await expect(site.message).toHaveCount(0);
});
