import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { accessibilityFaults } from './lib/accessibility.ts';
import { publish } from './lib/api.ts';
import { expect, newVisitor, test, visit } from './lib/velarium.ts';
import { openPlace } from './lib/workbench.ts';

const FILE = createRequire(import.meta.url).resolve(
  '@fontsource-variable/nunito/files/nunito-latin-wght-normal.woff2',
);

test('letters are brought to a site, a Look is set in them, and its messages open in them', async ({
  velarium,
  memberPage: page,
  browser,
}) => {
  await openPlace(page, velarium, 'site');
  await page.getByRole('tab', { name: 'Looks' }).click();
  await page.getByRole('button', { name: 'Change Night ridge' }).click();
  const dialog = page.getByRole('dialog', { name: 'Looks' });
  // The demo's pages load letters of their own, and its Look is set in those.
  await expect(dialog.getByLabel('Headings', { exact: true })).toContainText('As on the pages: Fraunces');

  await dialog.getByText('Letters of this site').click();
  const file = dialog.getByLabel('File of letters');
  const bring = async () => {
    await dialog.getByLabel('By what right they are used').fill('Free under the OFL');
    await dialog.getByRole('button', { name: 'Bring them' }).click();
  };
  await file.setInputFiles({ name: 'House.woff2', mimeType: 'font/woff2', buffer: Buffer.from('<svg/>') });
  await bring();
  await expect(dialog.getByRole('alert')).toContainText('It is no WOFF2 file');
  await file.setInputFiles({ name: 'House_round.woff2', mimeType: 'font/woff2', buffer: readFileSync(FILE) });
  await expect(dialog.getByLabel('Name of the letters')).toHaveValue('House');
  await bring();
  await expect(dialog.getByText('weights 200 to 1000, 40 kB. Free under the OFL')).toBeVisible();
  expect(await accessibilityFaults(page)).toEqual([]);

  await dialog.getByLabel('Headings', { exact: true }).click();
  await page.getByRole('option', { name: 'House' }).click();
  const sample = dialog.frameLocator('iframe[title="Preview"]').locator('h2').first();
  await expect(sample).toHaveCSS('font-family', /^"velarium [0-9a-f]{16}", /);
  await dialog.getByRole('button', { name: 'Save the Look' }).click();
  await expect(page.getByText('“Night ridge” is saved')).toBeVisible();
  // While a Look is set in them they stay.
  await dialog.getByRole('button', { name: 'Remove House' }).click();
  await expect(page.getByText('A Look is set in these letters')).toBeVisible();

  await publish(velarium, {});
  const context = await newVisitor(browser);
  const site = await visit(context, `${velarium.fell}/about`);
  await site.shows(1);
  const heading = site.message.locator('h2');
  await expect(heading).toHaveCSS('font-family', /^"velarium [0-9a-f]{16}", /);
  await expect(site.message.locator('.layer')).toHaveCSS('opacity', '1');
  const loaded = await site.page.evaluate(() =>
    [...document.fonts].filter(({ family }) => family.includes('velarium')).map(({ status }) => status),
  );
  expect(loaded).toEqual(['loaded']);
  expect(site.problems).toEqual([]);
  await context.close();

  // Where they cannot be had, or are late, the message is read in others.
  const without = await newVisitor(browser);
  await without.route('**/letters/*.woff2', (route) =>
    route.request().url().startsWith(velarium.edge) ? route.abort() : route.continue(),
  );
  const other = await visit(without, `${velarium.fell}/about`);
  await other.shows(1);
  await expect(other.message.locator('.layer')).toHaveCSS('opacity', '1');
  await expect(other.message.locator('h2')).toBeVisible();
  await without.close();
});

test('families that pages name are taken as they name them, and what is no list of families is refused', async ({
  memberPage: page,
  velarium,
}) => {
  await openPlace(page, velarium, 'site');
  await page.getByRole('tab', { name: 'Looks' }).click();
  await page.getByRole('button', { name: 'Change Ember' }).click();
  const dialog = page.getByRole('dialog', { name: 'Looks' });
  await dialog.getByLabel('Letters', { exact: true }).click();
  await page.getByRole('option', { name: 'As on the pages …' }).click();
  const families = dialog.getByLabel('Families of letters, as your pages name them');
  await families.fill('Georgia; color: red');
  await expect(families).toHaveAccessibleDescription(/^Name families as CSS does/);
  await families.fill('"Own Plain", Georgia, serif');
  await expect(families).not.toHaveAttribute('aria-invalid');
  await dialog.getByRole('button', { name: 'Save the Look' }).click();
  await expect(page.getByText('“Ember” is saved')).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: 'Change Ember' }).click();
  await expect(dialog.getByLabel('Letters', { exact: true })).toContainText('As on the pages: Own Plain');
});
