import { restAll } from '../lib/api.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';
import { launch, newCampaign, outline, say, sentence, side, stage } from '../lib/workbench.ts';

test('J03 a question with a picture, from one country only, and every way to close it', async ({
  studioPage: page,
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await newCampaign(page, 'Ask us', /Ask the dome/);
  await outline(page).getByRole('button', { name: /^Form/ }).click();
  await page.getByRole('button', { name: 'Add a field' }).click();
  await page.getByRole('menuitem', { name: 'A picture', exact: true }).click();
  await expect(stage(page, 'desktop').locator('input[type=file]')).toHaveCount(1);
  await page.getByRole('button', { name: 'The box' }).click();
  await page.getByText('Way out', { exact: true }).click();
  await page.getByRole('radio', { name: 'Start', exact: true }).check();
  await page.getByRole('radio', { name: 'A word' }).check();
  await page.getByLabel('Word', { exact: true }).fill('Not now');
  await page.getByLabel('Comes late by').fill('4');
  await page.getByRole('switch', { name: 'Closes by itself' }).click();
  await page.getByLabel('After', { exact: true }).fill('40');
  await say(page, 'at once, on home, on every device, every time');
  await side(page, 'Reach');
  await page.getByRole('button', { name: 'Only for some' }).click();
  await page.getByRole('menuitem', { name: 'Country' }).click();
  await expect(sentence(page)).toContainText('for visitors with the country United Kingdom (gb)');
  await side(page, 'Limits');
  await page.getByText('Stays away', { exact: true }).click();
  await page.getByRole('radio', { name: 'It may come again' }).first().check();
  await launch(page);

  const from = async (country: string) => {
    const context = await newVisitor(browser);
    await context.route('**/about*', (route) =>
      route.fulfill({
        headers: { 'access-control-allow-origin': '*' },
        contentType: 'application/json',
        body: JSON.stringify({ country }),
      }),
    );
    return visit(context, `${velarium.fell}/`);
  };
  const elsewhere = await from('no');
  await elsewhere.pass(2);
  await expect(elsewhere.message).toHaveCount(0);

  const site = await from('gb');
  const again = async () => {
    await site.reload();
    await site.pass(0.5);
    await expect(site.dialog).toBeVisible();
  };
  await site.pass(0.5);
  await expect(site.dialog).toBeVisible();
  await site.page.keyboard.press('Escape');
  await site.pass(1);
  await expect(site.message).toHaveCount(0);
  await again();
  await site.page.mouse.click(5, 400);
  await site.pass(1);
  await expect(site.message).toHaveCount(0);
  await again();
  await site.page.evaluate(() => {
    const closer = document.body.appendChild(document.createElement('button'));
    closer.setAttribute('data-velarium-close', '');
    closer.click();
  });
  await site.pass(1);
  await expect(site.message).toHaveCount(0);
  await again();
  await site.pass(41);
  await expect(site.message).toHaveCount(0);
});
