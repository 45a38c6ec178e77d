import type { BrowserContext } from '@playwright/test';
import { changeSettings, publish, type RuleOf, restAll } from './lib/api.ts';
import { ARTICLE, expectOpen, expectShut, on, test, wheel } from './lib/open.ts';
import { expect, newVisitor, type SitePage, visit } from './lib/velarium.ts';

test.describe('scroll depth', () => {
  test('opens at its share of the page, not before, and not for a script’s scrolling', async ({ open }) => {
    const site = await open(on({ kind: 'scroll', unit: 'percent', amount: 60 }));
    await site.page.evaluate(() => scrollTo(0, document.body.scrollHeight));
    await site.pass(1);
    await expectShut(site);
    await site.page.evaluate(() => scrollTo(0, 0));
    await site.pass(2);
    await wheel(site, 200);
    await expectShut(site);
    await wheel(site, 3000);
    await expectOpen(site);
  });

  test('a page that cannot scroll is at 100 % on load', async ({ open }) => {
    await expectOpen(await open(on({ kind: 'scroll', unit: 'percent', amount: 100 }), '/shop/basket'));
  });
});

test('an element reached by half, and the end of an article', async ({ open, velarium, browser }) => {
  const site = await open(on({ kind: 'element', selector: '#part-2' }));
  await expectShut(site);
  await site.page.locator('#part-2').scrollIntoViewIfNeeded();
  await expectOpen(site);
  await restAll(velarium);
  const other = await open(on({ kind: 'articleEnd' }), ARTICLE, await newVisitor(browser));
  await wheel(other, 200);
  await expectShut(other);
  await wheel(other, 9000);
  await expectOpen(other);
});

test('an element that comes late is reached when it comes', async ({ open }) => {
  const site = await open(on({ kind: 'element', selector: '.late' }), '/about');
  await expectShut(site);
  await site.page.evaluate(() => {
    const late = document.createElement('p');
    late.className = 'late';
    late.textContent = 'Here after all';
    document.querySelector('main')?.prepend(late);
  });
  await site.pass(1);
  await expectOpen(site);
});

test('stillness: any sign of life begins it anew', async ({ open }) => {
  const site = await open(on({ kind: 'inactivity', seconds: 8 }));
  await site.pass(6);
  await site.page.mouse.move(300, 300);
  await site.pass(6);
  await expectShut(site);
  await site.pass(2);
  await expectOpen(site);
});

for (const what of ['click', 'hover', 'focus'] as const) {
  test(`${what} of an element`, async ({ open }) => {
    const site = await open(on({ kind: 'interact', what, selector: '.buy' }), '/shop');
    const button = site.page.getByRole('button', { name: 'Put in the basket' }).first();
    await site.page.getByRole('heading', { name: 'Shop' }).click();
    await expectShut(site);
    if (what === 'click') await button.click();
    if (what === 'hover') await button.hover();
    if (what === 'focus') await button.focus();
    await expectOpen(site);
  });
}

test('coming back to the tab', async ({ open }) => {
  const site = await open(on({ kind: 'tabReturn' }));
  for (const isHidden of [true, false]) {
    await expectShut(site);
    await site.page.evaluate((next) => {
      Object.defineProperty(document, 'hidden', { configurable: true, get: () => next });
      document.dispatchEvent(new Event('visibilitychange'));
    }, isHidden);
  }
  await expectOpen(site);
});

