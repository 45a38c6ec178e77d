import { expect, newVisitor, signIn, test, visit } from './lib/velarium.ts';

const TEXT_ON_STAGE = 'Nine nights of northern light';

/** The whole way of one campaign, through the interface alone. */
test('a campaign is made, published, seen, answered, counted, rested and run again', async ({
  page,
  browser,
  velarium,
  visitor,
}) => {
  test.setTimeout(120_000);
  await test.step('sign in and see the Board in several states', async () => {
    await signIn(page, velarium);
    const rows = page.getByRole('list', { name: 'Campaigns' }).getByRole('listitem');
    await expect(rows.filter({ hasText: 'Running' })).toHaveCount(2);
    await expect(rows.filter({ hasText: 'Resting' })).toHaveCount(1);
    await expect(rows.filter({ hasText: 'Draft' })).toHaveCount(1);
  });

  await test.step('make a campaign from the sign-up template', async () => {
    await page.getByRole('button', { name: 'New campaign' }).click();
    await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Letter for aurora readers');
    await page.getByRole('radio', { name: /Sky letter/ }).check();
    await page.getByRole('button', { name: 'Make the campaign' }).click();
    await expect(page.getByLabel('Campaign name')).toHaveValue('Letter for aurora readers');
  });

  const desktop = page.frameLocator('iframe[title="Message on desktop"]');
  const phone = page.frameLocator('iframe[title="Message on phone"]');
  const sentence = page.getByRole('region', { name: 'Rule sentence' });

  await test.step('type into the message on the stage; the phone follows', async () => {
    const heading = desktop.getByRole('textbox', { name: 'Heading' });
    await heading.click();
    await page.keyboard.press('ControlOrMeta+a');
    await page.keyboard.type(TEXT_ON_STAGE);
    await expect(phone.getByRole('textbox', { name: 'Heading' })).toHaveText(TEXT_ON_STAGE);
    const send = desktop.getByRole('textbox', { name: 'Words on the send button' });
    await send.click();
    await page.keyboard.press('ControlOrMeta+a');
    await page.keyboard.type('Count me in');
    await expect(phone.getByRole('textbox', { name: 'Words on the send button' })).toHaveText('Count me in');
  });

  await test.step('a colour, the place, and undo', async () => {
    await page.getByRole('button', { name: 'The box' }).click();
    await page
      .getByRole('button', { name: /^Background/ })
      .first()
      .click();
    await page.getByLabel('Background as text').fill('#0b3d2e');
    await page.keyboard.press('Escape');
    await expect(desktop.locator('.card')).toHaveCSS('background-color', 'rgb(11, 61, 46)');
    await page.getByRole('radio', { name: 'bottom', exact: true }).check();
    await expect(sentence).toContainText('A modal at the bottom opens');
    await page.keyboard.press('ControlOrMeta+z');
    await expect(sentence).toContainText('A modal in the centre opens');
  });

  await test.step('the format, and a button’s words and address on the step after sending', async () => {
    const format = page.getByRole('combobox', { name: 'Format' });
    await format.click();
    await page.getByRole('option', { name: 'Pop-up' }).click();
    await expect(sentence).toContainText('A pop-up in the centre opens');
    await expect(desktop.locator('.backdrop')).toHaveCount(0);
    await format.click();
    await page.getByRole('option', { name: 'Modal' }).click();
    await page.getByRole('button', { name: 'After it is sent' }).click();
    await desktop.getByRole('textbox', { name: 'Button words' }).click();
    await page.getByLabel('Words on the button').fill('See the membership');
    await expect(phone.getByRole('textbox', { name: 'Button words' })).toHaveText('See the membership');
    await page.getByRole('combobox', { name: 'When pressed' }).click();
    await page.getByRole('option', { name: 'Leads to an address' }).click();
    await page.getByLabel('Address', { exact: true }).fill('javascript:alert(1)');
    await expect(page.getByText('Start with https://, mailto:, tel: or /, without spaces.')).toBeVisible();
    await page.getByLabel('Address', { exact: true }).fill('/membership');
    await page.getByRole('button', { name: 'First', exact: true }).click();
  });

  await test.step('set the moment on the visit line, by mark and by number', async () => {
    const mark = page.getByRole('slider', { name: 'Time on the page' });
    await mark.focus();
    await page.keyboard.press('ArrowRight');
    await expect(sentence).toContainText('after 13 seconds');
    await sentence.getByRole('button', { name: 'after 13 seconds' }).click();
    const seconds = page.getByRole('dialog', { name: 'Moment' }).getByLabel('Seconds on the page');
    await seconds.fill('');
    await expect(sentence).toContainText('opens at once');
    await seconds.fill('6');
    await expect(sentence).toContainText('after 6 seconds');
    await page.keyboard.press('Escape');
  });

  await test.step('choose a page by part of its title, phones out, once per visitor', async () => {
    await sentence.getByRole('button', { name: 'on no page yet' }).click();
    const pages = page.getByRole('dialog', { name: 'Pages' });
    await pages.getByRole('combobox', { name: 'Find a page by title or path' }).fill('auror');
    await pages.getByRole('option', { name: /Aurora over the fell/ }).click();
    await expect(sentence).toContainText('only on /journal/aurora-over-the-fell');
    await page.keyboard.press('Escape');
    await sentence.getByRole('button', { name: 'once per session' }).click();
    await page
      .getByRole('dialog', { name: 'How often' })
      .getByRole('radio', { name: /Once per visitor/ })
      .check();
    await page.keyboard.press('Escape');
    await expect(sentence).toContainText('on desktops and tablets only, once per visitor.');
  });

  await test.step('publish', async () => {
    await page.getByRole('button', { name: 'Launch' }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Publish' }).click();
    await expect(page.getByRole('heading', { name: 'Board' })).toBeVisible();
    await expect(row('Letter for aurora readers')).toContainText('Running');
  });

  const article = `${velarium.fell}/journal/aurora-over-the-fell`;
  const site = await visit(visitor, article);

  await test.step('it opens on that page after six seconds and not before', async () => {
    await site.pass(5);
    await expect(site.dialog).toHaveCount(0);
    await site.pass(1.1);
    await expect(site.dialog).toBeVisible();
    await expect(site.dialog).toContainText(TEXT_ON_STAGE);
    await expect(site.page.getByRole('dialog', { name: TEXT_ON_STAGE })).toBeFocused();
  });

  await test.step('a wrong address is refused with words, a right one is stored with its consent', async () => {
    await site.page.getByLabel('Your mail address').fill('nobody');
    await site.page.getByRole('button', { name: 'Count me in' }).click();
    await expect(site.dialog).toContainText('Please write it as name@example.org.');
    await site.pass(4);
    await site.page.getByLabel('Your mail address').fill('lark@example.org');
    await site.page.getByRole('button', { name: 'Count me in' }).click();
    await expect(site.dialog).toContainText('Please tick this to go on.');
    await site.page.getByRole('checkbox').check();
    await site.page.getByRole('button', { name: 'Count me in' }).click();
    await expect(site.dialog).toContainText('Clear skies');
    await site.settle();
    await expect(site.page.getByRole('link', { name: 'See the membership' })).toHaveAttribute(
      'href',
      '/membership',
    );
    await site.page.getByRole('button', { name: 'Close' }).click();
    await expect(site.message).toHaveCount(0);
    await page.getByRole('link', { name: 'People' }).click();
    const lead = page.getByRole('row').filter({ hasText: 'lark@example.org' });
    await expect(lead).toContainText('agreed');
    await lead.getByRole('button').click();
    const person = page.getByRole('dialog', { name: 'lark@example.org' });
    await expect(person).toContainText(
      'I would like to receive the weekly sky letter and can leave it at any time.',
    );
    await page.keyboard.press('Escape');
    await page.getByRole('link', { name: 'Board', exact: true }).click();
  });

  await test.step('it stays away on reload, on other pages and in other tabs', async () => {
    await site.reload();
    await site.pass(30);
    await expect(site.message).toHaveCount(0);
    const other = await visit(visitor, article);
    await other.pass(30);
    await expect(other.message).toHaveCount(0);
    const elsewhere = await visit(await newVisitor(browser), `${velarium.fell}/about`);
    await elsewhere.pass(30);
    await expect(elsewhere.message).toHaveCount(0);
    expect([...site.problems, ...other.problems, ...elsewhere.problems]).toEqual([]);
  });

  await test.step('the Board’s numbers move', async () => {
    const figures = row('Letter for aurora readers').getByRole('definition');
    await expect(figures.nth(0)).toHaveText('1');
    await expect(figures.nth(1)).toHaveText('1');
    await expect(figures.nth(2)).toHaveText('1');
    // Wilson's interval of 1 in 1, from 0.2065 to 1: checked in core against a reference library.
    await expect(figures.nth(3)).toContainText('100.0 % 20.7 % to 100.0 %');
  });

  await test.step('rested it is gone at the next load; run again it is back', async () => {
    await act('Letter for aurora readers', 'Rest');
    await expect(row('Letter for aurora readers')).toContainText('Resting');
    const later = await visit(await newVisitor(browser), article);
    await later.pass(20);
    await expect(later.message).toHaveCount(0);
    await act('Letter for aurora readers', 'Run again');
    await expect(row('Letter for aurora readers')).toContainText('Running');
    await later.reload();
    await later.pass(6.1);
    await expect(later.dialog).toBeVisible();
  });

  await test.step('duplicate, archive, undo', async () => {
    await act('Letter for aurora readers', 'Duplicate');
    await expect(row('Letter for aurora readers, copy')).toContainText('Draft');
    await act('Letter for aurora readers, copy', 'Archive');
    await expect(row('Letter for aurora readers, copy')).toHaveCount(0);
    await page
      .getByRole('listitem')
      .filter({ hasText: 'is in the archive' })
      .getByRole('button', { name: 'Undo' })
      .click();
    await expect(row('Letter for aurora readers, copy')).toContainText('Draft');
  });

  function row(name: string) {
    return page.getByRole('listitem').filter({ has: page.getByRole('link', { name, exact: true }) });
  }
  async function act(name: string, action: string) {
    await row(name)
      .getByRole('button', { name: `Actions for ${name}` })
      .click();
    await page.getByRole('menuitem', { name: action, exact: true }).click();
  }
});
