import { restAll } from '../lib/api.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';
import { newCampaign, openEverywhere } from '../lib/workbench.ts';

test('J21 six hours from first sight, on phones only, whatever is reloaded', async ({
  studioPage: page,
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await newCampaign(page, 'Tonight', /Six hours/);
  // Colours of its own, and the site's again in one click.
  await page.getByRole('button', { name: /^Accent/ }).click();
  await page.getByLabel('Accent as six hex digits').fill('#ffffff');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Take the Look’s colours' }).click();
  await openEverywhere(page, velarium, { reach: { devices: ['mobile'] } });
  await expect(page.getByRole('region', { name: 'Rule sentence' })).toContainText('on phone only');

  const desktop = await visit(await newVisitor(browser), `${velarium.fell}/about`);
  await desktop.pass(0.5);
  await expect(desktop.message).toHaveCount(0);

  const phone = await newVisitor(browser, {
    viewport: { width: 390, height: 844 },
    isMobile: true,
    hasTouch: true,
  });
  const site = await visit(phone, `${velarium.fell}/about`);
  await site.pass(0.3);
  const figures = () => site.page.locator('velarium-message b').allTextContents();
  await expect.poll(async () => (await figures())[0]).toMatch(/^0[56]$/);
  await site.pass(600);
  await expect.poll(async () => (await figures()).slice(0, 2)).toEqual(['05', '49']);
  await site.reload();
  await site.pass(0.3);
  await expect.poll(async () => (await figures()).slice(0, 2)).toEqual(['05', '49']);
  await phone.close();
});