test('what the page tells: an event, a basket, a sign-in, its kind, by hand', async ({
  open,
  velarium,
  browser,
}) => {
  const call = (site: SitePage, name: string, ...values: unknown[]) =>
    site.page.evaluate(
      ([method, given]) =>
        (window as unknown as { velarium: Record<string, (...all: unknown[]) => void> }).velarium[method]?.(
          ...given,
        ),
      [name, values] as const,
    );
  const fresh = () => newVisitor(browser);

  const event = await open(
    on({ kind: 'event', name: 'basket', condition: { path: 'total', comparison: 'atLeast', value: 60 } }),
    ARTICLE,
    await fresh(),
  );
  await call(event, 'basket', { items: 1, total: 12 });
  await expectShut(event);
  await call(event, 'basket', { items: 3, total: 61 });
  await expectOpen(event);
  await restAll(velarium);

  const signedIn = {
    not: false,
    match: 'all' as const,
    items: [{ not: false, condition: { kind: 'signedIn' as const, is: true } }],
  };
  const member = await open(
    { reach: { audience: { match: 'all', groups: [signedIn] } } },
    ARTICLE,
    await fresh(),
  );
  await expectShut(member);
  await call(member, 'visitor', { signedIn: true });
  await expectOpen(member);
  await restAll(velarium);

  const kind = await open(
    { reach: { pages: { include: [{ kind: 'pageKind', name: 'article' }], exclude: [], follows: null } } },
    '/about',
    await fresh(),
  );
  await expectShut(kind);
  await call(kind, 'page', { kind: 'article' });
  await expectOpen(kind);
  await restAll(velarium);

  const id = await publish(velarium, on({ kind: 'hand' }));
  const hand = await visit(await fresh(), velarium.fell + ARTICLE);
  await expectShut(hand);
  await hand.page.evaluate((campaign) => {
    const link = document.createElement('button');
    link.setAttribute('data-velarium-open', campaign);
    link.textContent = 'Open it';
    document.querySelector('main')?.prepend(link);
  }, id);
  await hand.page.getByRole('button', { name: 'Open it' }).click();
  await expectOpen(hand);
  expect([...event.problems, ...member.problems, ...kind.problems, ...hand.problems]).toEqual([]);
});

test('a shop whose script tells of its basket: three things worth fifty', async ({ open }) => {
  const worth = (kind: 'basketItems' | 'basketTotal', value: number) => ({
    not: false,
    condition:
      kind === 'basketItems'
        ? { kind, comparison: 'atLeast' as const, count: value }
        : { kind, comparison: 'atLeast' as const, amount: value },
  });
  const items = [worth('basketItems', 3), worth('basketTotal', 50)];
  const site = await open(
    { reach: { audience: { match: 'all', groups: [{ not: false, match: 'all', items }] } } },
    '/shop',
  );
  for (let things = 0; things < 3; things++) {
    await expectShut(site);
    await site.page.locator('[data-add]').nth(things).click();
  }
  await expectOpen(site);
});

test('all of several, and only on articles', async ({ open, velarium }) => {
  const rule: RuleOf = {
    triggers: [
      { kind: 'time', seconds: 18 },
      { kind: 'scroll', unit: 'percent', amount: 40 },
    ],
    moment: { join: 'all' },
    reach: { pages: { include: [{ kind: 'wildcard', pattern: '/journal/*' }], exclude: [], follows: null } },
  };
  const site = await open(rule, '/journal');
  await site.pass(20);
  await wheel(site, 5000);
  await expectShut(site);
  await site.go(velarium.fell + ARTICLE);
  await wheel(site, 5000);
  await expectShut(site);
  await site.pass(18);
  await expectOpen(site);
});

test('a schedule that opens while one waits on the page', async ({ open }) => {
  const soon = new Date(Date.now() + 120_000);
  const local = new Intl.DateTimeFormat('sv', {
    timeZone: 'Europe/London',
    dateStyle: 'short',
    timeStyle: 'short',
  })
    .format(soon)
    .replace(' ', 'T');
  const site = await open({
    limits: { schedule: { zone: 'site', start: local, end: null, days: [], hours: [], blackouts: [] } },
  });
  await expectShut(site);
  await site.pass(125);
  await expectOpen(site);
});

