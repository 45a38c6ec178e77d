import type { BrowserContext, Page } from '@playwright/test';
import type { Message } from '@velarium/contract';
import { picturesOf, TEMPLATES } from '@velarium/core';
import { publish, restAll } from './lib/api.ts';
import {
  type DeviceName,
  deviceOptions,
  expectSamePicture,
  groundsReady,
  newEmptied,
  openEmptied,
  paintedPicture,
  picturesReady,
} from './lib/same-picture.ts';
import { test as base, expect, newVisitor, rulesFor, signIn } from './lib/velarium.ts';

/** A window of the studio in which every device of the stage has room at its real size. */
const WIDE = { width: 1290, height: 1190 };
const NOON = new Date('2026-11-25T12:00:00Z');
const DEVICES = ['desktop', 'tablet', 'phone'] as const;

/** A browser of a viewer, whose stage is without the marks of editing; it has the studio's code at hand for every template. */
const test = base.extend<{ atNoon: BrowserContext }, { viewer: BrowserContext }>({
  viewer: [
    async ({ browser, worker }, use) => {
      const context = await browser.newContext({ viewport: WIDE, reducedMotion: 'reduce' });
      worker.keeps.add(context);
      await context.clock.setFixedTime(NOON);
      await use(context);
      await context.close();
    },
    { scope: 'worker' },
  ],
  atNoon: async ({ viewer }, use) => {
    await use(viewer);
    for (const page of viewer.pages()) await page.close();
  },
});

/** Pictures behind the words are the sheet's, and nobody tells when they are there. */
const hasGround = (message: Message) => message.style.all.ground?.kind === 'picture';

/** The window of the stage, painted in the corner of the screen and in no layer of its own: on whole pixels. */
async function pictureOnStage(stage: Page, device: DeviceName, message: Message): Promise<Buffer> {
  const frame = stage.locator(`iframe[title="Message on ${device}"]`);
  await expect(frame.contentFrame().locator('.card')).toBeVisible();
  await frame
    .contentFrame()
    .locator('body')
    .evaluate(async ({ ownerDocument }) => {
      const images = ownerDocument.querySelector('velarium-message')?.shadowRoot?.querySelectorAll('img');
      await Promise.all([...(images ?? [])].map((image) => image.decode()));
      await ownerDocument.fonts.ready;
    });
  if (hasGround(message)) await groundsReady(frame.contentFrame().locator('velarium-message'));
  // No hovered button in the picture.
  await stage.mouse.move(WIDE.width - 1, WIDE.height - 1);
  const pin = (figure: string, own: string) =>
    frame.evaluate(
      (element, [css, transform]) => {
        (element.closest('figure') as HTMLElement).style.cssText = css;
        (element.parentElement as HTMLElement).style.transform = transform;
        const { contentDocument } = element as HTMLIFrameElement;
        if (contentDocument) contentDocument.documentElement.style.background = '#fff';
      },
      [figure, own] as const,
    );
  await pin('position:fixed;left:0;top:0;z-index:99', 'none');
  const picture = await frame.screenshot();
  await pin('', 'scale(1)');
  return picture;
}

/** Nothing automatic rules can find is wrong with any step of the message on the stage. */
async function expectEveryStepAccessible(stage: Page): Promise<void> {
  const frame = 'iframe[title="Message on desktop"]';
  const steps = stage.locator('fieldset', { hasText: 'Steps' }).getByRole('button');
  for (let n = 0; n < (await steps.count()); n++) {
    await steps.nth(n).click();
    await expect(stage.locator(frame).contentFrame().locator('.card')).toBeVisible();
    const { violations } = await rulesFor(stage).include([frame, 'velarium-message']).analyze();
    const found = violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html).join(' | ')}`);
    expect.soft(found).toEqual([]);
  }
  await steps.first().click();
}

for (const { id, name, message } of TEMPLATES) {
  test(`the template ${name}: what the stage shows is what pages show, and everybody can use it`, async ({
    velarium,
    browser,
    atNoon,
  }, testInfo) => {
    await restAll(velarium);
    const [site] = await velarium.query<{ id: string }>('SELECT id FROM site ORDER BY created_at LIMIT 1');
    const campaign = await publish(velarium, { template: id });

    const stage = await atNoon.newPage();
    await signIn(stage, velarium, 'wren@quillonfell.example', `/sites/${site?.id}/campaigns/${campaign}`);
    await stage.getByRole('button', { name: /^Real size/ }).click();
    await stage.getByRole('button', { name: /^Page behind/ }).click();
    if (/\{\{(visitor|basket)/.test(JSON.stringify(message))) {
      await stage.getByRole('combobox', { name: 'Read as' }).click();
      await stage.getByRole('option', { name: /nothing is known/ }).click();
    }
    await stage.addStyleTag({
      content:
        'section[aria-label=Stage] figure [aria-hidden]{display:none} section[aria-label=Stage] figure>div{background:#fff!important;box-shadow:none!important;border-radius:0!important}',
    });
    const pictures = {
      desktop: await pictureOnStage(stage, 'desktop', message),
      phone: await pictureOnStage(stage, 'phone', message),
      tablet: Buffer.alloc(0) as Buffer,
    };
    await expectEveryStepAccessible(stage);
    await stage.getByRole('button', { name: /^Tablet/ }).click();
    pictures.tablet = await pictureOnStage(stage, 'tablet', message);

    const compare = async (device: DeviceName) => {
      const context = await newVisitor(browser, deviceOptions(device));
      await context.clock.setFixedTime(NOON);
      const page = await newEmptied(context);
      await openEmptied(page, `${velarium.fell}/about`);
      await expect(page.locator('velarium-message .card')).toBeVisible();
      await picturesReady(page);
      if (hasGround(message)) await groundsReady(page.locator('velarium-message'));
      // The short fade of those who ask for less motion runs by the real clock, and begins a frame after the box is there.
      await expect
        .poll(() =>
          page.locator('velarium-message').evaluate(async (host) => {
            await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
            const { shadowRoot } = host;
            const parts = [...(shadowRoot?.querySelectorAll('.layer,.box') ?? [])];
            return (
              (shadowRoot?.getAnimations().length ?? 0) +
              parts.filter((part) => getComputedStyle(part).opacity !== '1').length
            );
          }),
        )
        .toBe(0);
      await expectSamePicture(testInfo, `${name}, ${device}`, {
        stage: pictures[device],
        page: await paintedPicture(page),
        hasDrawing: picturesOf(message).length > 0,
      });
    };
    await Promise.all(DEVICES.map(compare));
  });
}
