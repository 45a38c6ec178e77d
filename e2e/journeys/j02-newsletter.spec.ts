import { expectAccessible } from '../lib/accessibility.ts';
import { restAll } from '../lib/api.ts';
import { mailTo } from '../lib/standins.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';
import { addBlock, beginCampaign, launch, outline, say, sentence, side, stage } from '../lib/workbench.ts';

test('J02 a newsletter with a second field, its own thanks and another shape on phones, on one page from a date on', async ({
  memberPage: page,
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Newsletter', /Sky letter/);
  await addBlock(page, 'Picture');
  await expect(outline(page).getByText('Picture')).toHaveCount(1);
  await page.keyboard.press('Delete');
  await expect(outline(page).getByText('Picture')).toHaveCount(0);
  await outline(page).getByRole('button', { name: /^Form/ }).click();
  await page.getByRole('button', { name: 'Add a field' }).click();
  await page.getByRole('menuitem', { name: 'Name', exact: true }).click();
  await page.getByRole('button', { name: 'What goes out …' }).click();
  const after = page.getByRole('dialog', { name: 'After an answer' });
  await after.getByRole('button', { name: 'A welcome mail' }).click();
  await after.getByLabel('Subject').fill('Welcome, {{answer.name|friend}}');
  await after.getByLabel('Heading').fill('Your first letter');
  const text = after.getByRole('textbox', { name: 'Text' });
  await text.fill('The dome opens on Friday.');
  await text.press('Home');
  for (let n = 0; n < 'The dome'.length; n++) await text.press('Shift+ArrowRight');
  await after.getByRole('button', { name: 'Bold (Ctrl + B)' }).click();
  const arriving = after.frameLocator('iframe[title="The mail as it would arrive"]');
  await expect(arriving.locator('b')).toHaveText('The dome');
  await expect(arriving.getByText('Your first letter')).toBeVisible();
  await expectAccessible(page);
  await after.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('1 welcome mail.')).toBeVisible();
  await page.getByRole('button', { name: 'After it is sent' }).click();
  await stage(page, 'desktop').getByRole('textbox', { name: 'Heading' }).fill('You are among the stars');
  await page.getByRole('button', { name: 'First', exact: true }).click();
  await page.getByRole('button', { name: 'The box' }).click();
  await page.getByText('Size and spacing').click();
  await page.getByRole('radio', { name: 'Phone' }).first().check();
  await page.getByLabel('Padding ↕').fill('9');
  await expect(stage(page, 'phone').locator('.inner')).toHaveCSS('padding-top', '9px');
  await page.getByText('The page behind', { exact: true }).click();
  await page.getByRole('radio', { name: 'All devices' }).first().check();
  await page.getByRole('switch', { name: 'A click on it closes the message' }).click();
  await say(page, 'at once, on aurora over the fell, on every device, every time');
  await side(page, 'Limits');
  await page.getByText('Schedule', { exact: true }).click();
  await page.getByRole('switch', { name: 'Runs at certain times only' }).click();
  await page.getByRole('textbox', { name: 'From' }).fill('2026-01-05T08:00');
  await expect(sentence(page)).toContainText('from 5 January 2026 at 08:00');
  await launch(page);

  const visitor = await newVisitor(browser);
  const site = await visit(visitor, `${velarium.fell}/about`);
  await site.pass(2);
  await expect(site.message).toHaveCount(0);
  await site.go(`${velarium.fell}/journal/aurora-over-the-fell`);
  await site.pass(0.5);
  await site.page.mouse.click(8, 400);
  await expect(site.dialog).toBeVisible();
  await site.pass(8);
  await site.dialog.getByLabel('Your mail address').fill('reader@example.org');
  await site.dialog.getByLabel('Name', { exact: true }).fill('Ida');
  await site.dialog.getByRole('checkbox').check();
  await site.dialog.getByRole('button').first().click();
  await expect(site.dialog.getByRole('heading', { name: 'You are among the stars' })).toBeVisible();
  // The welcome mail is in the reader's mailbox, in both parts.
  const mail = await mailTo(velarium, 'reader@example.org');
  expect(mail.subject).toBe('Welcome, Ida');
  expect(mail.html).toContain('<b>The dome</b> opens on Friday.');
  expect(mail.text).toContain('The dome opens on Friday.');
});