test('two boxes that fit stand beside each other, two that do not follow one another', async ({
  open,
  velarium,
}) => {
  await publish(velarium, {
    name: 'left',
    message: { anchor: 'bottom-start' },
    triggers: [{ kind: 'time', seconds: 2 }],
  });
  const site = await open({ name: 'right', triggers: [{ kind: 'time', seconds: 2 }] });
  await site.pass(2.5);
  await site.pass(0.5);
  await expect(site.message).toHaveCount(2);
  await publish(velarium, {
    name: 'modal',
    template: 'sky-letter',
    triggers: [{ kind: 'time', seconds: 3 }],
  });
  await site.reload();
  await site.pass(2.5);
  await site.pass(2);
  await expect(site.message).toHaveCount(2);
  for (let n = 0; n < 2; n++) await site.message.first().getByRole('button', { name: 'Close' }).click();
  await site.pass(0.5);
  await expect(site.dialog).toHaveCount(1);
  expect(site.problems).toEqual([]);
});

/** Counts the listeners the tag adds, by type, from before it runs. */
const countListeners = (context: BrowserContext) =>
  context.addInitScript(() => {
    const scope = window as unknown as { listening: Record<string, number> };
    scope.listening = {};
    const { addEventListener } = EventTarget.prototype;
    EventTarget.prototype.addEventListener = function (
      this: EventTarget,
      ...args: Parameters<typeof addEventListener>
    ) {
      scope.listening[args[0]] = (scope.listening[args[0]] ?? 0) + 1;
      addEventListener.apply(this, args);
    };
  });

test('a page with only time triggers gets no extras and no watching of scroll or mouse beyond the session’s', async ({
  open,
  velarium,
  visitor,
}) => {
  // What pages tell is recorded by the extras, and of events that are goals it is told by the rare part: a site that wants
  // either has them on every page.
  await velarium.query('DELETE FROM goal');
  await changeSettings(velarium, { recordedFacts: null });
  await countListeners(visitor);
  const requests: string[] = [];
  visitor.on('request', (request) => requests.push(request.url()));
  const site = await open(on({ kind: 'time', seconds: 5 }));
  const listening = await site.page.evaluate(
    () => (window as unknown as { listening: Record<string, number> }).listening,
  );
  expect(requests.filter((url) => url.includes('extras'))).toEqual([]);
  expect(listening.mouseout ?? 0).toBe(0);
  expect(listening.popstate ?? 0).toBe(0);
  // One passive listener each keeps the session alive, and one follows how deep visits go; places are read between frames.
  expect([listening.scroll, listening.pointermove]).toEqual([2, 1]);
});

test('two hundred changes of route leave no listener and no node behind', async ({ open, velarium }) => {
  const site = await open(
    on(
      { kind: 'scroll', unit: 'percent', amount: 50 },
      { kind: 'articleEnd' },
      { kind: 'exitMouse', certainty: 'certain' },
    ),
  );
  await publish(velarium, { name: 'shown', triggers: [{ kind: 'time', seconds: 1 }] });
  await site.reload();
  const client = await site.page.context().newCDPSession(site.page);
  await client.send('Performance.enable');
  const measure = async () => {
    await client.send('HeapProfiler.collectGarbage');
    const { metrics } = await client.send('Performance.getMetrics');
    return (name: string) => metrics.find((metric) => metric.name === name)?.value ?? 0;
  };
  const routes = async (count: number) => {
    for (let n = 0; n < count; n++) {
      await site.page.evaluate((to) => history.pushState({}, '', `/about?route=${to}`), n);
      await site.pass(1.2);
    }
    await site.page.evaluate(() => history.pushState({}, '', '/about?route=still'));
  };
  await routes(10);
  const before = await measure();
  await routes(200);
  const after = await measure();
  expect(after('JSEventListeners') - before('JSEventListeners')).toBeLessThanOrEqual(2);
  expect(after('Nodes') - before('Nodes')).toBeLessThanOrEqual(40);
  expect(site.problems).toEqual([]);
});
