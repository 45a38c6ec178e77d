import { restAll } from '../lib/api.ts';
import { leaveByMouse } from '../lib/gestures.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';
import { addTrigger, beginCampaign, launch, say, sentence, side, stage } from '../lib/workbench.ts';

test('J11 hover or leave: whichever came first, once per session, and again after two days', async ({
  memberPage: page,
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Hover', /Sky letter/);
  await stage(page, 'desktop').getByRole('textbox', { name: 'Heading' }).fill('After {{page.title}}');
  await page.getByRole('button', { name: 'The box' }).click();
  await page.getByText('Way out', { exact: true }).click();
  await page.getByRole('radio', { name: 'On the edge' }).check();
  await page.getByText('Animation', { exact: true }).click();
  await page.getByRole('combobox', { name: 'Coming in' }).click();
  await page.getByRole('option', { name: 'Sweep in', exact: true }).click();
  await page.getByRole('combobox', { name: 'Going out' }).click();
  await page.getByRole('option', { name: 'Shrink', exact: true }).click();
  await say(page, 'on leaving, everywhere, on every device, once per session');
  const hover = await addTrigger(page, 'An element used');
  await hover.getByRole('radio', { name: 'Hovered over' }).check();
  await hover.getByRole('textbox', { name: 'Element' }).fill('.art');
  await side(page, 'Limits');
  await page.getByRole('radio', { name: /^Caps of your own/ }).check();
  const caps = page.getByRole('list', { name: 'Caps' }).getByRole('listitem');
  await caps.last().getByLabel('At most').fill('1');
  await caps.last().getByRole('combobox', { name: 'Unit' }).click();
  await page.getByRole('option', { name: 'days', exact: true }).click();
  await caps.last().getByLabel('Days').fill('2');
  await expect(sentence(page)).toContainText('once per session and once every 2 days');
  await launch(page);
  const article = `${velarium.fell}/journal/finding-saturn`;
  const arrive = async () => visit(await newVisitor(browser), article);

  const hovering = await arrive();
  await hovering.page.locator('.art').first().hover();
  await hovering.pass(0.5);
  await expect(hovering.dialog).toBeVisible();
  await expect(hovering.dialog.getByRole('heading')).toContainText('After Finding Saturn without a map');
  await hovering.page.keyboard.press('Escape');
  await hovering.pass(1);
  const hoverAgain = async () => {
    await hovering.page.mouse.move(5, 700);
    await hovering.page.locator('.art').first().hover();
    await hovering.pass(0.5);
  };
  await hoverAgain();
  await expect(hovering.message).toHaveCount(0);
  await hovering.sleep('47:00:00');
  await hovering.reload();
  await hoverAgain();
  await expect(hovering.message).toHaveCount(0);
  await hovering.sleep('01:10:00');
  // Two days are over while the page is still open and its picture was hovered over: it opens there and then.
  await hovering.pass(0.5);
  await expect(hovering.dialog).toBeVisible();

  const leaving = await arrive();
  await leaveByMouse(leaving);
  await expect(leaving.dialog).toBeVisible();
});
