import { previewAddress, publish, restAll } from './lib/api.ts';
import { FOREIGN, serveForeign, visitForeign } from './lib/foreign.ts';
import { expect, test } from './lib/velarium.ts';
import { openWorkbench } from './lib/workbench.ts';

test.use({ ground: 'page' });

test.beforeEach(({ velarium }) => restAll(velarium));

/** One template a format, and how the format is read out. */
const FORMATS = [
  ['popup', 'region'],
  ['modal', 'dialog'],
  ['flyin', 'region'],
  ['slidein', 'region'],
  ['bar', 'region'],
  ['fullscreen', 'dialog'],
] as const;

for (const name of FOREIGN) {
  test(`every format on the page “${name}”: seen whole, within reach, closed by Escape, and nothing is left behind`, async ({
    velarium,
    visitor,
  }) => {
    const ids = new Map<string, string>();
    for (const [format] of FORMATS) {
      const anchor = format === 'bar' ? 'top' : format === 'slidein' ? 'end' : 'center';
      ids.set(
        format,
        await publish(velarium, {
          name: format,
          // Far off: the page asks for it by hand, whatever the site's limits.
          triggers: [{ kind: 'time', seconds: 3000 }],
          message: { format, anchor: format === 'flyin' ? 'bottom-end' : anchor },
        }),
      );
    }
    const site = await visitForeign(visitor, velarium, name);
    // An application is drawn when it is.
    await site.pass(3.5);
    for (const [format, role] of FORMATS) {
      await site.page.evaluate(
        (id) => (window as unknown as { velarium: { open(id: string): void } }).velarium.open(id),
        ids.get(format) as string,
      );
      await expect
        .poll(async () => {
          await site.pass(0.5);
          return site.message.count();
        })
        .toBe(1);
      const box = site.message.getByRole(role);
      await expect(box).toBeInViewport({ ratio: 0.9 });
      const close = site.message.getByRole('button', { name: 'Close' });
      // Whatever lies over it would take the press.
      await close.click({ trial: true });
      await close.focus();
      await site.page.keyboard.press('Escape');
      await site.pass(1);
      await expect(site.message).toHaveCount(0);
    }
    expect(
      await site.page.evaluate(() => document.querySelectorAll('[inert],[style*="padding-top"]').length),
    ).toBe(0);
    expect(site.problems.filter((problem) => !problem.includes('scripts may close'))).toEqual([]);
  });
}

for (const name of ['slides', 'shortcuts'] as const) {
  test(`what is typed in a message on the page “${name}” is the message’s, and Escape closes it first`, async ({
    velarium,
    visitor,
  }) => {
    await publish(velarium, { template: 'sky-letter', triggers: [{ kind: 'time', seconds: 1 }] });
    const site = await visitForeign(visitor, velarium, name);
    await site.pass(2);
    const field = site.dialog.getByLabel('Your mail address');
    await field.click();
    await site.page.keyboard.type('bob.frost-pine+sky@example.org');
    await site.page.keyboard.press('ArrowLeft');
    await site.page.keyboard.press('ArrowRight');
    await expect(field).toHaveValue('bob.frost-pine+sky@example.org');
    const { slide, keys, click } = await site.page.evaluate(() => ({ ...document.body.dataset }));
    expect([slide ?? '0', keys, click]).toEqual(['0', undefined, undefined]);
    expect(visitor.pages()).toHaveLength(1);
    await site.page.keyboard.press('Escape');
    await site.pass(1);
    await expect(site.message).toHaveCount(0);
    await expect(site.page.locator('body')).not.toHaveClass(/overview/);
    // The page has its keys back.
    await site.page.keyboard.press(name === 'slides' ? 'n' : 'x');
    await expect
      .poll(() => site.page.evaluate(() => document.body.dataset.slide ?? document.body.dataset.keys))
      .toMatch(/^[1x]/);
  });
}

