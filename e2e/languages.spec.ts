import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import type { Browser } from '@playwright/test';
import { expectAccessible } from './lib/accessibility.ts';
import { publishEverywhere } from './lib/api.ts';
import { mailTo } from './lib/standins.ts';
import { expect, newVisitor, test, type Velarium, visit } from './lib/velarium.ts';
import { beginCampaign, outline, saved, stage } from './lib/workbench.ts';

/** A visitor of a page that says it is in a language, or says nothing of it. */
async function visitIn(browser: Browser, { fell }: Velarium, language: string, locale = 'en-GB') {
  const context = await newVisitor(browser, { locale });
  // Before anything on the page looks at it.
  await context.addInitScript((lang) => {
    new MutationObserver(() => {
      document.documentElement.lang = lang;
    }).observe(document, { childList: true });
  }, language);
  const site = await visit(context, `${fell}/about`);
  await site.pass(2);
  await site.shows(1);
  return site;
}

test('B3 a message in four languages, one of them from right to left, is met in each and answered in one', async ({
  memberPage: page,
  velarium,
  browser,
}, testInfo) => {
  await beginCampaign(page, velarium, 'Sky letter abroad', /Sky letter/);
  await saved(page);
  await page.getByText('Languages', { exact: true }).click();
  await page.getByRole('button', { name: 'Write it in another language …' }).click();
  const dialog = page.getByRole('dialog', { name: 'Languages' });
  await expect(dialog.getByLabel('It is written in')).toHaveValue('English');
  await dialog.getByRole('button', { name: 'Go on' }).click();
  const add = async (name: string) => {
    await dialog.getByLabel('Another language').fill(name);
    await dialog.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(dialog.getByRole('heading', { name: `English and ${name}` })).toBeVisible();
  };
  await dialog.getByLabel('Another language').fill('Elvish tongue');
  await dialog.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(dialog.getByText(/Write a language by its name/)).toBeVisible();
  for (const name of ['Welsh', 'German', 'Arabic']) await add(name);
  await expectAccessible(page);

  // Arabic goes out as a file, is translated elsewhere, and comes back.
  const download = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Save as XLIFF' }).click();
  const file = readFileSync(await (await download).path(), 'utf8');
  expect(file).toContain('srcLang="en" trgLang="ar"');
  const translated = file.replace(
    /<source([^>]*)>([\s\S]*?)<\/source>(?!\s*<target)/g,
    (source, space) => `${source}<target${space}>نص بالعربية</target>`,
  );
  const bring = (text: string, name = 'back.xlf') =>
    page
      .getByLabel('Translated texts')
      .setInputFiles({ name, mimeType: 'application/xliff+xml', buffer: Buffer.from(text) });
  await bring('<xliff version="1.2"/>');
  const refused = (why: string) =>
    expect(page.getByText(`Nothing was taken from the file. ${why}`)).toBeVisible();
  await refused('It is XLIFF 1.2. Save it as XLIFF 2.1.');
  await bring(translated.replace('trgLang="ar"', 'trgLang="no language"'));
  await refused('It says that it is in “no language”, which is no language.');
  // By its path: handed over as it is it would be written out once more.
  const tooLarge = testInfo.outputPath('too-large.xlf');
  writeFileSync(tooLarge, '<'.padEnd(20_000_001));
  await page.getByLabel('Translated texts').setInputFiles(tooLarge);
  await refused('It is larger than 20,000 kB.');
  rmSync(tooLarge);
  await bring(translated.replace('trgLang="ar"', 'trgLang="cy"'));
  await expect(page.getByText(/This file is in Welsh. Choose that language first/)).toBeVisible();
  await bring(translated);
  await expect(page.getByText(/texts? taken in Arabic/)).toBeVisible();
  await expect(dialog.getByRole('button', { name: /Arabic/ })).toContainText('all there');
  await dialog.getByRole('radio', { name: 'To do' }).check();
  await expect(dialog.getByText('Nothing left to do in this language.')).toBeVisible();

  // Welsh is written by hand; what is not is read in English.
  await dialog.getByRole('button', { name: /Welsh/ }).click();
  const rows = dialog.getByRole('list', { name: 'Texts in Welsh' });
  const heading = rows.getByRole('textbox').first();
  await heading.fill('Llythyr awyr');
  await expect(rows.getByText('● there')).not.toHaveCount(0);
  await expect(dialog.getByRole('button', { name: /Welsh/ })).toContainText('10 missing');
  await page.keyboard.press('Escape');
  await expect(dialog).toBeHidden();
  await expect(stage(page, 'desktop').getByRole('heading', { name: 'Llythyr awyr' })).toBeVisible();
  await expect(page.getByText('in Welsh', { exact: true }).first()).toBeVisible();
  await page.getByRole('toolbar', { name: 'Stage' }).getByRole('combobox', { name: 'Read in' }).click();
  await page.getByRole('option', { name: 'In Arabic' }).click();
  await expect(stage(page, 'phone').locator('.layer')).toHaveAttribute('dir', 'rtl');
  await expect(stage(page, 'phone').locator('.layer')).toHaveAttribute('lang', 'ar');
  await page.getByRole('button', { name: /^Launch/ }).click();
  await expect(
    page.getByRole('dialog').getByText(/texts in German are missing: read in English/),
  ).toBeVisible();
  await page.keyboard.press('Escape');

  // Whoever answers in Arabic is written to in it.
  await outline(page).getByRole('button', { name: /^Form/ }).click();
  await page.getByRole('button', { name: 'What goes out …' }).click();
  const after = page.getByRole('dialog', { name: 'After an answer' });
  await after.getByRole('button', { name: 'A welcome mail' }).click();
  await after.getByRole('combobox', { name: 'Written in' }).click();
  await page.getByRole('option', { name: 'Arabic, not written yet' }).click();
  await expect(after.getByText('Whoever answers in Arabic gets the original')).toBeVisible();
  await after.getByRole('button', { name: 'Begin from the original' }).click();
  // The words are written as Arabic is; what stands beside them is the studio's.
  await expect(after.getByLabel('Subject')).toHaveAttribute('dir', 'rtl');
  await expect(after.getByText('Subject', { exact: true })).toHaveCSS('direction', 'ltr');
  await after.getByLabel('Subject').fill('مرحبًا');
  await after.getByLabel('Heading').fill('أهلًا بك');
  const arriving = after.frameLocator('iframe[title="The mail as it would arrive"]');
  await expect(arriving.getByText('أهلًا بك')).toHaveCSS('direction', 'rtl');
  await expect(arriving.getByText('إلغاء الاشتراك')).toBeVisible();
  await expectAccessible(page);
  await after.getByRole('button', { name: 'Save' }).click();
  await expect(after).toBeHidden();
  await saved(page);
  const id = page.url().split('/').at(-1) ?? '';
  await publishEverywhere(velarium, id, {});

  const inWelsh = await visitIn(browser, velarium, 'cy-GB');
  await expect(inWelsh.message.getByRole('heading', { name: 'Llythyr awyr' })).toBeVisible();
  await expect(inWelsh.message.getByRole('button', { name: 'Cau' })).toBeVisible();
  // The page says nothing: the visitor's own counts. The page says something: that does.
  const inArabic = await visitIn(browser, velarium, '', 'ar-EG');
  await expect(inArabic.message.getByRole('heading', { name: 'نص بالعربية' })).toBeVisible();
  const inEnglish = await visitIn(browser, velarium, 'en-GB', 'ar-EG');
  await expect(inEnglish.message.getByText('نص بالعربية')).toHaveCount(0);
  await expect(inEnglish.message.getByRole('button', { name: 'Close' })).toBeVisible();

  const box = inArabic.message.getByRole('region').or(inArabic.dialog);
  await expect(inArabic.message.locator('.layer')).toHaveCSS('direction', 'rtl');
  await box.getByRole('button', { name: 'نص بالعربية' }).last().click();
  await expect(inArabic.message.getByText('يرجى ملء هذا الحقل.').first()).toBeVisible();
  await box.getByRole('textbox').first().fill('noor@quillonfell.example');
  await box.getByRole('checkbox').check();
  await inArabic.pass(5);
  await box.getByRole('button', { name: 'نص بالعربية' }).last().click();
  await expect
    .poll(() =>
      velarium.query(
        `SELECT language, consent_text, fields -> 0 ->> 'label' AS label FROM lead WHERE campaign_id = $1`,
        [id],
      ),
    )
    .toEqual([{ language: 'ar', consent_text: 'نص بالعربية', label: 'نص بالعربية' }]);
  expect((await mailTo(velarium, 'noor@quillonfell.example')).subject).toBe('مرحبًا');
  expect(inArabic.problems).toEqual([]);

  // Results tell who met it in which of its languages.
  for (const site of [inWelsh, inArabic, inEnglish]) await site.settle();
  await page.goto(`${page.url().replace(/\?.*/, '')}/results?by=written`);
  const parts = page.getByRole('table', { name: /^Language of the message/ });
  for (const [language, converted] of [
    ['Arabic', '1'],
    ['Welsh', '0'],
    ['English', '0'],
  ] as const) {
    const row = parts.getByRole('row').filter({ has: page.getByRole('rowheader', { name: language }) });
    await expect(row.getByRole('cell').nth(0)).toHaveText('1');
    await expect(row.getByRole('cell').nth(1)).toHaveText(converted);
  }
});
