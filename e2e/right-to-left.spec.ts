import { fileURLToPath } from 'node:url';
import type { Browser, Page } from '@playwright/test';
import type { LookStyle } from '@velarium/contract';
import { TEMPLATES } from '@velarium/core';
import { build } from 'esbuild';
import { deviceOptions, expectSamePicture, paintedPicture, picturesReady } from './lib/same-picture.ts';
import { expect, newVisitor, test, type Worker } from './lib/velarium.ts';

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
/** A page for each device and direction, which draws one template after another, in the site's Look. */
interface Windows {
  readonly pages: ReadonlyMap<string, Page>;
  readonly look: LookStyle;
}
let windows: Windows | undefined;

async function openWindows(browser: Browser, worker: Worker): Promise<Windows> {
  const [kept] = windows?.pages.values() ?? [];
  if (windows && kept && worker.keeps.has(kept.context())) return windows;
  const { outputFiles } = await build({
    entryPoints: [fileURLToPath(new URL('lib/draw-template.ts', import.meta.url))],
    bundle: true,
    format: 'iife',
    write: false,
  });
  const [look] = await worker.query<{ style: LookStyle }>('SELECT style FROM look WHERE is_default LIMIT 1');
  const pages = new Map<string, Page>();
  for (const device of DEVICES)
    for (const direction of ['ltr', 'rtl'] as const) {
      const context = await newVisitor(browser, deviceOptions(device));
      worker.keeps.add(context);
      await context.clock.setFixedTime(NOON);
      const page = await context.newPage();
      await page.setContent(
        `<!doctype html><html lang="en" dir="${direction}"><meta name="viewport" content="width=device-width"><title>Bare</title><body style="margin:0"></body></html>`,
      );
      await page.addScriptTag({ content: outputFiles[0]?.text ?? '' });
      pages.set(device + direction, page);
    }
  windows = { pages, look: look?.style as LookStyle };
  return windows;
}

for (const { id, name } of TEMPLATES) {
  test(`the template ${name}, written from right to left, is its own mirror`, async ({
    asLeft: worker,
    browser,
  }, testInfo) => {
    const { pages, look } = await openWindows(browser, worker);
    const pictureIn = async (device: (typeof DEVICES)[number], direction: Direction) => {
      const page = pages.get(device + direction) as Page;
      await page.evaluate((drawing) => window.drawTemplate(drawing), {
        template: id,
        look,
        device: device === 'phone' ? ('mobile' as const) : device,
        pictureBase: worker.edge,
      });
      const message = page.locator('velarium-message');
      await expect(message.locator('.layer')).toHaveCSS('direction', direction);
      await picturesReady(page);
      await message.evaluate((host, css) => {
        const sheet = new CSSStyleSheet();
        sheet.replaceSync(css);
        host.shadowRoot?.adoptedStyleSheets.push(sheet);
      }, BARE);
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
      expect(places.length).toBeGreaterThan(1);
      return { picture: await paintedPicture(page, direction === 'rtl'), places };
    };
    const compare = async (device: (typeof DEVICES)[number]) => {
      const [ltr, rtl] = await Promise.all([pictureIn(device, 'ltr'), pictureIn(device, 'rtl')]);
      const far = ltr.places.filter((place, n) => Math.abs(place - (rtl.places[n] ?? Number.NaN)) > 1);
      expect.soft(far, `${name}, ${device}`).toEqual([]);
      expectSamePicture(testInfo, `${name}, ${device}`, {
        one: ltr.picture,
        other: rtl.picture,
        hasDrawing: true,
      });
    };
    await Promise.all(DEVICES.map(compare));
  });
}
