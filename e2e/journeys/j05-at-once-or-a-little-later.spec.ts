import { expect, newVisitor, test, visit } from '../lib/velarium.ts';
import { rehearse } from '../lib/workbench.ts';

/** A site-wide membership message: at once, after six seconds, then only on two pages; phones left out. */
test('J05 at once, or a little later', async ({ studioPage: page, browser, velarium }) => {
  test.setTimeout(120_000);
  const sentence = page.getByRole('region', { name: 'Rule sentence' });
  const openPhrase = (text: string) => sentence.getByRole('button', { name: text, exact: true }).click();
  const launch = async () => {
    await page.getByRole('button', { name: 'Launch' }).click();
    await page
      .getByRole('dialog')
      .getByRole('button', { name: /^Publish/ })
      .click();
    await expect(page.getByRole('heading', { name: 'Board' })).toBeVisible();
  };
  const again = async () => {
    await page.getByRole('link', { name: 'Become a member', exact: true }).click();
    await expect(sentence).toBeVisible();
  };
  const arrive = async (path: string, options = {}) =>
    visit(await newVisitor(browser, options), velarium.fell + path);

  await test.step('everywhere, with an empty delay: at once', async () => {
    await page.getByRole('button', { name: 'New campaign' }).click();
    await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Become a member');
    await page.getByRole('radio', { name: /Sky letter/ }).check();
    await page.getByRole('button', { name: 'Make the campaign' }).click();
    await page.getByRole('button', { name: 'Moment', exact: true }).click();
    await page.getByLabel('Seconds on the page').fill('');
    await openPhrase('on no page yet');
    await page
      .getByRole('dialog', { name: 'Pages' })
      .getByRole('radio', { name: 'Everywhere', exact: true })
      .check();
    await page.keyboard.press('Escape');
    await expect(sentence).toContainText('opens at once on every page, on desktops and tablets only');
  });

  await test.step('phones are left out from the start, and the reason can be read', async () => {
    await openPhrase('on desktops and tablets only');
    await expect(page.getByRole('dialog', { name: 'Devices' })).toContainText(
      'search engines mark down pages',
    );
    await page.keyboard.press('Escape');
  });

  await test.step('it opens at once, and not on a phone', async () => {
    await launch();
    const desktop = await arrive('/membership');
    await desktop.pass(0.1);
    await expect(desktop.dialog).toBeVisible();
    const phone = await arrive('/membership', {
      viewport: { width: 390, height: 844 },
      isMobile: true,
      hasTouch: true,
    });
    await phone.pass(20);
    await expect(phone.message).toHaveCount(0);
  });

  await test.step('with six seconds it opens after six', async () => {
    await again();
    await page.getByRole('button', { name: 'Moment', exact: true }).click();
    await page.getByLabel('Seconds on the page').fill('6');
    await expect(sentence).toContainText('after 6 seconds');
    await rehearse(page, { name: 'Become a member', path: '/journal', comesTo: 'Opens on page 1 at 0:06' });
    await launch();
    const site = await arrive('/journal');
    // The page's clock runs on by itself between two passes, so neither is close to the sixth second.
    await site.pass(4);
    await expect(site.dialog).toHaveCount(0);
    await site.pass(2.5);
    await expect(site.dialog).toBeVisible();
  });

  await test.step('then only on two pages found by typing part of their titles', async () => {
    await again();
    await openPhrase('on every page');
    const pages = page.getByRole('dialog', { name: 'Pages' });
    await pages.getByRole('radio', { name: 'Only on …' }).check();
    for (const [part, title] of [
      ['saturn', /Finding Saturn/],
      ['minutes in', /Twenty minutes in the dark/],
    ] as const) {
      await pages
        .getByRole('group', { name: 'Opens on' })
        .getByRole('combobox', { name: 'Find a page by title or path' })
        .fill(part);
      await pages.getByRole('option', { name: title }).click();
    }
    await page.keyboard.press('Escape');
    await expect(sentence).toContainText('only on /journal/finding-saturn and /journal/dark-adaptation');
    await launch();
    for (const [path, isShown] of [
      ['/journal/finding-saturn', true],
      ['/journal/dark-adaptation', true],
      ['/journal', false],
    ] as const) {
      const site = await arrive(path);
      await site.pass(6.3);
      await expect(site.dialog).toHaveCount(isShown ? 1 : 0);
    }
  });
});