test('a message that does not have the focus leaves Escape to the page that uses it', async ({
  velarium,
  visitor,
}) => {
  await publish(velarium, { triggers: [{ kind: 'time', seconds: 1 }] });
  const site = await visitForeign(visitor, velarium, 'slides');
  await site.pass(2);
  await expect(site.message).toHaveCount(1);
  await site.page.keyboard.press('Escape');
  await site.pass(1);
  await expect(site.page.locator('body')).toHaveClass(/overview/);
  await expect(site.message).toHaveCount(1);
});

test('one Escape closes one of two messages', async ({ velarium, visitor }) => {
  const anchors = ['bottom-start', 'bottom-end'] as const;
  for (const anchor of anchors)
    await publish(velarium, {
      name: anchor,
      triggers: [{ kind: 'time', seconds: 1 }],
      message: { format: 'flyin', anchor },
    });
  const site = await visitForeign(visitor, velarium, 'article');
  await site.pass(3);
  await expect(site.message).toHaveCount(2);
  await site.page.keyboard.press('Escape');
  await site.pass(1);
  await expect(site.message).toHaveCount(1);
});

test('depth is that of the pane in which an application scrolls, and nothing is reached before it is drawn', async ({
  velarium,
  visitor,
}) => {
  await publish(velarium, { triggers: [{ kind: 'scroll', unit: 'percent', amount: 60 }] });
  const site = await visitForeign(visitor, velarium, 'application');
  await site.pass(2.5);
  await expect(site.message).toHaveCount(0);
  await site.pass(3);
  await expect(site.message).toHaveCount(0);
  const pane = site.page.locator('main');
  await site.page.mouse.move(700, 400);
  const scrollTo = async (top: number) => {
    const from = await pane.evaluate(({ scrollTop }) => scrollTop);
    await site.page.mouse.wheel(0, top - from);
    await expect.poll(() => pane.evaluate(({ scrollTop }) => scrollTop)).toBeCloseTo(top, -1);
    await site.pass(0.5);
  };
  await scrollTo(800);
  await expect(site.message).toHaveCount(0);
  await scrollTo(2400);
  await expect(site.message).toHaveCount(1);
  // A new route is a new page, at its beginning.
  await pane.evaluate((main) => main.scrollTo(0, 0));
  await site.page.getByRole('link', { name: 'Plan' }).click();
  await site.pass(3);
  await expect(site.message).toHaveCount(0);
});

test('of screens that lie on one another only the one in sight is reached', async ({ velarium, visitor }) => {
  await publish(velarium, { triggers: [{ kind: 'element', selector: '#second' }] });
  const site = await visitForeign(visitor, velarium, 'piled');
  await site.pass(3);
  await expect(site.message).toHaveCount(0);
  await site.page.mouse.move(600, 400);
  await site.page.mouse.wheel(0, 200);
  await expect
    .poll(async () => {
      await site.pass(0.5);
      return site.message.count();
    })
    .toBe(1);
});

test('an article ends with its last words', async ({ velarium, visitor }) => {
  await publish(velarium, { triggers: [{ kind: 'articleEnd' }] });
  const site = await visitForeign(visitor, velarium, 'article');
  await site.page.mouse.move(600, 400);
  await site.page.mouse.wheel(0, 1200);
  await expect.poll(() => site.page.evaluate(() => scrollY)).toBe(1200);
  await site.pass(1);
  await expect(site.message).toHaveCount(0);
  await site.page.mouse.wheel(0, 9000);
  await expect
    .poll(async () => {
      await site.pass(0.3);
      return site.message.count();
    })
    .toBe(1);
});

