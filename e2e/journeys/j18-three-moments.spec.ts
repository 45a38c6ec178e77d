import { restAll } from '../lib/api.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';
import { newCampaign, openEverywhere, outline, saved, stage } from '../lib/workbench.ts';

test('J18 a saved block in two campaigns is changed once and changes in both', async ({
  studioPage: page,
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await newCampaign(page, 'Home', /Low lantern/);
  await outline(page).getByRole('button', { name: /^Text/ }).click();
  await page.getByRole('button', { name: 'Keep it for other campaigns' }).click();
  await page.getByRole('dialog').getByLabel('Name').fill('Promise');
  await page.getByRole('button', { name: 'Keep it', exact: true }).click();
  await expect(outline(page).getByText('Saved block')).toBeVisible();
  await openEverywhere(page, velarium, {
    reach: { pages: { include: [{ kind: 'exact', address: '/' }], exclude: [], follows: null } },
  });

  await page.getByRole('link', { name: 'Board' }).first().click();
  await newCampaign(page, 'Articles', /Corner invitation/);
  await page.getByRole('button', { name: 'Add a block' }).click();
  await page.getByRole('dialog', { name: 'Add a block' }).getByRole('button', { name: 'Promise' }).click();
  await expect(stage(page, 'desktop').getByText('About twice a month.')).toBeVisible();
  await openEverywhere(page, velarium, {
    reach: { pages: { include: [{ kind: 'exact', address: '/about' }], exclude: [], follows: null } },
  });

  await outline(page)
    .getByRole('button', { name: /^Saved block/ })
    .click();
  await expect(page.getByText('is used by Articles and Home')).toBeVisible();
  await page.getByRole('button', { name: 'Change it everywhere' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('radio', { name: 'Small print' }).check();
  await dialog.getByRole('button', { name: 'Save it everywhere' }).click();
  await expect(dialog).toHaveCount(0);
  for (const path of ['/', '/about']) {
    const context = await newVisitor(browser);
    const site = await visit(context, velarium.fell + path);
    await site.pass(0.3);
    await expect(site.page.locator('velarium-message .small').first()).toContainText('About twice a month.');
    await context.close();
  }
  // Detached, it is this campaign's own again.
  await page.getByRole('button', { name: 'Detach it here' }).click();
  await expect(outline(page).getByText('Saved block')).toHaveCount(0);
  await saved(page);
});
