import { expectAccessible } from '../lib/accessibility.ts';
import { restAll } from '../lib/api.ts';
import { recordsOf } from '../lib/standins.ts';
import { answerSum, expect, newVisitor, test, visit } from '../lib/velarium.ts';
import { launch, newCampaign, outline, say, sentence } from '../lib/workbench.ts';

test('J07 three messages, one of them a copy that is changed, one taken away; answers go to the records', async ({
  studioPage: page,
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await newCampaign(page, 'Dates', /Corner invitation/);
  await say(page, 'at once, on night-tours, on every device, every time');
  await expect(sentence(page)).toContainText('addresses that begin with /night-tours/');
  await launch(page);
  await page.getByRole('button', { name: 'Actions for Dates' }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await page.getByRole('link', { name: 'Dates, copy' }).click();
  await say(page, 'at once, on /contact, on every device, every time');
  await page.keyboard.press('Escape');
  await launch(page);
  await newCampaign(page, 'Third view', /Ask the dome/);
  await outline(page).getByRole('button', { name: /^Form/ }).click();
  await expect(page.getByRole('switch', { name: 'A sum in words keeps robots out' })).toBeChecked();
  await page.getByRole('button', { name: 'Moment', exact: true }).click();
  await page.getByRole('button', { name: 'Add a trigger' }).click();
  await page.getByRole('menuitem', { name: 'A count' }).click();
  await page.getByRole('button', { name: 'Remove: Time on the page' }).click();
  await page.keyboard.press('Escape');
  await say(page, 'everywhere, on every device, every time');
  await expect(sentence(page)).toContainText('from the 3rd page view of the session onwards on every page');
  await launch(page);

  const context = await newVisitor(browser);
  const site = await visit(context, `${velarium.fell}/night-tours/deep-sky`);
  await site.pass(0.5);
  await expect(site.message).toHaveCount(1);
  await site.go(`${velarium.fell}/contact`);
  await site.pass(0.5);
  await expect(site.message).toHaveCount(1);
  await site.go(`${velarium.fell}/about`);
  await site.pass(0.5);
  await expect(site.dialog.getByText(/^What is \w+ and \w+ together/)).toBeVisible();
  // What is answered goes to the customer records, under the names they want.
  await page.getByRole('link', { name: 'Outbox', exact: true }).click();
  await page.getByRole('tab', { name: 'Connections' }).click();
  await page.getByRole('button', { name: 'Connect a service' }).click();
  const connect = page.getByRole('dialog', { name: 'Connect a service' });
  await connect.getByRole('radio', { name: 'A request shaped by hand' }).check();
  await connect.getByLabel('Name', { exact: true }).fill('Customer records');
  await connect.getByLabel('Address').fill(`${velarium.standins}/records`);
  await expectAccessible(page);
  await connect.getByRole('button', { name: 'Connect', exact: true }).click();
  await expect(page.getByRole('list', { name: 'Connections' })).toContainText('Customer records');
  await site.pass(5);
  await site.dialog.getByLabel('Your mail address').fill('orme@example.org');
  await site.dialog.getByLabel('Your name').fill('Tamsin Orme');
  await site.dialog.getByLabel('Your question').fill('Is the dome heated?');
  await answerSum(site.dialog);
  for (const consent of await site.dialog.getByRole('checkbox').all()) await consent.check();
  await site.dialog.locator('button[type=submit]').click();
  await expect
    .poll(async () => (await recordsOf(velarium)).map(({ body }) => body))
    .toEqual([{ email: 'orme@example.org' }]);
  await page.getByRole('link', { name: 'Board', exact: true }).click();
  await context.close();

  await page.getByRole('button', { name: 'Actions for Dates, copy' }).click();
  await page.getByRole('menuitem', { name: 'Archive' }).click();
  await expect(page.getByText('“Dates, copy” is in the archive.')).toBeVisible();
  const gone = await visit(await newVisitor(browser), `${velarium.fell}/contact`);
  await gone.pass(2);
  await expect(gone.message).toHaveCount(0);
});
