import type { Page } from '@playwright/test';
import { publish, restAll } from './lib/api.ts';
import { expect, newVisitor, type SitePage, test, type Velarium, visit } from './lib/velarium.ts';

/** The seeded notice bar: at once, on the contact page, once per session. */
const contact = ({ fell }: Velarium) => `${fell}/contact`;
/** The seeded fly-in: after eight seconds, on both tours. */
const tour = ({ fell }: Velarium, slug = 'first-light') => `${fell}/night-tours/${slug}`;

/** Headless browsers cannot hide a tab, so the page is told that it is hidden. */
async function setHidden(page: Page, isHidden: boolean): Promise<void> {
  await page.evaluate((hidden) => {
    Object.defineProperty(document, 'hidden', { configurable: true, get: () => hidden });
    document.dispatchEvent(new Event('visibilitychange'));
  }, isHidden);
}

const events = (velarium: Velarium, kind: string) =>
  velarium.query<{ page: string; session: string }>(
    `SELECT page, session FROM event WHERE kind = $1 AND at > now() - interval '10 minutes' AND device = 'desktop'
       AND id::text ~ '^[0-9a-f]{8}-[0-9a-f]{4}-7' ORDER BY at`,
    [kind],
  );

test('time on page stands still while the tab is hidden', async ({ velarium, visitor }) => {
  const site = await visit(visitor, tour(velarium));
  await site.pass(4);
  await setHidden(site.page, true);
  await site.pass(60);
  await expect(site.message).toHaveCount(0);
  await setHidden(site.page, false);
  await site.pass(3.8);
  await expect(site.message).toHaveCount(0);
  await site.pass(0.3);
  await expect(site.message).toHaveCount(1);
});

test('the fly-in leaves the page usable and is no dialog', async ({ velarium, visitor }) => {
  const site = await visit(visitor, tour(velarium));
  await site.pass(8.1);
  await expect(site.page.getByRole('region', { name: 'Saturn is up on Friday' })).toBeVisible();
  await expect(site.dialog).toHaveCount(0);
  await site.page.getByRole('button', { name: /Put in the basket/ }).click();
  await site.page.getByRole('link', { name: 'Shop' }).click();
  await expect(site.page.getByRole('heading', { name: 'Shop' })).toBeVisible();
  expect(site.problems).toEqual([]);
});

test('a followed link is a click and, without a form, the conversion', async ({ velarium, visitor }) => {
  const site = await visit(visitor, tour(velarium));
  await site.pass(8.1);
  await site.page.getByRole('link', { name: 'See the night tours' }).click();
  await expect(site.page).toHaveURL(/\/night-tours$/);
  // What the page could not wait to hear answered, the next page sends again; each counts once.
  await site.page.waitForFunction(() => 'velarium' in window);
  await site.settle();
  await expect.poll(async () => (await events(velarium, 'converted')).length).toBe(1);
  expect(await events(velarium, 'clicked')).toHaveLength(1);
  expect(await events(velarium, 'shown')).toHaveLength(1);
});

test('a showing is viewable after one second on screen, and is counted', async ({ velarium, visitor }) => {
  const site = await visit(visitor, contact(velarium));
  await site.pass(0.1);
  await expect(site.message).toHaveCount(1);
  await site.pass(0.8);
  expect(await events(velarium, 'viewable')).toHaveLength(0);
  await site.pass(0.4);
  await site.settle();
  await expect.poll(async () => (await events(velarium, 'viewable')).length).toBe(1);
});

test('a change of route is a page view when path or query differs, and takes the message with it', async ({
  velarium,
  visitor,
}) => {
  const site = await visit(visitor, contact(velarium));
  await site.pass(0.1);
  await expect(site.message).toHaveCount(1);
  await site.page.evaluate(() => {
    history.pushState({}, '', '#only-a-fragment');
  });
  await expect(site.message).toHaveCount(1);
  await site.page.evaluate(() => {
    history.pushState({}, '', '/night-tours/deep-sky');
  });
  await expect(site.message).toHaveCount(0);
  await site.pass(8.1);
  await expect(site.page.getByRole('region', { name: 'Saturn is up on Friday' })).toBeVisible();
  await site.settle();
  await expect
    .poll(async () => (await events(velarium, 'pageview')).map(({ page }) => page))
    .toEqual(['/contact', '/night-tours/deep-sky']);
  expect(new Set((await events(velarium, 'pageview')).map(({ session }) => session)).size).toBe(1);
});

test('a session ends after half an hour without activity, and its cap with it', async ({
  velarium,
  visitor,
}) => {
  const site = await visit(visitor, contact(velarium));
  await site.pass(0.1);
  await expect(site.message).toHaveCount(1);
  await site.reload();
  await site.pass(1);
  await expect(site.message).toHaveCount(0);
  await site.sleep('31:00');
  await site.reload();
  await site.pass(0.1);
  await expect(site.message).toHaveCount(1);
});

test('two tabs opened at once show it once', async ({ velarium, visitor }) => {
  const a = await visit(visitor, tour(velarium));
  const b = await visit(visitor, tour(velarium));
  const messages = async () => (await a.message.count()) + (await b.message.count());
  // One clock for both: the moment comes in the two tabs at once.
  await a.pass(8.3);
  await expect.poll(messages).toBe(1);
  await a.pass(5);
  expect(await messages()).toBe(1);
});

