import { writeFileSync } from 'node:fs';
import type { BrowserContext, Locator, Page, TestInfo } from '@playwright/test';
import sharp from 'sharp';
import { expect } from './velarium.ts';

const DEVICES = {
  desktop: { width: 1280, height: 800, isTouch: false },
  tablet: { width: 820, height: 1180, isTouch: true },
  phone: { width: 390, height: 844, isTouch: true },
} as const;
export type DeviceName = keyof typeof DEVICES;
export const deviceOptions = (device: DeviceName) => {
  const { width, height, isTouch } = DEVICES[device];
  return {
    viewport: { width, height },
    // Without an animation under way there is one picture to take.
    reducedMotion: 'reduce' as const,
    ...(isTouch ? { isMobile: true, hasTouch: true } : {}),
  };
};

/** A page for visits on which nothing but the message is in the picture; see {@link openEmptied}. */
export async function newEmptied(context: BrowserContext): Promise<Page> {
  const page = await context.newPage();
  // What the stage shows in place of a number that only visitors make.
  await page.route('**/counts/*', (route) =>
    route.fulfill({
      headers: { 'access-control-allow-origin': '*' },
      contentType: 'application/json',
      body: '{"readers":1284,"shares":1284}',
    }),
  );
  // Each message is met as by somebody who has seen none: the site allows a visitor only so many.
  await page.addInitScript(() => localStorage.clear());
  // The stage shows the share sheet whether this browser has one or not.
  await page.addInitScript(() => Object.assign(navigator, { share: () => Promise.resolve() }));
  return page;
}

/** Opens a page of the site and takes everything of its own away but the letters it loads. */
export async function openEmptied(page: Page, address: string): Promise<void> {
  await page.goto(address);
  await page.evaluate(() => {
    const rules = [...document.styleSheets].flatMap(({ cssRules }) => [...cssRules]);
    const letters = new CSSStyleSheet();
    letters.replaceSync(
      rules.flatMap((rule) => (rule instanceof CSSFontFaceRule ? rule.cssText : [])).join('\n'),
    );
    for (const sheet of document.querySelectorAll('link[rel=stylesheet]')) sheet.remove();
    document.adoptedStyleSheets = [letters];
    document.body.replaceChildren();
    document.body.style.cssText = 'margin:0;background:#fff';
  });
}

/** Waits until every picture in every open shadow root of the page has been painted. */
export const picturesReady = (page: Page): Promise<unknown> =>
  page.waitForFunction(
    () =>
      [...document.querySelectorAll('velarium-message')].every((host) =>
        [...(host.shadowRoot?.querySelectorAll('img') ?? [])].every(
          (image) => image.complete && image.naturalWidth > 0,
        ),
      ),
    undefined,
    { timeout: 30_000 },
  );

/** Waits until the pictures that a message's sheet puts behind its words are there. */
export const groundsReady = (message: Locator): Promise<void> =>
  message.evaluate(async ({ shadowRoot }) => {
    const sheets = [...(shadowRoot?.adoptedStyleSheets ?? []), ...(shadowRoot?.styleSheets ?? [])];
    const rules = sheets.flatMap((sheet) => [...sheet.cssRules]).map(({ cssText }) => cssText);
    const addresses = [...rules.join().matchAll(/url\("([^"]+)"\)/g)].map(([, address]) => address as string);
    await Promise.all(
      addresses.map((address) => {
        const picture = new Image();
        picture.src = address;
        return picture.decode();
      }),
    );
  });

/** A picture and its pixels, row by row, three bytes each. */
interface Picture {
  readonly png: Buffer;
  readonly pixels: Buffer;
  readonly width: number;
  readonly height: number;
}

export async function readPicture(png: Buffer, isMirrored = false): Promise<Picture> {
  const { data, info } = await sharp(png)
    .flop(isMirrored)
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { png, pixels: data, width: info.width, height: info.height };
}

/** A picture of a page once it has been painted: one that has not is all of one colour, however long it has been there. */
export async function paintedPicture(page: Page, isMirrored = false): Promise<Picture> {
  await page.evaluate(() => document.fonts.ready.then(() => true));
  for (;;) {
    const picture = await readPicture(await page.screenshot(), isMirrored);
    const { pixels } = picture;
    if (!pixels.subarray(3).equals(pixels.subarray(0, -3))) return picture;
  }
}

/**
 * A stage is a document within a document, so the browser blends its shadows and veils once more and may round each
 * channel differently by as much; corners drawn with half a pixel may fall on the other half.
 */
const ROUNDING = 2;
const MOST_CORNER_PIXELS = 0.0002;
/** A drawing is painted anew for each layer it stands in, and its finest lines may fall on the neighbouring pixel. */
const MOST_DRAWN_PIXELS = 0.002;

/** How many pixels of two pictures of one size are further apart than rounding makes them. */
function differentPixels({ pixels: a }: Picture, { pixels: b }: Picture): number {
  if (a.equals(b)) return 0;
  const isFar = (at: number) => Math.abs((a[at] as number) - (b[at] as number)) > ROUNDING;
  let different = 0;
  for (let at = 0; at < a.length; at += 3) if (isFar(at) || isFar(at + 1) || isFar(at + 2)) different++;
  return different;
}

/** Two pictures are the same to the pixel, rounding apart; where they are not, both are kept with the test. */
export function expectSamePicture(
  testInfo: TestInfo,
  name: string,
  {
    one,
    other,
    hasDrawing,
  }: { readonly one: Picture; readonly other: Picture; readonly hasDrawing: boolean },
): void {
  const { width, height } = one;
  const isSameSize = width === other.width && height === other.height;
  const different = isSameSize ? differentPixels(one, other) : width * height;
  const share = different / (width * height);
  const most = hasDrawing ? MOST_DRAWN_PIXELS : MOST_CORNER_PIXELS;
  if (share > most) {
    writeFileSync(testInfo.outputPath(`${name}, one.png`), one.png);
    writeFileSync(testInfo.outputPath(`${name}, other.png`), other.png);
  }
  expect.soft(share, `${name}: ${different} pixels differ`).toBeLessThanOrEqual(most);
}
