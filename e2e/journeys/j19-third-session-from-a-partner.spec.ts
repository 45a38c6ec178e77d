import type { Condition } from '@velarium/contract';
import { publish, restAll } from '../lib/api.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';

/** The audience is set through the API: it has no control in the interface yet. */
test('J19 third session, from a partner', async ({ velarium, visitor, browser }) => {
  await restAll(velarium);
  const item = (condition: Condition) => ({ not: false, condition });
  await publish(velarium, {
    reach: {
      audience: {
        match: 'all',
        groups: [
          {
            not: false,
            match: 'all',
            items: [
              item({ kind: 'sessions', comparison: 'atLeast', count: 3 }),
              item({ kind: 'arrival', parameter: 'utm_source', value: 'partner' }),
            ],
          },
        ],
      },
    },
  });
  const site = await visit(visitor, `${velarium.fell}/?utm_source=partner`);
  for (let session = 1; session <= 2; session++) {
    await site.pass(2);
    await expect(site.message).toHaveCount(0);
    await site.page.clock.fastForward('31:00');
    await site.go(`${velarium.fell}/?utm_source=partner`);
  }
  await site.pass(0.3);
  await expect(site.message).toHaveCount(1);

  const other = await visit(await newVisitor(browser), `${velarium.fell}/`);
  for (let session = 1; session <= 3; session++) {
    await other.pass(2);
    await expect(other.message).toHaveCount(0);
    await other.page.clock.fastForward('31:00');
    await other.go(`${velarium.fell}/`);
  }
});
