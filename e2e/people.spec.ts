import { readFileSync } from 'node:fs';
import { expectAccessible } from './lib/accessibility.ts';
import { publish, restAll } from './lib/api.ts';
import { mailTo } from './lib/standins.ts';
import { expect, newVisitor, signIn, test, type Velarium, visit } from './lib/velarium.ts';
import { beginCampaign, launch, openPlace, outline, say } from './lib/workbench.ts';

/** A visitor who opens the sky letter's form on /about, and answers it. */
async function answer(
  browser: Parameters<typeof newVisitor>[0],
  velarium: Velarium,
  address: string,
  seconds = 4,
) {
  const site = await visit(await newVisitor(browser), `${velarium.fell}/about`);
  // However long the browser takes over filling the form in, no time passes for who answers at once.
  if (seconds === 0) await site.page.clock.pauseAt(Date.now() + 1000);
  else await site.pass(2);
  await expect(site.dialog).toBeVisible();
  if (seconds > 0) await site.pass(seconds);
  await site.page.getByLabel('Your mail address').fill(address);
  await site.page.getByRole('checkbox').check();
  await site.page.getByRole('button', { name: 'Send me the sky' }).click();
  await expect(site.dialog).toContainText('Clear skies');
  return site;
}

test('who answers is asked to confirm, confirms, is found, put right and erased; a mail by which to leave works once', async ({
  velarium,
  memberPage: page,
  browser,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Confirmed letter', /Sky letter/);
  await outline(page).getByRole('button', { name: /^Form/ }).click();
  await page.getByRole('button', { name: 'What goes out …' }).click();
  const after = page.getByRole('dialog', { name: 'After an answer' });
  await after.getByRole('switch', { name: 'Ask to confirm first' }).click();
  await after.getByRole('button', { name: 'A welcome mail' }).click();
  await after.getByRole('button', { name: 'Send it to me' }).click();
  await after.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('asks to confirm, 1 welcome mail.')).toBeVisible();
  await mailTo(velarium, 'mara@quillonfell.example');
  await say(page, 'after 1 second, on /about, on every device, every time');
  await launch(page);

  await answer(browser, velarium, 'merlin@example.org');
  const asked = await mailTo(velarium, 'merlin@example.org');
  expect(asked.subject).toContain('Is this your address?');
  const link = /(http:\/\/127\.0\.0\.1:\d+\/confirm\/\S+)/.exec(asked.text)?.[1] ?? '';
  const reader = await (await newVisitor(browser)).newPage();
  await reader.goto(link);
  await expectAccessible(reader);
  await reader.getByRole('button', { name: 'Yes, that was me' }).click();
  await expect(reader.getByRole('heading', { name: 'Confirmed' })).toBeVisible();
  await expect
    .poll(async () => (await mailTo(velarium, 'merlin@example.org')).subject)
    .toContain('Welcome to');

  await page.getByRole('link', { name: 'People', exact: true }).click();
  await page.getByRole('searchbox', { name: 'Search every answer' }).fill('merlin');
  await expect(page.getByText(/^1 answer/)).toBeVisible();
  await page.getByRole('button', { name: 'Open the answer of merlin@example.org' }).click();
  const person = page.getByRole('dialog', { name: 'merlin@example.org' });
  await expect(person).toContainText('confirmed since');
  await expectAccessible(page);
  await person.getByRole('button', { name: 'Correct …' }).click();
  await person.getByLabel('Your mail address').fill('merlin@example.net');
  await person.getByRole('button', { name: 'Put it right' }).click();
  await expect(page.getByText('Put right. What it was before is kept with it.')).toBeVisible();
  await page.keyboard.press('Escape');

  const welcome = await mailTo(velarium, 'merlin@example.org');
  const leave = /(http:\/\/127\.0\.0\.1:\d+\/leave\/\S+)/.exec(welcome.text)?.[1] ?? '';
  // Whose address was put right is another person; the one the link was for is gone.
  expect((await reader.goto(leave))?.status()).toBe(404);

  await page.getByRole('searchbox', { name: 'Search every answer' }).fill('merlin@example.net');
  await page.getByRole('button', { name: 'Open the answer of merlin@example.net' }).click();
  const righted = page.getByRole('dialog', { name: 'merlin@example.net' });
  await expect(righted).toContainText('Your mail address: merlin@example.org');
  await righted.getByRole('button', { name: 'Erase …' }).click();
  await righted.getByRole('button', { name: 'Erase for good' }).click();
  await expect(page.getByText('Nobody like that')).toBeVisible();
  const left = await velarium.query(`SELECT 1 FROM lead WHERE fields::text LIKE '%merlin%'`);
  expect(left).toEqual([]);
});

