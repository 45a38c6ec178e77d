import { publish, restAll } from './lib/api.ts';
import { expect, newVisitor, test, type Velarium, visit } from './lib/velarium.ts';
import { openPlace } from './lib/workbench.ts';

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

test('prototypes that write themselves as another JSON change nothing of what is kept and sent', async ({
  velarium,
  visitor,
}) => {
  await arm(velarium);
  // Libraries that were there before JSON was gave everything a way of its own to become text.
  await visitor.addInitScript(() => {
    for (const prototype of [Array.prototype, String.prototype]) {
      Object.defineProperty(prototype, 'toJSON', {
        configurable: true,
        value(this: unknown) {
          return `page:${String(this)}`;
        },
      });
    }
  });
  const site = await visit(visitor, `${velarium.fell}/journal`);
  await site.pass(2.3);
  await site.settle();
  const stored = "SELECT 1 FROM event WHERE kind = 'shown' AND page = '/journal'";
  await expect.poll(async () => (await velarium.query(stored)).length).toBe(1);
  // And the record is one that the next page reads.
  await site.go(`${velarium.fell}/journal`);
  expect(
    await site.page.evaluate(() => Object.values(localStorage).some((text) => text.includes('"views":2'))),
  ).toBe(true);
});

test('a part of the tag that is gone leaves the page as it is, and the next page has its message', async ({
  velarium,
  visitor,
}) => {
  await arm(velarium);
  // A page kept for long asks for a file of a release that nobody keeps any more.
  await visitor.route(/\/tag\/renderer-/, (route) => route.fulfill({ status: 404, body: 'Not found' }));
  await visitor.addInitScript(() => {
    window.addEventListener('unhandledrejection', ({ reason }) => {
      document.documentElement.dataset.unhandled = String(reason);
    });
  });
  const site = await visit(visitor, `${velarium.fell}/shop`);
  const missed = site.page.waitForResponse(/\/tag\/renderer-/);
  await site.pass(2.3);
  expect((await missed).status()).toBe(404);
  await site.settle();
  await expect(site.message).toHaveCount(0);
  expect(await site.page.evaluate(() => document.documentElement.dataset.unhandled)).toBeUndefined();
  expect(site.problems.filter((problem) => !problem.includes('404'))).toEqual([]);
  await site.page.getByRole('button', { name: 'Put in the basket' }).first().click();
  await visitor.unroute(/\/tag\/renderer-/);
  await site.page.goto(`${velarium.fell}/about`);
  await site.page.waitForFunction(() => 'velarium' in window);
  await site.pass(2.3);
  await expect(site.message).toBeVisible();
});

test('where nothing that leads out of a message can be seen, its own button comes, and so does Escape', async ({
  velarium,
  visitor,
}) => {
  await restAll(velarium);
  await publish(velarium, { template: 'sky-letter', triggers: [{ kind: 'time', seconds: 1 }] });
  // No publish lets such a message through: it is made on its way.
  await visitor.route('**/messages/*.json', async (route) => {
    const response = await route.fetch();
    const file = await response.json();
    file.sheet += '.close{display:none}';
    for (const step of file.message.steps)
      step.blocks = step.blocks.filter(({ kind }: { kind: string }) => kind !== 'button');
    await route.fulfill({ response, json: file });
  });
  const site = await visit(visitor, `${velarium.fell}/about`);
  await site.pass(2);
  await expect(site.dialog).toBeVisible();
  const close = site.dialog.getByRole('button', { name: 'Close' });
  await expect(close).toBeHidden();
  await site.pass(6);
  await expect(close).toBeInViewport();
  await close.click();
  await site.pass(1);
  await expect(site.message).toHaveCount(0);
});

test('on paper there is no message', async ({ velarium, visitor }) => {
  await arm(velarium);
  const site = await visit(visitor, `${velarium.fell}/shop`);
  await site.pass(2.3);
  await expect(site.message).toBeVisible();
  await site.page.emulateMedia({ media: 'print' });
  await expect(site.message).toBeHidden();
});

