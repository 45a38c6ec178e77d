import { publish, restAll } from '../lib/api.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';

/** The rule is set through the API: leaving has no control in the interface yet. */
test('J08 basket rescue: on leaving the basket page, on a desktop only', async ({
  velarium,
  visitor,
  browser,
}) => {
  await restAll(velarium);
  await publish(velarium, {
    triggers: [{ kind: 'exitMouse', certainty: 'certain' }],
    reach: {
      pages: { include: [{ kind: 'exact', address: '/shop/basket' }], exclude: [], follows: null },
      devices: ['desktop'],
    },
  });
  const site = await visit(visitor, `${velarium.fell}/shop`);
  const leave = async () => {
    await site.pass(4);
    await site.page.mouse.move(640, 200);
    await site.page.mouse.move(640, -10, { steps: 3 });
    await site.pass(0.3);
  };
  await leave();
  await expect(site.message).toHaveCount(0);
  await site.page.getByRole('button', { name: 'Put in the basket' }).first().click();
  await site.go(`${velarium.fell}/shop/basket`);
  await leave();
  await expect(site.message).toHaveCount(1);
  const phone = await visit(
    await newVisitor(browser, { viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true }),
    `${velarium.fell}/shop/basket`,
  );
  await phone.pass(30);
  await expect(phone.message).toHaveCount(0);
});