test('answers that look wrong are kept apart, looked at and let through; a file holds what the filter shows', async ({
  velarium,
  memberPage: page,
  browser,
}) => {
  await restAll(velarium);
  await publish(velarium, {
    name: 'Too quick',
    template: 'sky-letter',
    triggers: [{ kind: 'time', seconds: 1 }],
  });
  await answer(browser, velarium, 'quick@example.org', 0);
  await openPlace(page, velarium, 'people');
  await expect(page.getByText(/are kept apart, for they look wrong/)).toBeVisible();
  await page.getByRole('button', { name: 'Look at them' }).click();
  await page.getByRole('button', { name: 'Open the answer of somebody' }).first().click();
  await expect(
    page.getByText('It was sent within a second of the message being shown.').last(),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Let it through' }).click();
  await expect(page.getByText('Let through. It counts like any other now.')).toBeVisible();
  await page.getByRole('button', { name: 'Back to the others' }).click();
  await page.getByRole('searchbox', { name: 'Search every answer' }).fill('quick@');
  await expect(page.getByRole('row', { name: /quick@example\.org/ })).toBeVisible();

  // What is typed letter by letter stays as it is typed.
  await page.getByRole('button', { name: 'More', exact: true }).click();
  const country = page.getByLabel('Country, two letters');
  await country.pressSequentially('gb');
  await expect(country).toHaveValue('gb');
  await expect(page.getByText('Nobody like that')).toBeVisible();
  await page.getByRole('button', { name: 'Clear these' }).click();
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: 'Take a file' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'As a table (CSV)' }).click();
  const file = readFileSync(await (await download).path(), 'utf8');
  expect(file.split('\r\n')).toHaveLength(3);
  expect(file).toContain('quick@example.org');

  await page.getByRole('button', { name: 'Keeping' }).click();
  const keeping = page.getByRole('dialog', { name: 'Keeping' });
  await keeping.locator('input[type=file]').setInputFiles({
    name: 'never.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('address\nnever@example.org\nno address\n'),
  });
  await expect(keeping.getByText('1 address added.')).toBeVisible();
  await expect(keeping.getByText('Line 3: “no address” is no mail address; it was left out.')).toBeVisible();
  await expectAccessible(page);
});

test('a viewer reads how many answered, and nothing of whom', async ({ velarium, page }) => {
  await signIn(page, velarium, 'wren@quillonfell.example');
  await page.getByRole('link', { name: 'People', exact: true }).click();
  await expect(page.getByText(/^\d+ answers$/)).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Counts only' })).toBeVisible();
  await expect(page.getByText(/@/)).toHaveCount(0);
  await page.getByRole('link', { name: 'Outbox', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'For owners and editors' })).toBeVisible();
});

test('a connection that refuses is seen, mended and sent again; how mail is sent is asked before it is saved', async ({
  velarium,
  memberPage: page,
  browser,
}) => {
  await restAll(velarium);
  await publish(velarium, {
    name: 'To records',
    template: 'sky-letter',
    triggers: [{ kind: 'time', seconds: 1 }],
  });
  await fetch(`${velarium.standins}/records/failures`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ times: 1 }),
  });
  await openPlace(page, velarium, 'outbox');
  await page.getByRole('tab', { name: 'Connections' }).click();
  await page.getByRole('button', { name: 'Connect a service' }).click();
  const connect = page.getByRole('dialog', { name: 'Connect a service' });
  await connect.getByLabel('Name', { exact: true }).fill('Records');
  await connect.getByLabel('Address').fill('records');
  await connect.getByRole('button', { name: 'Connect', exact: true }).click();
  await expect(connect.getByText('write a whole address, as https://example.org/hook')).toBeVisible();
  await connect.getByLabel('Address').fill(`${velarium.standins}/records`);
  await connect.getByRole('button', { name: 'Connect', exact: true }).click();
  const secret = page.getByRole('dialog', { name: 'The signing secret' });
  await expect(secret.getByText(/^whsec_/)).toBeVisible();
  await expectAccessible(page);
  await secret.getByRole('button', { name: 'I have it' }).click();

  await answer(browser, velarium, 'owl@example.org');
  await page.getByRole('tab', { name: 'What goes out' }).click();
  const row = page.getByRole('row', { name: /Event to a connection Records/ });
  await expect(row).toContainText('failed, tries again');
  await expect(row).toContainText('It failed (503).');
  await row.getByRole('button').click();
  const fate = page.getByRole('dialog', { name: 'Event to a connection' });
  await expect(fate).toContainText('told to fail');
  await expect(fate).toContainText('webhook-signature: …');
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await row.getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Send again (1)' }).click();
  await expect(row).toContainText('sent');

  await page.getByRole('tab', { name: 'Sending' }).click();
  await page.getByLabel('Server').fill('127.0.0.1');
  await page.getByLabel('Port').fill('9');
  await page.getByRole('radio', { name: 'None' }).check();
  await page.getByLabel('From: address').fill('letters@quillonfell.example');
  await page.getByRole('button', { name: 'Ask the server' }).click();
  await expect(page.getByText(/^127\.0\.0\.1, port 9, could not be reached/)).toBeVisible();
  // A notice that is just leaving is pale for that moment only.
  await expect(page.getByText('1 delivery will be sent again.')).toHaveCount(0);
  await expectAccessible(page);
});
