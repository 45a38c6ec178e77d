import type { BrowserContext } from '@playwright/test';
import { TEMPLATES } from '@velarium/core';
import sharp from 'sharp';
import { publish, restAll } from './lib/api.ts';
import {
  deviceOptions,
  expectSamePicture,
  newEmptied,
  paintedPicture,
  picturesReady,
} from './lib/same-picture.ts';
import { test as base, expect, newVisitor } from './lib/velarium.ts';

const NOON = new Date('2026-11-25T12:00:00Z');
const DEVICES = ['desktop', 'phone'] as const;

/**
 * What has no side of its own: without words, with every picture a plain field and a line around everything that has a place, a
 * message written from right to left is the mirror of the same message written from left to right.
 */
const BARE = `
  *, *::before, *::after, *::placeholder { color: transparent !important; text-decoration-color: transparent !important }
  img { object-position: -9999px !important; background: #777 !important }
  svg { visibility: hidden !important }
  .box, .layer, .card { background-image: none !important }
  * { caret-color: transparent !important; box-shadow: none !important }
  button, img, h1, h2, h3, p, ul, input, select, textarea, form, label, .close, .inner { outline: 2px solid #b0b !important; outline-offset: -2px !important }`;

type Direction = 'ltr' | 'rtl';
type Windows = (device: (typeof DEVICES)[number], direction: Direction) => BrowserContext;

/** A browser for each device and direction, which has the tag at hand for every template. */
const test = base.extend<object, { windows: Windows }>({
  windows: [
    async ({ browser, worker }, use) => {
      const made = new Map<string, BrowserContext>();
      for (const device of DEVICES)
        for (const direction of ['ltr', 'rtl'] as const) {
          const context = await newVisitor(browser, deviceOptions(device));
          worker.keeps.add(context);
          await context.clock.setFixedTime(NOON);
          // A page that was not fetched has no address, and one without may not reach this machine's own.
          await context.grantPermissions(['local-network-access']);
          await context.route(`${worker.fell}/bare`, (route) =>
            route.fulfill({
              contentType: 'text/html',
              body: `<!doctype html><html lang="en" dir="${direction}"><meta name="viewport" content="width=device-width"><title>Bare</title><body style="margin:0"><script async src="${worker.edge}/tag/quillonfell2.js"></script></body></html>`,
            }),
          );
          made.set(device + direction, context);
        }
      await use((device, direction) => made.get(device + direction) as BrowserContext);
      for (const context of made.values()) await context.close();
    },
    { scope: 'worker' },
  ],
});

for (const { id, name } of TEMPLATES) {
  test(`the template ${name}, written from right to left, is its own mirror`, async ({
    velarium,
    windows,
  }, testInfo) => {
    await restAll(velarium);
    await publish(velarium, { template: id });
    const pictureIn = async (device: (typeof DEVICES)[number], direction: Direction) => {
      const page = await newEmptied(windows(device, direction));
      await page.goto(`${velarium.fell}/bare`);
      const message = page.locator('velarium-message');
      await expect(message.locator('.card')).toBeVisible();
      await expect(message.locator('.layer')).toHaveCSS('direction', direction);
      await picturesReady(page);
      await message.evaluate((host, css) => {
        const sheet = new CSSStyleSheet();
        sheet.replaceSync(css);
        host.shadowRoot?.adoptedStyleSheets.push(sheet);
        // No ring of the focus, which goes where a page begins.
        (document.activeElement as HTMLElement | null)?.blur();
      }, BARE);
      await expect
        .poll(() => message.evaluate(({ shadowRoot }) => shadowRoot?.getAnimations().length ?? 0))
        .toBe(0);
      // Nothing is cut off, whichever way it is written.
      expect(
        await message.evaluate(({ shadowRoot }) =>
          [...(shadowRoot?.querySelectorAll('button, a, label, h1, h2, h3, p') ?? [])]
            .filter((one) => one.checkVisibility({ visibilityProperty: true }))
            .filter((one) => {
              const { left, right } = one.getBoundingClientRect();
              return left < -1 || right > innerWidth + 1;
            })
            .map(({ outerHTML }) => outerHTML),
        ),
      ).toEqual([]);
      // From the side that is read from.
      const places = await message.evaluate(
        ({ shadowRoot }, isRtl) =>
          [
            ...(shadowRoot?.querySelectorAll('.card,.inner,.close,button,img,input,select,textarea') ?? []),
          ].flatMap((one) => {
            const { left, right } = one.getBoundingClientRect();
            // What this device does not show has no place.
            return right > left ? Math.round(isRtl ? innerWidth - right : left) : [];
          }),
        direction === 'rtl',
      );
      const picture = await paintedPicture(page);
      await page.close();
      return { picture, places };
    };
    const compare = async (device: (typeof DEVICES)[number]) => {
      const [ltr, rtl] = await Promise.all([pictureIn(device, 'ltr'), pictureIn(device, 'rtl')]);
      const far = ltr.places.filter((place, n) => Math.abs(place - (rtl.places[n] ?? Number.NaN)) > 1);
      expect.soft(far, `${name}, ${device}`).toEqual([]);
      await expectSamePicture(testInfo, `${name}, ${device}`, {
        stage: ltr.picture,
        page: await sharp(rtl.picture).flop().png().toBuffer(),
        hasDrawing: true,
      });
    };
    await Promise.all(DEVICES.map(compare));
  });
}
