import { expectAccessible } from '../lib/accessibility.ts';
import { restAll } from '../lib/api.ts';
import { mailTo } from '../lib/standins.ts';
import { answerSum, expect, newVisitor, test, visit } from '../lib/velarium.ts';
import { beginCampaign, launch, outline, say, sentence, side, stage } from '../lib/workbench.ts';

test('J03 a question with a picture, from one country only, and every way to close it', async ({
  memberPage: page,
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Ask us', /Ask the dome/);
  await outline(page).getByRole('button', { name: /^Form/ }).click();
  await page.getByRole('button', { name: 'Add a field' }).click();
  await page.getByRole('menuitem', { name: 'A picture', exact: true }).click();
  await expect(stage(page, 'desktop').locator('input[type=file]')).toHaveCount(1);
  await page.getByRole('button', { name: 'What goes out …' }).click();
  const after = page.getByRole('dialog', { name: 'After an answer' });
  await after.getByRole('button', { name: 'Tell the team' }).click();
  await after.getByRole('switch', { name: 'Tell the team of every answer' }).click();
  await after.getByLabel('Mailboxes, one a line').fill('questions@quillonfell.example');
  await after.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('tells the team at once.')).toBeVisible();
  await page.getByRole('button', { name: 'The box' }).click();
  await page.getByText('Way out', { exact: true }).click();
  await page.getByRole('radio', { name: 'Left', exact: true }).check();
  await page.getByRole('radio', { name: 'A word' }).check();
  await page.getByLabel('Word', { exact: true }).fill('Not now');
  await page.getByLabel('Appears after').fill('4');
  await page.getByRole('switch', { name: 'Closes by itself' }).click();
  await page.getByLabel('After', { exact: true }).fill('40');
  await say(page, 'at once, on home, on every device, every time');
  await side(page, 'Reach');
  await page.getByRole('button', { name: 'Only for some' }).click();
  await page.getByRole('menuitem', { name: 'Country' }).click();
  await expect(sentence(page)).toContainText('for visitors from the United Kingdom (gb)');
  await side(page, 'Limits');
  await page.getByText('Stays away', { exact: true }).click();
  await page.getByRole('radio', { name: 'It may come again' }).first().check();
  await launch(page);

  // The edge tells the country by the address one comes from.
  const from = async (address: string) => {
    const context = await newVisitor(browser);
    await context.route('**/about*', (route) =>
      route.continue({ headers: { ...route.request().headers(), 'x-forwarded-for': address } }),
    );
    return visit(context, `${velarium.fell}/`);
  };
  const elsewhere = await from('198.51.100.7');
  await elsewhere.pass(2);
  await elsewhere.shows(0);

  const site = await from('192.0.2.7');
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

  // A question with a picture arrives, picture and all.
  await again();
  await site.pass(6);
  const png = await site.page.screenshot({ clip: { x: 0, y: 0, width: 40, height: 30 } });
  await site.message
    .locator('input[type=file]')
    .setInputFiles({ name: 'sky.png', mimeType: 'image/png', buffer: png });
  await site.page.getByLabel('Your mail address').fill('wren@example.org');
  await site.page.getByLabel('Your name').fill('Wren Aldous');
  await site.page.getByLabel('Your question').fill('Which star is this?');
  await answerSum(site.message);
  for (const consent of await site.message.getByRole('checkbox').all()) await consent.check();
  await site.message.locator('button[type=submit]').click();
  await expect.poll(async () => (await velarium.query('SELECT 1 FROM attachment')).length).toBe(1);
  const mail = await mailTo(velarium, 'questions@quillonfell.example');
  expect(mail.text).toContain('Your question: Which star is this?');
  expect(mail.headers).toMatch(/^reply-to: wren@example\.org$/im);
  expect(mail.attachments).toMatchObject([{ type: 'image/webp' }]);
  await page.getByRole('link', { name: 'People', exact: true }).click();
  await expect(page.getByText('wren@example.org')).toBeVisible();
  await page.getByRole('link', { name: 'Outbox', exact: true }).click();
  await expect(
    page.getByRole('row', { name: /Notice to the team .*questions@quillonfell\.example/ }),
  ).toContainText('sent');
  await expectAccessible(page);
});
