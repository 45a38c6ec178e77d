import { restAll } from '../lib/api.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';
import {
  addTrigger,
  beginCampaign,
  launch,
  openCampaign,
  outline,
  removeTrigger,
  saved,
  say,
  sentence,
  side,
  stage,
} from '../lib/workbench.ts';

test('J18 three moments on three kinds of page, and a saved block in two of them that is changed once', async ({
  memberPage: page,
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Home', /Low lantern/);
  await outline(page).getByRole('button', { name: /^Text/ }).click();
  await page.getByRole('button', { name: 'Keep it for other campaigns' }).click();
  await page.getByRole('dialog').getByLabel('Name').fill('Promise');
  await page.getByRole('button', { name: 'Keep it', exact: true }).click();
  await expect(outline(page).getByText('Saved block')).toBeVisible();
  await say(page, 'after 12 seconds, on home, only on desktops, once');
  await launch(page);

  await beginCampaign(page, velarium, 'Articles', /Film night/);
  await say(page, 'on articles, only on desktops, every time');
  const reached = await addTrigger(page, 'An element reached');
  await reached.getByRole('textbox', { name: 'Element' }).fill('.end');
  await removeTrigger(page, 'Time on the page');
  await expect(sentence(page)).toContainText('opens on reaching “.end” only on pages of the kind “article”');
  await launch(page);

  await beginCampaign(page, velarium, 'Checkout', /Corner invitation/);
  await page.getByRole('button', { name: 'Add a block' }).click();
  await page.getByRole('dialog', { name: 'Add a block' }).getByRole('button', { name: 'Promise' }).click();
  await expect(stage(page, 'desktop').getByText('About twice a month.')).toBeVisible();
  await say(page, 'after 8 seconds of stillness, on /shop/checkout, only on desktops, every time');
  await side(page, 'Limits');
  await page.getByText('Schedule', { exact: true }).click();
  await page.getByRole('switch', { name: 'Runs at certain times only' }).click();
  await page.getByRole('textbox', { name: 'Until' }).fill('2031-01-01T00:00');
  await launch(page);

  await openCampaign(page, 'Checkout');
  await outline(page)
    .getByRole('button', { name: /^Saved block/ })
    .click();
  await expect(page.getByText('is used by Checkout and Home')).toBeVisible();
  await page.getByRole('button', { name: 'Change it everywhere' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('radio', { name: 'Small print' }).check();
  await dialog.getByRole('button', { name: 'Save it everywhere' }).click();
  await expect(dialog).toHaveCount(0);
  for (const [path, seconds] of [
    ['/', 12],
    ['/shop/checkout', 8],
  ] as const) {
    const context = await newVisitor(browser);
    const site = await visit(context, velarium.fell + path);
    await site.pass(seconds - 1);
    await expect(site.message).toHaveCount(0);
    await site.pass(2);
    await expect(site.page.locator('velarium-message .small').first()).toContainText('About twice a month.');
    await context.close();
  }
  const reading = await visit(await newVisitor(browser), `${velarium.fell}/journal/meteor-notebook`);
  await reading.pass(20);
  await expect(reading.message).toHaveCount(0);
  await reading.page.mouse.move(600, 400);
  await reading.page.mouse.wheel(0, 9000);
  await expect.poll(() => reading.pass(0.3).then(() => reading.message.count())).toBe(1);
  await expect(reading.dialog.getByRole('button', { name: /^Play/ })).toBeVisible();

  // Detached, it is this campaign's own again.
  await page.getByRole('button', { name: 'Detach it here' }).click();
  await expect(outline(page).getByText('Saved block')).toHaveCount(0);
  await saved(page);
});
