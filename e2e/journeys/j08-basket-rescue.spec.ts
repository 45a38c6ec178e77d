import { restAll } from '../lib/api.ts';
import { leaveByMouse } from '../lib/gestures.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';
import {
  beginCampaign,
  launch,
  openCampaign,
  rehearse,
  say,
  sentence,
  side,
  trigger,
} from '../lib/workbench.ts';

test('J08 basket rescue: on leaving, first everywhere, then the basket page, on a desktop only', async ({
  memberPage: page,
  velarium,
  visitor,
  browser,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Basket', /Basket lamp/);
  await expect(page.getByText('Draft', { exact: true })).toBeVisible();
  // The template asks for a basket with something in it and for every kind of leaving.
  await expect(sentence(page)).toContainText('for visitors with at least 1 thing in the basket');
  await side(page, 'Reach');
  await page.getByRole('button', { name: /^Remove: .*basket/ }).click();
  await say(page, 'on leaving, everywhere, only on desktops, every time');
  const leaving = await trigger(page, 'leaving by mouse');
  await leaving.getByRole('radio', { name: 'Certain' }).check();
  await expect(sentence(page)).toContainText('once leaving by mouse is certain');
  const leaves = { name: 'Basket', path: '/about', does: 'Leaves by mouse' };
  await rehearse(page, { ...leaves, how: 'likely', comesTo: 'Does not open' });
  await rehearse(page, { ...leaves, how: 'certain', comesTo: /^Opens on page 1 at/ });
  await launch(page);
  const first = await visit(await newVisitor(browser), `${velarium.fell}/about`);
  await leaveByMouse(first);
  await expect(first.message).toHaveCount(1);

  await openCampaign(page, 'Basket');
  await expect(page.getByText('Running', { exact: true })).toBeVisible();
  await say(page, 'on /shop/basket');
  await launch(page);
  const site = await visit(visitor, `${velarium.fell}/shop`);
  await leaveByMouse(site);
  await expect(site.message).toHaveCount(0);
  await site.page.getByRole('button', { name: 'Put in the basket' }).first().click();
  await site.go(`${velarium.fell}/shop/basket`);
  await leaveByMouse(site);
  await expect(site.message).toHaveCount(1);
  const phone = await visit(
    await newVisitor(browser, { viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true }),
    `${velarium.fell}/shop/basket`,
  );
  await phone.pass(30);
  await expect(phone.message).toHaveCount(0);
});