test('where storage is refused everything works with an id that lives for the page', async ({
  velarium,
  visitor,
}) => {
  await visitor.addInitScript(() => {
    Object.defineProperty(window, 'localStorage', {
      get() {
        throw new DOMException('denied', 'SecurityError');
      },
    });
  });
  await restAll(velarium);
  await publish(velarium, {});
  const site = await visit(visitor, `${velarium.skerry}/`);
  await site.go(tour(velarium));
  await site.pass(0.3);
  await expect(site.message).toHaveCount(1);
  await site.settle();
  await expect.poll(async () => (await events(velarium, 'shown')).length).toBe(1);
  // The site's own script minds the refusal; the tag must not add to it.
  expect(site.problems.filter((problem) => !problem.includes('denied'))).toEqual([]);
});

test('full storage breaks nothing', async ({ velarium, visitor }) => {
  await visitor.addInitScript(() => {
    Storage.prototype.setItem = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
  });
  await restAll(velarium);
  await publish(velarium, {});
  const site = await visit(visitor, tour(velarium));
  await site.pass(0.3);
  await expect(site.message).toHaveCount(1);
  expect(site.problems).toEqual([]);
});

test('a damaged or foreign record is begun anew', async ({ velarium, visitor }) => {
  await visitor.addInitScript(() =>
    localStorage.setItem('velarium:quillonfell2', '{"v":1,"visitor":7,"campaigns":[]}'),
  );
  const site = await visit(visitor, tour(velarium));
  await site.pass(8.1);
  await expect(site.message).toHaveCount(1);
  expect(site.problems).toEqual([]);
});

test('what cannot be sent is kept and sent by the next page', async ({ velarium, visitor }) => {
  const site = await visit(visitor, `${velarium.fell}/about`);
  await visitor.route('**/collect', (route) => route.abort());
  await site.go(tour(velarium));
  await site.pass(10);
  await expect(site.message).toHaveCount(1);
  expect(await events(velarium, 'shown')).toHaveLength(0);
  await visitor.unroute('**/collect');
  await site.go(`${velarium.fell}/about`);
  await site.settle();
  await expect.poll(async () => (await events(velarium, 'shown')).length).toBe(1);
});

test('without the edge the page is as if there were no tag', async ({ velarium, browser }) => {
  const context = await newVisitor(browser);
  await context.route(`${velarium.edge}/**`, (route) => route.abort());
  const page = await context.newPage();
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(error.message));
  await page.goto(tour(velarium));
  await page.getByRole('button', { name: /Put in the basket/ }).click();
  expect(errors).toEqual([]);
  await context.close();
});

test('the page’s own script hears what happens and can open and close; its mistakes stay its own', async ({
  velarium,
  visitor,
}) => {
  const site = await visit(visitor, tour(velarium));
  await site.page.evaluate(() => {
    const scope = window as unknown as {
      velarium: { on: (topic: string, listener: () => void) => void };
      heard: string[];
    };
    scope.heard = [];
    scope.velarium.on('shown', () => {
      throw new Error('the page’s own mistake');
    });
    for (const topic of ['shown', 'viewable', 'closed'])
      scope.velarium.on(topic, () => scope.heard.push(topic));
  });
  const heard = () => site.page.evaluate(() => (window as unknown as { heard: string[] }).heard);
  await site.pass(8.1);
  await expect(site.message).toHaveCount(1);
  // When it is in sight the browser says by its own clock; a second after that it counts.
  await expect.poll(() => site.pass(0.4).then(heard)).toEqual(['shown', 'viewable']);
  await site.page.evaluate(() => (window as unknown as { velarium: { close: () => void } }).velarium.close());
  await expect(site.message).toHaveCount(0);
  expect(await heard()).toEqual(['shown', 'viewable', 'closed']);
  expect(site.problems).toEqual([expect.stringContaining('the page’s own mistake')]);
});

test('an aggressive style of the page does not reach the message, and the message not the page', async ({
  velarium,
  visitor,
  browser,
}) => {
  /** The message's own pixels: what the page draws behind its round corners is taken away first. */
  const shotOf = async (site: SitePage) => {
    await site.pass(8.1);
    await expect(site.message).toHaveCount(1);
    await site.pass(1);
    await site.page.evaluate(() => {
      for (const part of [document.head, document.body])
        part.style.setProperty('display', 'none', 'important');
      document.documentElement.style.setProperty('background', '#fff', 'important');
    });
    return site.page.screenshot({ animations: 'disabled' });
  };
  const plain = await visit(visitor, tour(velarium));
  const expected = await shotOf(plain);
  const context = await newVisitor(browser);
  await context.addInitScript(() => {
    document.addEventListener('DOMContentLoaded', () => {
      const sheet = new CSSStyleSheet();
      sheet.replaceSync(
        `*{all:unset!important}
         html{font-size:40px!important;direction:rtl!important;color:red!important;font-family:fantasy!important}
         velarium-message{display:none!important;opacity:.1!important;position:static!important;transform:scale(3)!important}`,
      );
      document.adoptedStyleSheets = [sheet];
    });
  });
  const hostile = await visit(context, tour(velarium));
  expect((await shotOf(hostile)).equals(expected)).toBe(true);
  await context.close();
});