test('above a dialog of the page a modal can be used, a fly-in within it, and both outlive it', async ({
  velarium,
  visitor,
}) => {
  await publish(velarium, { name: 'Corner', triggers: [{ kind: 'event', name: 'corner', condition: null }] });
  await publish(velarium, {
    name: 'Letter',
    template: 'sky-letter',
    triggers: [{ kind: 'event', name: 'letter', condition: null }],
  });
  const site = await visitForeign(visitor, velarium, 'dialogs');
  const happens = async (name: string) => {
    await site.page.evaluate(
      (event) => (window as unknown as { velarium: { event(name: string): void } }).velarium.event(event),
      name,
    );
    await expect
      .poll(async () => {
        await site.pass(0.5);
        return site.message.count();
      })
      .toBe(1);
  };
  await site.page.getByRole('button', { name: 'Open' }).click();
  await happens('corner');
  await site.message.getByRole('button', { name: 'Close' }).click({ trial: true });
  await site.page.getByRole('button', { name: 'Fine' }).click();
  await site.pass(0.5);
  await site.message.getByRole('button', { name: 'Close' }).click();
  await site.pass(1);
  await expect(site.message).toHaveCount(0);

  await site.page.getByRole('button', { name: 'Open' }).click();
  await happens('letter');
  // It comes to the front, and takes the focus, when it has been painted.
  await site.takesFocus();
  const field = site.dialog.getByLabel('Your mail address');
  await field.fill('lark@example.org');
  await expect(field).toHaveValue('lark@example.org');
  await site.page.keyboard.press('Escape');
  await site.pass(1);
  await expect(site.message).toHaveCount(0);
  // The page's own dialog is another thing, and still there.
  await expect(site.page.getByText('Cookies of this page')).toBeVisible();
});

test('a page that pulls the focus back does not get it from a form, and there is no fight', async ({
  velarium,
  visitor,
}) => {
  await publish(velarium, { template: 'sky-letter', triggers: [{ kind: 'time', seconds: 2 }] });
  const site = await visitForeign(visitor, velarium, 'dialogs');
  await site.page.evaluate(() => (window as unknown as { setTrap(): void }).setTrap());
  await site.pass(3);
  await expect(site.dialog).toBeVisible();
  await site.pass(0.2);
  const field = site.dialog.getByLabel('Your mail address');
  await field.click();
  await site.page.keyboard.type('lark@example.org');
  await expect(field).toHaveValue('lark@example.org');
  expect(await site.page.evaluate(() => (window as unknown as { pulls?: number }).pulls ?? 0)).toBeLessThan(
    10,
  );
});

test('the page behind a modal stands still under keys and wheel, wherever in the message the focus is', async ({
  velarium,
  visitor,
}) => {
  await publish(velarium, { template: 'sky-letter', triggers: [{ kind: 'time', seconds: 0 }] });
  const site = await visitForeign(visitor, velarium, 'article');
  await site.takesFocus();
  const { page } = site;
  const scrolled = () => page.evaluate(() => scrollY);
  const keys = ['PageDown', 'ArrowDown', 'End'];
  // Round the whole message: its field, its buttons, its box.
  for (let stop = 0; stop < 5; stop++) {
    for (const key of keys) await page.keyboard.press(key);
    await page.keyboard.press('Tab');
  }
  for (const [x, y] of [
    [640, 400],
    [20, 400],
    [1272, 780],
  ] as const) {
    await page.mouse.move(x, y);
    await page.mouse.wheel(0, 500);
  }
  await site.pass(0.5);
  expect(await scrolled()).toBe(0);
  // To enlarge the page is no scrolling.
  const held = await page.evaluate(() => {
    const layer = document.querySelector('velarium-message')?.shadowRoot?.querySelector('.layer') as Element;
    const finger = (identifier: number) => new Touch({ identifier, target: layer });
    const all = { bubbles: true, cancelable: true, composed: true };
    return [
      new WheelEvent('wheel', all),
      new WheelEvent('wheel', { ...all, ctrlKey: true }),
      new TouchEvent('touchmove', { ...all, touches: [finger(1)] }),
      new TouchEvent('touchmove', { ...all, touches: [finger(1), finger(2)] }),
    ].map((event) => !layer.dispatchEvent(event));
  });
  expect(held).toEqual([true, false, true, false]);
  // What holds it goes with the message.
  await page.keyboard.press('Escape');
  await site.pass(1);
  await expect(site.message).toHaveCount(0);
  for (const key of keys) await page.keyboard.press(key);
  await expect
    .poll(async () => {
      await site.pass(0.1);
      return scrolled();
    })
    .toBeGreaterThan(400);
});