test('who answers where counting is blocked is counted, with the showing that was answered, and the Board stands', async ({
  velarium,
  visitor,
  memberPage: studioPage,
}) => {
  await restAll(velarium);
  await publish(velarium, {
    name: 'Blocked',
    template: 'sky-letter',
    triggers: [{ kind: 'time', seconds: 1 }],
  });
  await visitor.route('**/collect', (route) => route.abort());
  const site = await visit(visitor, `${velarium.fell}/about`);
  await site.pass(2);
  await expect(site.dialog).toBeVisible();
  await site.pass(4);
  await site.page.getByLabel('Your mail address').fill('lark@example.org');
  await site.page.getByRole('checkbox').check();
  await site.page.getByRole('button', { name: 'Send me the sky' }).click();
  await expect(site.dialog).toContainText('Clear skies');
  await openPlace(studioPage, velarium, 'board');
  const row = studioPage.getByRole('listitem').filter({ hasText: 'Blocked' });
  await expect(row.getByRole('definition')).toHaveText(['1', '1', '1', /^100\.0 %/]);
});

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

test('at 200 % zoom the message is whole and can be closed', async ({ velarium, browser }) => {
  await restAll(velarium);
  await publish(velarium, { template: 'sky-letter' });
  // What zoom does to a page: half the window's CSS pixels, twice as dense.
  const context = await newVisitor(browser, { viewport: { width: 640, height: 400 }, deviceScaleFactor: 2 });
  const site = await visit(context, `${velarium.fell}/about`);
  await site.pass(0.3);
  await expect(site.dialog).toBeVisible();
  const box = await site.dialog.boundingBox();
  expect(box && box.x >= 0 && box.y >= 0 && box.x + box.width <= 640 && box.y + box.height <= 400).toBe(true);
  await site.page.getByRole('button', { name: 'Send me the sky' }).scrollIntoViewIfNeeded();
  await expect(site.page.getByRole('button', { name: 'Send me the sky' })).toBeInViewport();
  await site.page.getByRole('button', { name: 'Close' }).click();
  await expect(site.message).toHaveCount(0);
  await context.close();
});

test('a page that is only prerendered begins nothing until a person sees it', async ({
  velarium,
  visitor,
}) => {
  await restAll(velarium);
  await publish(velarium, {});
  // The headless browser prerenders nothing, so the page is told that it is.
  await visitor.addInitScript(() => {
    Object.defineProperty(document, 'prerendering', { configurable: true, get: () => true });
  });
  const page = await visitor.newPage();
  const asked: string[] = [];
  page.on('request', (request) => asked.push(new URL(request.url()).pathname));
  await page.goto(`${velarium.fell}/about`);
  await page.waitForLoadState('networkidle');
  expect(asked.filter((path) => path.includes('manifest'))).toEqual([]);
  await page.evaluate(() => {
    Object.defineProperty(document, 'prerendering', { configurable: true, get: () => false });
    document.dispatchEvent(new Event('prerenderingchange'));
  });
  await expect(page.locator('velarium-message')).toHaveCount(1);
});

test('a page kept by the back/forward cache shows nothing while it is left, and goes on when it is back', async ({
  velarium,
  visitor,
}) => {
  await restAll(velarium);
  await publish(velarium, { triggers: [{ kind: 'time', seconds: 5 }] });
  const site = await visit(visitor, `${velarium.fell}/about`);
  // The headless browser keeps no page, so the page is told what it would be told.
  const tell = (type: string) =>
    site.page.evaluate((name) => dispatchEvent(new PageTransitionEvent(name, { persisted: true })), type);
  await site.pass(3);
  await tell('pagehide');
  await site.pass(10);
  await expect(site.message).toHaveCount(0);
  await tell('pageshow');
  await site.pass(1);
  await expect(site.message).toHaveCount(0);
  await site.pass(1.3);
  await expect(site.message).toHaveCount(1);
});

test('going into a frame of the page is no leaving', async ({ velarium, visitor }) => {
  await restAll(velarium);
  await publish(velarium, { triggers: [{ kind: 'exitMouse', certainty: 'certain' }] });
  const site = await visit(visitor, `${velarium.fell}/about`);
  await site.page.evaluate(() => {
    const frame = document.createElement('iframe');
    // At the very top of the window, where a leaving mouse would go.
    Object.assign(frame.style, { position: 'fixed', inset: '0 0 auto 0', width: '100%', height: '120px' });
    document.body.append(frame);
  });
  await site.pass(4);
  await site.page.mouse.move(640, 400);
  await site.page.mouse.move(640, 20, { steps: 3 });
  await site.pass(0.5);
  await expect(site.message).toHaveCount(0);
  await site.page.mouse.move(640, 400);
  await site.page.evaluate(() => document.querySelector('iframe')?.remove());
  await site.page.mouse.move(640, 300);
  await site.page.mouse.move(640, -10, { steps: 3 });
  await site.pass(0.5);
  await expect(site.message).toHaveCount(1);
});
