import { restAll } from '../lib/api.ts';
import { flick, leaveByMouse } from '../lib/gestures.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';
import {
  addTrigger,
  beginCampaign,
  expectParts,
  launch,
  mayComeAgain,
  rehearse,
  removeTrigger,
  say,
  sentence,
} from '../lib/workbench.ts';

test('J21 six hours from first sight, on phones only, whatever is reloaded', async ({
  memberPage: page,
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Tonight', /Six hours/);
  // Colours of its own, and the site's again in one click.
  await page.getByRole('button', { name: /^Accent/ }).click();
  await page.getByLabel('Accent as text').fill('#ffffff');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Take the Look’s colours' }).click();
  await say(page, 'everywhere, only on phones, every time');
  const back = await addTrigger(page, 'Leaving by touch');
  await back.getByRole('radio', { name: 'Back gesture' }).check();
  await addTrigger(page, 'Leaving by touch');
  await removeTrigger(page, 'Time on the page');
  await expect(sentence(page)).toContainText(
    'opens on the back gesture or on a quick scroll up by touch on every page, on phones only',
  );
  await mayComeAgain(page);
  const leaves = { name: 'Tonight', path: '/about', does: 'Leaves by touch' };
  await rehearse(page, { ...leaves, on: 'phone', comesTo: /^Opens on page 1 at/ });
  await rehearse(page, { ...leaves, comesTo: null });
  await launch(page);

  const desktop = await visit(await newVisitor(browser), `${velarium.fell}/about`);
  await leaveByMouse(desktop);
  await expect(desktop.message).toHaveCount(0);

  const phone = await newVisitor(browser, {
    viewport: { width: 390, height: 844 },
    isMobile: true,
    hasTouch: true,
  });
  const site = await visit(phone, `${velarium.fell}/journal/meteor-notebook`);
  const leave = async () => {
    await site.pass(4);
    for (let n = 0; n < 4; n++) await flick(site.page, 700, 100);
    await expect.poll(() => site.page.evaluate(() => scrollY)).toBeGreaterThan(900);
    await site.pass(1);
    await flick(site.page, 100, 700);
    await expect.poll(() => site.pass(0.1).then(() => site.message.count())).toBe(1);
  };
  await leave();
  const figures = () => site.page.locator('velarium-message b').allTextContents();
  await expect.poll(async () => (await figures())[0]).toMatch(/^0[56]$/);
  await site.pass(600);
  await expect.poll(async () => (await figures()).slice(0, 2)).toEqual(['05', '49']);
  await site.reload();
  await leave();
  await expect.poll(async () => (await figures()).slice(0, 2)).toEqual(['05', '49']);
  await site.settle();
  await phone.close();

  // One visitor, however often it was shown, and nobody at a desk.
  await expectParts(page, 'Tonight', 'Device', [['phone', 1, 0]]);
});
