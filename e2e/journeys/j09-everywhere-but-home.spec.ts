import { publish, restAll } from '../lib/api.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';

/** The page's side; the rule is set through the API: these triggers have no control in the interface yet. */
test('J09 everywhere but home: 35 s of stillness or leaving, only once', async ({ velarium, browser }) => {
  await restAll(velarium);
  await publish(velarium, {
    triggers: [
      { kind: 'inactivity', seconds: 35 },
      { kind: 'exitMouse', certainty: 'certain' },
    ],
    reach: {
      pages: { include: [{ kind: 'every' }], exclude: [{ kind: 'exact', address: '/' }], follows: null },
    },
    limits: { caps: [{ max: 1, per: 'ever' }] },
    message: { format: 'flyin', anchor: 'bottom-start' },
  });
  const arrive = async (path: string) => visit(await newVisitor(browser), velarium.fell + path);
  const leave = async ({ page }: Awaited<ReturnType<typeof arrive>>) => {
    await page.mouse.move(640, 200);
    await page.mouse.move(640, -10, { steps: 3 });
  };

  const home = await arrive('/');
  await home.pass(40);
  await leave(home);
  await home.pass(1);
  await expect(home.message).toHaveCount(0);

  const still = await arrive('/about');
  await still.pass(20);
  await still.page.mouse.move(300, 300);
  await still.pass(34);
  await expect(still.message).toHaveCount(0);
  await still.pass(2);
  await expect(still.message).toHaveCount(1);
  await still.go(`${velarium.fell}/contact`);
  await still.pass(40);
  await expect(still.message).toHaveCount(0);

  const leaving = await arrive('/about');
  await leaving.pass(4);
  await leave(leaving);
  await leaving.pass(0.5);
  await expect(leaving.message).toHaveCount(1);
});
