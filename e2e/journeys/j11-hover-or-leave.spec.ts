import { publish, restAll } from '../lib/api.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';

/** The page's side; the rule is set through the API: these triggers have no control in the interface yet. */
test('J11 hover or leave: whichever came first, once per session, and again after two days', async ({
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await publish(velarium, {
    template: 'sky-letter',
    triggers: [
      { kind: 'interact', what: 'hover', selector: '.art' },
      { kind: 'exitMouse', certainty: 'likely' },
    ],
    limits: {
      caps: [
        { max: 1, per: 'session' },
        { max: 1, per: { count: 2, unit: 'days' } },
      ],
    },
  });
  const article = `${velarium.fell}/journal/finding-saturn`;
  const arrive = async () => visit(await newVisitor(browser), article);

  const hovering = await arrive();
  await hovering.page.locator('.art').first().hover();
  await hovering.pass(0.5);
  await expect(hovering.dialog).toBeVisible();
  await hovering.page.keyboard.press('Escape');
  const hoverAgain = async () => {
    await hovering.page.mouse.move(5, 700);
    await hovering.page.locator('.art').first().hover();
    await hovering.pass(0.5);
  };
  await hoverAgain();
  await expect(hovering.message).toHaveCount(0);
  await hovering.page.clock.fastForward('47:00:00');
  await hovering.reload();
  await hoverAgain();
  await expect(hovering.message).toHaveCount(0);
  await hovering.page.clock.fastForward('01:10:00');
  // Two days are over while the page is still open and its picture was hovered over: it opens there and then.
  await hovering.pass(0.5);
  await expect(hovering.dialog).toBeVisible();

  const leaving = await arrive();
  await leaving.pass(4);
  await leaving.page.mouse.move(1100, 300);
  await leaving.page.mouse.move(1100, -10, { steps: 3 });
  await leaving.pass(0.5);
  await expect(leaving.dialog).toBeVisible();
});
