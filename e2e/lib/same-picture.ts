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
    { timeout: 8000 },
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

/** A picture of a page once it has been painted: one that has not is all of one colour, however long it has been there. */
export async function paintedPicture(page: Page): Promise<Buffer> {
  await page.evaluate(() => document.fonts.ready.then(() => true));
  let picture: Buffer = Buffer.alloc(0);
  await expect
    .poll(async () => {
      picture = await page.screenshot();
      const { channels } = await sharp(picture).stats();
      return channels.some(({ stdev }) => stdev > 0);
    })
    .toBe(true);
  return picture;
}

/**
 * A stage is a document within a document, so the browser blends its shadows and veils once more and may round each
 * channel differently by as much; corners drawn with half a pixel may fall on the other half.
 */
const ROUNDING = 2;
const MOST_CORNER_PIXELS = 0.0002;
/** A drawing is painted anew for each layer it stands in, and its finest lines may fall on the neighbouring pixel. */
const MOST_DRAWN_PIXELS = 0.002;

/** Two pictures are the same to the pixel, rounding apart; where they are not, both are kept with the test. */
export async function expectSamePicture(
  testInfo: TestInfo,
  name: string,
  {
    stage,
    page,
    hasDrawing,
  }: { readonly stage: Buffer; readonly page: Buffer; readonly hasDrawing: boolean },
): Promise<void> {
  const [a, b] = await Promise.all(
    [stage, page].map((one) => sharp(one).removeAlpha().raw().toBuffer({ resolveWithObject: true })),
  );
  if (!a || !b) throw new Error('two pictures were expected');
  let different = 0;
  const { width, height } = a.info;
  const isSameSize = width === b.info.width && height === b.info.height;
  for (let at = 0; isSameSize && at < a.data.length; at += 3) {
    const isFar = [0, 1, 2].some((n) => Math.abs((a.data[at + n] ?? 0) - (b.data[at + n] ?? 0)) > ROUNDING);
    if (isFar) different++;
  }
  const most = hasDrawing ? MOST_DRAWN_PIXELS : MOST_CORNER_PIXELS;
  const share = isSameSize ? different / (width * height) : 1;
  if (share > most) {
    writeFileSync(testInfo.outputPath(`${name}, on the stage.png`), stage);
    writeFileSync(testInfo.outputPath(`${name}, on the page.png`), page);
  }
  expect.soft(share, `${name}: ${different} pixels differ`).toBeLessThanOrEqual(most);
}
