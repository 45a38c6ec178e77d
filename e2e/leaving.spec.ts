import { flick } from './lib/gestures.ts';
import { ARTICLE, expectOpen, expectShut, on, phone, test } from './lib/open.ts';
import { expect, type SitePage } from './lib/velarium.ts';

test.describe('leaving by mouse', () => {
  const leave = on({ kind: 'exitMouse', certainty: 'certain' });

  test('through the top edge, once armed; sideways is no leaving; and it is told what opened it', async ({
    open,
    velarium,
  }) => {
    const site = await open(on({ kind: 'time', seconds: 500 }, { kind: 'exitMouse', certainty: 'certain' }));
    const byMouse = "SELECT 1 FROM event WHERE kind = 'shown' AND cause = 'exitMouse'";
    const before = await velarium.query(byMouse);
    const { mouse } = site.page;
    await mouse.move(640, 200);
    await mouse.move(640, -10, { steps: 4 });
    await expectShut(site);
    await site.pass(3);
    await mouse.move(640, 200);
    await mouse.move(-10, 300, { steps: 4 });
    await expectShut(site);
    await mouse.move(640, 200);
    await mouse.move(640, 5, { steps: 4 });
    await expectShut(site);
    await mouse.move(640, -10, { steps: 2 });
    await expectOpen(site);
    await expect
      .poll(async () => {
        await site.pass(1);
        return velarium.query(byMouse);
      })
      .toHaveLength(before.length + 1);
  });

  test('a touch never makes one', async ({ open, browser }) => {
    const site = await open(leave, ARTICLE, await phone(browser));
    await site.pass(4);
    await site.page.touchscreen.tap(200, 2);
    await flick(site.page, 300, 2);
    await expectShut(site);
  });

  test('an early sign is enough where it is asked for', async ({ open }) => {
    const site = await open(on({ kind: 'exitMouse', certainty: 'early' }));
    await site.pass(4);
    await site.page.mouse.move(640, 400);
    await site.pass(2);
    // Slow: the same way in two seconds.
    await site.page.mouse.move(640, 120);
    await expectShut(site);
    await site.page.mouse.move(640, 420);
    // Fast: three hundred pixels with no time between but what the browser itself takes.
    await site.page.clock.runFor(16);
    await site.page.mouse.move(640, 90);
    await expectOpen(site);
  });
});

test.describe('leaving by touch', () => {
  test('a quick scroll up after a screen down', async ({ open, browser }) => {
    const site = await open(on({ kind: 'exitTouch', by: 'scrollUp' }), ARTICLE, await phone(browser));
    await site.pass(4);
    for (let n = 0; n < 4; n++) await flick(site.page, 700, 100);
    await expect.poll(() => site.page.evaluate(() => scrollY)).toBeGreaterThan(900);
    await expectShut(site);
    await site.pass(1);
    await flick(site.page, 100, 700);
    await expect
      .poll(() => site.message.count().then(async (n) => (n === 0 ? site.pass(0.1).then(() => 0) : n)))
      .toBe(1);
  });

  /** Going back may take the page away before it has answered. */
  const goBack = ({ page }: SitePage) => page.evaluate(() => history.back()).catch(() => {});

  test('the back gesture holds once and only after a tap; the second one leaves', async ({
    open,
    velarium,
    browser,
  }) => {
    const context = await phone(browser);
    const site = await open(on({ kind: 'exitTouch', by: 'back' }), '/about', context);
    await site.go(velarium.fell + ARTICLE);
    await site.pass(4);
    await site.page.touchscreen.tap(200, 400);
    await goBack(site);
    await site.pass(0.2);
    await expect(site.page).toHaveURL(velarium.fell + ARTICLE);
    await expectOpen(site);
    await goBack(site);
    await expect(site.page).toHaveURL(`${velarium.fell}/about`);
  });
});
