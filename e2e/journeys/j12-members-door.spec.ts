import { publish, restAll } from '../lib/api.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';
import { beginCampaign, expectParts, launch, say, sentence, side, stage } from '../lib/workbench.ts';

test('J12 a door for those not signed in, wherever another campaign opens, away for three hours after a close', async ({
  memberPage: page,
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await publish(velarium, {
    name: 'The way in',
    triggers: [{ kind: 'time', seconds: 3600 }],
    reach: { pages: { include: [{ kind: 'exact', address: '/members' }], exclude: [], follows: null } },
  });
  await beginCampaign(page, velarium, 'Door', /Members’ door/);
  for (const [device, name] of [
    ['desktop', '420px'],
    ['phone', '358px'],
  ] as const)
    await expect(stage(page, device).locator('.box')).toHaveCSS('inline-size', name);
  // One rule of CSS of its own; what could hide a thing or load one is refused.
  await page.getByText('Background and border', { exact: true }).click();
  const own = page.getByLabel('CSS of your own');
  await own.fill('display: none');
  await expect(page.getByText('This cannot be used: “display” cannot be set here.')).toBeVisible();
  await own.fill('letter-spacing: 0.5px');
  await expect(stage(page, 'desktop').locator('.card')).toHaveCSS('letter-spacing', '0.5px');
  await say(page, 'at once, on every device, every time');
  await side(page, 'Reach');
  await page.getByRole('combobox', { name: 'And wherever this campaign opens' }).click();
  await page.getByRole('option', { name: 'The way in' }).click();
  await expect(sentence(page)).toContainText('only on the pages of the campaign “The way in”');
  // The template asks for it by itself.
  await expect(sentence(page)).toContainText('for visitors with a page that says they are signed out');
  await side(page, 'Limits');
  await page.getByText('Stays away', { exact: true }).click();
  const afterClose = page.getByRole('group', { name: 'After a close' });
  await afterClose.getByRole('radio', { name: 'Stays away for a while' }).check();
  await page.getByRole('combobox', { name: 'Unit' }).first().click();
  await page.getByRole('option', { name: 'hours' }).click();
  await page.getByRole('textbox', { name: 'Hours' }).fill('3');
  await expect(sentence(page)).toContainText('After a close it stays away for 3 hours');
  await launch(page);

  const site = await visit(await newVisitor(browser), `${velarium.fell}/members`);
  // The page itself says who is signed in.
  const hours = async (count: number) => {
    await site.pass(count * 3600);
    await site.reload();
    await site.pass(1);
  };
  await site.pass(1);
  await expect(site.dialog).toBeVisible();
  await expect(site.message.locator('.card')).toHaveCSS('letter-spacing', '0.5px');
  await site.page.keyboard.press('Escape');
  await hours(2);
  await site.shows(0);
  await hours(1.1);
  await expect(site.dialog).toBeVisible();
  await site.page.keyboard.press('Escape');
  await site.page.getByLabel('Your name').fill('Wren Aldous');
  await site.page.getByRole('button', { name: 'Sign in' }).click();
  await hours(3.1);
  await site.shows(0);
  await site.page.getByRole('button', { name: 'Sign out' }).click();
  await site.pass(1);
  await expect(site.dialog).toBeVisible();
  await site.settle();

  await expectParts(page, 'Door', 'Page', [['/members', 1, 0]]);
});
