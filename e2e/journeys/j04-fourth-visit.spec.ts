import { publish, restAll } from '../lib/api.ts';
import { expect, test, visit } from '../lib/velarium.ts';

/** The rule is set through the API: sessions and leaving have no control in the interface yet. */
test('J04 fourth visit: a cheaper tour for who comes the fourth time, the same box on leaving, not on phones', async ({
  velarium,
  visitor,
}) => {
  await restAll(velarium);
  const devices: ('desktop' | 'tablet')[] = ['desktop', 'tablet'];
  await publish(velarium, {
    triggers: [{ kind: 'count', of: 'sessions', atLeast: 4 }],
    message: { anchor: 'top' },
    reach: { devices },
  });
  const site = await visit(visitor, `${velarium.fell}/night-tours`);
  for (let session = 1; session <= 3; session++) {
    await site.pass(5);
    await expect(site.message).toHaveCount(0);
    await site.page.clock.fastForward('31:00');
    await site.reload();
  }
  await site.pass(0.3);
  await expect(site.message).toHaveCount(1);

  await restAll(velarium);
  await publish(velarium, {
    triggers: [{ kind: 'exitMouse', certainty: 'certain' }],
    message: { anchor: 'bottom' },
    reach: { devices },
  });
  await site.reload();
  await site.pass(4);
  await expect(site.message).toHaveCount(0);
  await site.page.mouse.move(640, 200);
  await site.page.mouse.move(640, -10, { steps: 3 });
  await site.pass(0.3);
  await expect(site.message).toHaveCount(1);
});
