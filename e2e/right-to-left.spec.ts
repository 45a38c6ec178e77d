import { TEMPLATES } from '@velarium/core';
import sharp from 'sharp';
import { publish, restAll } from './lib/api.ts';
import {
  deviceOptions,
  expectSamePicture,
  newEmptied,
  openEmptied,
  paintedPicture,
  picturesReady,
} from './lib/same-picture.ts';
import { expect, newVisitor, test } from './lib/velarium.ts';

const NOON = new Date('2026-11-25T12:00:00Z');
const DEVICES = ['desktop', 'phone'] as const;

/**
 * What has no side of its own: without words, and with every picture a plain field, a message written from right to left is
 * the mirror of the same message written from left to right.
 */
const BARE = `
  *, *::before, *::after, *::placeholder { color: transparent !important; text-decoration-color: transparent !important }
  img { object-position: -9999px !important; background: #777 !important }
  svg { visibility: hidden !important }
  .box, .layer, .card { background-image: none !important }
  * { caret-color: transparent !important; box-shadow: none !important }`;

for (const { id, name } of TEMPLATES) {
  test(`the template ${name}, written from right to left, is its own mirror`, async ({
    velarium,
    browser,
  }, testInfo) => {
    await restAll(velarium);
    await publish(velarium, { template: id });
    const pictureIn = async (device: (typeof DEVICES)[number], direction: 'ltr' | 'rtl') => {
      const context = await newVisitor(browser, deviceOptions(device));
      await context.clock.setFixedTime(NOON);
      const page = await newEmptied(context);
      await page.addInitScript((dir) => {
        new MutationObserver((_, observer) => {
          observer.disconnect();
          document.documentElement.dir = dir;
        }).observe(document, { childList: true });
      }, direction);
      await openEmptied(page, `${velarium.fell}/about`);
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
      const picture = await paintedPicture(page);
      await context.close();
      return picture;
    };
    for (const device of DEVICES) {
      const [ltr, rtl] = await Promise.all([pictureIn(device, 'ltr'), pictureIn(device, 'rtl')]);
      await expectSamePicture(testInfo, `${name}, ${device}`, {
        stage: ltr,
        page: await sharp(rtl).flop().png().toBuffer(),
        hasDrawing: true,
      });
    }
  });
}
