import { publish, restAll } from './lib/api.ts';
import { expect, newVisitor, test, type Velarium, visit } from './lib/velarium.ts';

/** What a page may have done to its world before the tag runs; none of it may break the page or the message. */
const HOSTILITIES: readonly { readonly what: string; readonly deed: () => void }[] = [
  {
    what: 'enumerable additions to the prototypes of everything',
    deed: () => {
      for (const prototype of [Object.prototype, Array.prototype, String.prototype]) {
        Object.defineProperty(prototype, 'each', {
          enumerable: true,
          configurable: true,
          value: () => 'page',
        });
      }
    },
  },
  {
    what: 'a frozen history',
    deed: () => {
      Object.freeze(history);
      History.prototype.pushState = () => {
        throw new Error('no');
      };
    },
  },
  {
    what: 'scripts that have replaced history',
    deed: () => {
      const { pushState } = History.prototype;
      History.prototype.pushState = function (...args) {
        return pushState.apply(this, args);
      };
    },
  },
  {
    what: 'no locks, no beacon, no requestIdleCallback',
    deed: () => {
      Object.defineProperty(navigator, 'locks', { value: undefined });
      Object.defineProperty(navigator, 'sendBeacon', { value: undefined });
      Object.defineProperty(window, 'requestIdleCallback', { value: undefined });
    },
  },
  {
    what: 'a navigation interface that is missing',
    deed: () => {
      Object.defineProperty(window, 'navigation', { value: undefined });
    },
  },
  {
    what: 'another script that already calls itself velarium',
    deed: () => {
      Object.assign(window, {
        velarium: {
          q: [
            ['nonsense', 1],
            ['on', 'shown', () => {}],
          ],
        },
      });
    },
  },
];

const arm = async (velarium: Velarium) => {
  await restAll(velarium);
  await publish(velarium, {
    triggers: [
      { kind: 'exitTouch', by: 'back' },
      { kind: 'scroll', unit: 'percent', amount: 90 },
      { kind: 'time', seconds: 2 },
    ],
  });
};

for (const { what, deed } of HOSTILITIES) {
  test(`a page with ${what} is not broken and breaks nothing`, async ({ velarium, visitor }) => {
    await arm(velarium);
    await visitor.addInitScript(deed);
    const site = await visit(visitor, `${velarium.fell}/shop`);
    await site.page.getByRole('button', { name: 'Put in the basket' }).first().click();
    await site.pass(2.3);
    await expect(site.page.getByRole('region', { name: 'Saturn is up on Friday' })).toBeVisible();
    await site.page.evaluate(() => {
      try {
        history.pushState({}, '', '/shop?route=2');
      } catch {
        // The page has forbidden it to itself.
      }
    });
    await site.settle();
    await expect
      .poll(
        async () =>
          (
            await velarium.query(
              "SELECT 1 FROM event WHERE kind = 'shown' AND version = 1 AND page LIKE '/shop%'",
            )
          ).length,
      )
      .toBeGreaterThan(0);
    expect(site.problems).toEqual([]);
  });
}

test('a clock that jumps back or ahead moves no moment of the page, and lifts no cap', async ({
  velarium,
  visitor,
}) => {
  await restAll(velarium);
  await publish(velarium, {
    triggers: [{ kind: 'time', seconds: 6 }],
    limits: { caps: [{ max: 1, per: { count: 7, unit: 'days' } }] },
  });
  const site = await visit(visitor, `${velarium.fell}/about`);
  await site.pass(3);
  const now = await site.page.evaluate(() => Date.now());
  const jump = (days: number) =>
    site.page.evaluate(
      (ms) => {
        Date.now = () => ms;
      },
      now + days * 86_400_000,
    );
  await jump(-300);
  await site.pass(2.5);
  await expect(site.message).toHaveCount(0);
  await jump(300);
  await site.pass(1);
  await expect(site.message).toHaveCount(1);
  await site.reload();
  await site.pass(7);
  await expect(site.message).toHaveCount(0);
});

test('a very long page that grows lowers nobody’s depth', async ({ velarium, visitor }) => {
  await restAll(velarium);
  await publish(velarium, {
    triggers: [
      { kind: 'time', seconds: 8 },
      { kind: 'scroll', unit: 'percent', amount: 50 },
    ],
    moment: { join: 'all' },
  });
  const site = await visit(visitor, `${velarium.fell}/journal/dark-adaptation`);
  await site.page.mouse.move(600, 400);
  await site.page.mouse.wheel(0, 20_000);
  await expect.poll(() => site.page.evaluate(() => scrollY)).toBeGreaterThan(400);
  await site.pass(0.5);
  await site.page.evaluate(() => {
    const more = document.createElement('div');
    // Through the object model: the site's policy forbids inline styles.
    more.style.height = '200000px';
    document.querySelector('main')?.append(more);
  });
  await site.pass(8);
  await expect(site.message).toHaveCount(1);
  expect(site.problems).toEqual([]);
});

test('in a window 320 pixels wide the message is whole and can be closed', async ({ velarium, browser }) => {
  await restAll(velarium);
  await publish(velarium, { template: 'sky-letter' });
  const context = await newVisitor(browser, { viewport: { width: 320, height: 640 } });
  const site = await visit(context, `${velarium.fell}/about`);
  await site.pass(0.3);
  await expect(site.dialog).toBeVisible();
  const { width, scrolls } = await site.dialog.evaluate((box) => ({
    width: box.getBoundingClientRect().right,
    scrolls: box.scrollWidth - box.clientWidth,
  }));
  expect(width).toBeLessThanOrEqual(320);
  expect(scrolls).toBe(0);
  await site.page.getByRole('button', { name: 'Close' }).click();
  await expect(site.message).toHaveCount(0);
  await context.close();
});
