import { expect, newVisitor, test } from './lib/velarium.ts';
import { openCampaign, openWorkbench } from './lib/workbench.ts';

test('what is changed offline is kept and saved when the connection is back', async ({
  memberPage: page,
  velarium,
  context,
}) => {
  await openWorkbench(page, velarium, 'Welcome to members');
  await expect(page.getByRole('region', { name: 'Visit line' })).toBeVisible();
  await page.keyboard.press('2');
  await context.setOffline(true);
  await expect(page.getByText('You are offline')).toBeVisible();
  await page.getByLabel('Seconds on the page').fill('33');
  await expect(page.getByText('the server cannot be reached')).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByRole('status').filter({ hasText: 'All saved' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('region', { name: 'Rule sentence' })).toContainText('after 33 seconds');
});

test('what cannot be done offline is said at a press, done at the next one and never by itself; words stay', async ({
  memberPage: page,
  velarium,
  context,
}) => {
  await openWorkbench(page, velarium, 'Summit road closed');
  await expect(page.getByRole('button', { name: 'Rest', exact: true })).toBeVisible();
  await context.setOffline(true);
  const told = page.getByText(/^The server cannot be reached/).first();
  await page.getByRole('button', { name: 'Rest', exact: true }).click();
  await expect(told).toBeVisible();
  const name = page.getByLabel('Campaign name');
  await name.fill('The summit road is closed');
  await name.press('Enter');
  await expect(name).toHaveAttribute('aria-invalid', 'true');
  await expect(name).toHaveValue('The summit road is closed');
  await page.getByRole('button', { name: 'Note', exact: true }).click();
  const note = page.getByRole('textbox', { name: 'Note for the team' });
  await note.fill('Rests in the week of the open dome.');
  await page.keyboard.press('Escape');
  await expect(page.getByText('Name not kept')).toBeVisible();
  const unkept = page.getByRole('button', {
    name: 'Note. Not kept yet: Rests in the week of the open dome.',
  });
  await expect(unkept).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByText('You are offline')).toHaveCount(0);

  await unkept.click();
  await expect(note).toHaveValue('Rests in the week of the open dome.');
  await note.press('Escape');
  await expect(page.getByRole('button', { name: 'Note: Rests in the week of the open dome.' })).toBeVisible();
  await expect(page.getByText('Running', { exact: true })).toBeVisible();
  await name.focus();
  await name.press('Enter');
  await expect(name).not.toHaveAttribute('aria-invalid');
  await page.getByRole('button', { name: 'Rest', exact: true }).click();
  await expect(page.getByText('Resting', { exact: true })).toBeVisible();
  await page.reload();
  await expect(name).toHaveValue('The summit road is closed');
});

test('what a browser says of being offline stands in nobody’s way', async ({ studioPage: page }) => {
  await page.addInitScript(() => Object.defineProperty(navigator, 'onLine', { value: false }));
  await page.reload();
  await openCampaign(page, 'Summit road closed');
  await page.getByRole('button', { name: 'Rest', exact: true }).click();
  await expect(page.getByText('Resting', { exact: true })).toBeVisible();
});

test('a studio that gets no answer says so, and goes on when there is one', async ({ browser, velarium }) => {
  const context = await newVisitor(browser);
  // A browser may hold itself to be offline on a network that leads here all the same.
  await context.addInitScript(() => Object.defineProperty(navigator, 'onLine', { value: false }));
  await context.clock.install();
  const page = await context.newPage();
  const asked = page.waitForRequest('**/api/session');
  await page.route('**/api/session', () => undefined);
  await page.goto(velarium.studio);
  await asked;
  await page.clock.runFor(1000);
  await expect(page.getByRole('status')).toHaveText('Velarium is being opened …');
  await page.clock.runFor(30_000);
  await expect(page.getByRole('alert')).toContainText('The server does not answer');
  await page.getByRole('button', { name: 'Try again' }).click();
  await page.clock.runFor(1000);
  await expect(page.getByRole('status')).toHaveText('Velarium is being opened …');
  await page.clock.runFor(30_000);
  await page.unroute('**/api/session');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByLabel('Mail address')).toBeVisible();
});
