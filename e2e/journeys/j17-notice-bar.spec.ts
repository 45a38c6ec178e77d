import { restAll } from '../lib/api.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';
import { launch, newCampaign, say, sentence } from '../lib/workbench.ts';

test('J17 a bar with a countdown for which the page makes room, at the top, then at the bottom, then at rest', async ({
  studioPage: page,
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await newCampaign(page, 'Notice', /Countdown strip/);
  await page.getByText('The page behind', { exact: true }).click();
  const makesRoom = page.getByRole('switch', { name: 'Makes room for it' });
  if (!(await makesRoom.isChecked())) await makesRoom.click();
  await page.getByRole('group', { name: 'Place' }).getByLabel('top', { exact: true }).check();
  await say(page, 'at once, everywhere, on every device, every time');
  await launch(page);
  const site = await visit(await newVisitor(browser), `${velarium.fell}/about`);
  await site.pass(0.5);
  await expect(site.message.getByRole('timer')).toBeVisible();
  await site.page.mouse.click(600, 500);
  const room = () =>
    site.page.evaluate(() => {
      const { marginTop, marginBottom } = document.documentElement.style;
      return { top: Number.parseFloat(marginTop) || 0, bottom: Number.parseFloat(marginBottom) || 0 };
    });
  expect((await room()).top).toBeGreaterThan(20);

  await page.getByRole('link', { name: 'Notice', exact: true }).click();
  await page.getByRole('group', { name: 'Place' }).getByLabel('bottom', { exact: true }).check();
  await expect(sentence(page)).toContainText('A bar at the bottom');
  await launch(page);
  await site.go(`${velarium.fell}/contact`);
  await site.pass(0.5);
  await site.page.mouse.click(600, 300);
  await expect.poll(async () => (await room()).bottom).toBeGreaterThan(20);

  await page.getByRole('button', { name: 'Actions for Notice' }).click();
  await page.getByRole('menuitem', { name: 'Rest' }).click();
  await expect(page.getByText('“Notice” is resting.')).toBeVisible();
  const after = await visit(await newVisitor(browser), `${velarium.fell}/about`);
  await after.pass(1);
  await expect(after.message).toHaveCount(0);
});
