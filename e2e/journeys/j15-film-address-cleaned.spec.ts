import { restAll } from '../lib/api.ts';
import { expect, test, visit } from '../lib/velarium.ts';
import { newCampaign, openEverywhere, outline } from '../lib/workbench.ts';

test('J13 J15 a film: its address is cleaned, and nothing of its host loads before it is played', async ({
  studioPage: page,
  velarium,
  visitor,
}) => {
  await restAll(velarium);
  await newCampaign(page, 'Film', /Film night/);
  await outline(page).getByRole('button', { name: /^Film/ }).click();
  await page
    .getByLabel('Address of the film')
    .fill('http://127.0.0.1:9/films/one-night?utm_source=letter&v=4#share');
  await page.getByLabel('Address of the film').blur();
  await expect(page.getByLabel('Address of the film')).toHaveValue('http://127.0.0.1:9/films/one-night?v=4');
  await page.getByRole('button', { name: 'The box' }).click();
  await page
    .getByRole('button', { name: /^Ground/ })
    .first()
    .click();
  await page.getByLabel('Ground as six hex digits').fill('#0b3d2e');
  await page.keyboard.press('Escape');
  await openEverywhere(page, velarium, { triggers: [{ kind: 'time', seconds: 7 }] });
  const asked: string[] = [];
  visitor.on('request', (request) => asked.push(request.url()));
  const site = await visit(visitor, `${velarium.fell}/about`);
  await site.pass(7.5);
  await expect(site.dialog).toBeVisible();
  expect((await site.dialog.boundingBox())?.width).toBeCloseTo(1280 * 0.6, 0);
  expect(asked.filter((url) => url.includes(':9/'))).toEqual([]);
  await site.dialog.getByRole('button', { name: /^Play/ }).click();
  await expect(site.dialog.locator('iframe')).toHaveAttribute(
    'src',
    'http://127.0.0.1:9/films/one-night?v=4&autoplay=1',
  );
});
