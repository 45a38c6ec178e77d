import type { Browser, BrowserContextOptions, Page } from '@playwright/test';
import type { Message } from '@velarium/contract';
import { picturesOf, TEMPLATES } from '@velarium/core';
import { accessibilityFaults } from './lib/accessibility.ts';
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
  readPicture,
} from './lib/same-picture.ts';
import { bringSession, expect, lookAtStages, newVisitor, test, type Worker } from './lib/velarium.ts';
import { openPlace } from './lib/workbench.ts';

/** A window of the studio in which every device of the stage has room at its real size. */
const WIDE = { width: 1290, height: 1190 };
const DEVICES = ['desktop', 'tablet', 'phone'] as const;

/** What counts down says the same on both sides; nothing waits for the date, so timers go on as they do. */
function standStill(): void {
  const noonMs = Date.UTC(2026, 10, 25, 12);
  const Living = Date;
  window.Date = new Proxy(Living, {
    construct: (_, said) => Reflect.construct(Living, said.length > 0 ? said : [noonMs]),
    get: (target, name) => (name === 'now' ? () => noonMs : Reflect.get(target, name)),
  });
}

/**
 * Windows that stay open from template to template, with the code at hand: the stage of a viewer, which is without the marks of
 * editing, and a visitor's page for each device.
 */
interface Windows {
  readonly stage: Page;
  readonly visitorOn: (device: DeviceName) => Page;
}
let windows: Windows | undefined;

/** The windows, and the demo as it was seeded where they are opened: of the template before, only its campaign is in the way. */
async function openWindows(browser: Browser, worker: Worker): Promise<Windows> {
  if (windows && worker.keeps.has(windows.stage.context())) return windows;
  await worker.restore();
  const keep = async (options: BrowserContextOptions) => {
    const context = await newVisitor(browser, options);
    worker.keeps.add(context);
    await context.addInitScript(standStill);
    return context;
  };
  const stage = await (await keep({ viewport: WIDE, reducedMotion: 'reduce' })).newPage();
  await lookAtStages(stage, worker, { ground: 'plain', zoom: 'real' });
  const visitors = new Map<DeviceName, Page>();
  for (const device of DEVICES) visitors.set(device, await newEmptied(await keep(deviceOptions(device))));
  windows = { stage, visitorOn: (device) => visitors.get(device) as Page };
  return windows;
}

/** Goes to a campaign's stage, of which nothing shows but the windows themselves. */
async function showStage(stage: Page, worker: Worker, campaign: string): Promise<void> {
  const isFirst = stage.url() === 'about:blank';
  if (isFirst) await bringSession(stage, worker, 'wren@quillonfell.example');
  await openPlace(stage, worker, `campaigns/${campaign}`);
  if (isFirst)
    await stage.addStyleTag({
      content:
        'section[aria-label=Stage] figure [aria-hidden]{display:none} section[aria-label=Stage] figure>div{background:#fff!important;box-shadow:none!important;border-radius:0!important}',
    });
}

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
    expect.soft(await accessibilityFaults(stage, [frame, 'velarium-message'])).toEqual([]);
  }
  await steps.first().click();
}

for (const { id, name, message } of TEMPLATES) {
  test(`the template ${name}: what the stage shows is what pages show, and everybody can use it`, async ({
    asLeft: worker,
    browser,
  }, testInfo) => {
    const { stage, visitorOn } = await openWindows(browser, worker);
    await restAll(worker);
    const campaign = await publish(worker, { template: id });

    await showStage(stage, worker, campaign);
    if (/\{\{(visitor|basket)/.test(JSON.stringify(message))) {
      await stage.getByRole('combobox', { name: 'Read as' }).click();
      await stage.getByRole('option', { name: /nothing is known/ }).click();
    }
    const desktop = await pictureOnStage(stage, 'desktop', message);
    const phone = await pictureOnStage(stage, 'phone', message);
    await expectEveryStepAccessible(stage);
    await stage.getByRole('button', { name: /^Tablet/ }).click();
    const pictures = { desktop, phone, tablet: await pictureOnStage(stage, 'tablet', message) };

    const compare = async (device: DeviceName) => {
      const page = visitorOn(device);
      await openEmptied(page, `${worker.fell}/about`);
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
      expectSamePicture(testInfo, `${name}, ${device}`, {
        one: await readPicture(pictures[device]),
        other: await paintedPicture(page),
        hasDrawing: picturesOf(message).length > 0,
      });
    };
    await Promise.all(DEVICES.map(compare));
  });
}