test('what fills the whole screen is not covered; the message comes when it is over', async ({
  velarium,
  visitor,
}) => {
  await publish(velarium, { triggers: [{ kind: 'time', seconds: 2 }] });
  const site = await visitForeign(visitor, velarium, 'article');
  await site.page.evaluate(() => {
    const article = document.querySelector('article');
    article?.addEventListener('click', () => void article.requestFullscreen());
  });
  await site.page.getByText('One.').click();
  await expect.poll(() => site.page.evaluate(() => document.fullscreenElement?.tagName)).toBe('ARTICLE');
  await site.pass(5);
  await site.shows(0);
  await site.page.evaluate(() => document.exitFullscreen());
  await expect
    .poll(async () => {
      await site.pass(0.3);
      return site.message.count();
    })
    .toBe(1);
});

test('a dialog that the page opens above a modal message has its own keys', async ({ velarium, visitor }) => {
  await publish(velarium, { template: 'sky-letter', triggers: [{ kind: 'time', seconds: 1 }] });
  const site = await visitForeign(visitor, velarium, 'dialogs');
  await site.pass(2);
  await expect(site.dialog).toBeVisible();
  // It takes the top of the page two frames after it stands there, and the focus with it.
  await site.takesFocus();
  await site.page.evaluate(() => document.querySelector<HTMLDialogElement>('#own')?.showModal());
  await site.page.keyboard.press('Escape');
  await expect(site.page.getByText('Cookies of this page')).toBeHidden();
  await expect(site.message).toHaveCount(1);
  await site.page.keyboard.press('Escape');
  await site.pass(1);
  await expect(site.message).toHaveCount(0);
});

test('a page that scripts draw stands behind the stage as it was seen, and its own scripts do not run there', async ({
  velarium,
  visitor,
  memberPage: studioPage,
}) => {
  const campaign = await publish(velarium, {
    name: 'Over the planner',
    triggers: [{ kind: 'time', seconds: 600 }],
    reach: {
      pages: { include: [{ kind: 'exact', address: '/pages/application' }], exclude: [], follows: null },
    },
  });
  await openWorkbench(studioPage, velarium, 'Over the planner');
  await expect(studioPage.getByText(/application without its scripts/)).toBeVisible();
  await serveForeign(visitor, velarium);
  const page = await visitor.newPage();
  await page.clock.install();
  // The first time is held up on its way, and must not be kept in place of the second.
  await page.route(
    '**/page-sight',
    async (route) => {
      await new Promise((resolve) => setTimeout(resolve, 500));
      await route.continue();
    },
    { times: 1 },
  );
  // It is told of while it is empty still, and again once it is drawn.
  const told = page.waitForResponse(
    (response) =>
      response.url().endsWith('/page-sight') &&
      response.request().postData()?.includes('<h1>Nights') === true,
  );
  await page.goto(await previewAddress(velarium, `${velarium.fell}/pages/application`, campaign));
  await expect(page.getByRole('region', { name: 'Velarium preview' })).toBeVisible();
  await page.clock.runFor(3000);
  await expect(page.getByRole('heading', { name: 'Nights' })).toBeVisible();
  await page.clock.runFor(2000);
  expect((await told).status()).toBe(204);
  await studioPage.reload();
  await expect(studioPage.getByText(/application as it was seen just now/)).toBeVisible();
  const behind = studioPage.frameLocator('iframe[title="The page behind"]').first();
  await expect(behind.locator('h1')).toHaveText('Nights');
  await expect(behind.locator('main')).toHaveCSS('overflow-y', 'auto');
  await expect(behind.locator('script, velarium-panel')).toHaveCount(0);
});
