import type { Page } from '@playwright/test';
import { restAll } from '../lib/api.ts';
import { recordsOf } from '../lib/standins.ts';
import { expect, newVisitor, test, type Velarium, visit } from '../lib/velarium.ts';
import { beginCampaign, launch, say, sentence } from '../lib/workbench.ts';

test.use({ ground: 'page' });

/** A bar at the top after five seconds, for which the page makes room. */
async function launchBarThatMakesRoom(page: Page, velarium: Velarium): Promise<void> {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Notice', /Countdown strip/);
  await page.getByText('The page behind', { exact: true }).click();
  const makesRoom = page.getByRole('switch', { name: 'Makes room for it' });
  if (!(await makesRoom.isChecked())) await makesRoom.click();
  await page.getByRole('group', { name: 'Place' }).getByLabel('top', { exact: true }).check();
  await say(page, 'after 5 seconds, everywhere, on every device, every time');
  await launch(page);
}

test('J17 a bar with a countdown for which the page makes room, at the top, at the bottom, at rest; with a form, kept for a service', async ({
  memberPage: page,
  velarium,
  browser,
}) => {
  await launchBarThatMakesRoom(page, velarium);
  const visitor = await newVisitor(browser);
  await visitor.addInitScript(() => {
    const page = window as unknown as { shifted: number };
    page.shifted = 0;
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) page.shifted += (entry as unknown as { value: number }).value;
    }).observe({ type: 'layout-shift' });
    // The site lets no inline style in, so the sheet is a constructed one.
    const sheet = new CSSStyleSheet();
    sheet.replaceSync('header { position: fixed; inset-block-start: 0; inset-inline: 0 }');
    document.adoptedStyleSheets = [sheet];
  });
  const site = await visit(visitor, `${velarium.fell}/about`);
  await expect(site.message).toHaveCount(0);
  // What the page itself has moved while it loaded (a sheet that came after its first painting) is not the bar's.
  const shifted = () => site.page.evaluate(() => (window as unknown as { shifted: number }).shifted);
  const ofItsOwn = await shifted();
  await site.pass(5);
  await expect(site.message.getByRole('timer')).toBeVisible();
  // Room is made without a layout shift, and what is fixed to the edge stays within reach.
  await site.pass(0.5);
  const bar = site.message.locator('.box');
  const header = site.page.locator('header');
  await expect
    .poll(async () => {
      const [of, above] = [await header.boundingBox(), await bar.boundingBox()];
      return Math.round((of?.y ?? 0) - (above?.y ?? 0) - (above?.height ?? 0));
    })
    .toBe(0);
  await site.page.locator('header a').first().click({ trial: true });
  expect(await shifted()).toBe(ofItsOwn);
  // In a narrower window the bar breaks its lines anew, twice before the page is drawn; its room follows, and is all that is left.
  const { transform } = await site.page.evaluate(() => ({ transform: document.body.style.transform }));
  await site.page.setViewportSize({ width: 420, height: 800 });
  await expect.poll(async () => (await bar.boundingBox())?.height).toBeGreaterThan(60);
  await site.page.setViewportSize({ width: 1280, height: 800 });
  await expect.poll(async () => Math.round((await bar.boundingBox())?.height ?? 0)).toBe(60);
  // Whoever watches the bar's size hears of the last one when the page is drawn, and is done two drawings later.
  await expect
    .poll(async () => {
      await site.pass(0.1);
      return site.page.evaluate(() => document.body.style.transform);
    })
    .toBe(transform);
  await site.page.mouse.click(600, 500);
  const room = () =>
    site.page.evaluate(() => {
      const { paddingTop, paddingBottom } = getComputedStyle(document.body);
      return { top: Number.parseFloat(paddingTop) || 0, bottom: Number.parseFloat(paddingBottom) || 0 };
    });
  expect((await room()).top).toBeGreaterThan(20);

  await page.getByRole('link', { name: 'Notice', exact: true }).click();
  await page.getByRole('group', { name: 'Place' }).getByLabel('bottom', { exact: true }).check();
  await expect(sentence(page)).toContainText('A bar at the bottom');
  await launch(page);
  await site.go(`${velarium.fell}/contact`);
  await site.pass(5);
  await site.page.mouse.click(600, 300);
  await expect.poll(async () => (await room()).bottom).toBeGreaterThan(20);

  await page.getByRole('button', { name: 'Actions for Notice' }).click();
  await page.getByRole('menuitem', { name: 'Rest' }).click();
  await expect(page.getByText('“Notice” is resting.')).toBeVisible();
  const after = await visit(await newVisitor(browser), `${velarium.fell}/about`);
  await after.pass(6);
  await expect(after.message).toHaveCount(0);

  // With a form; what is answered is kept here until a service is connected, and goes to it then.
  await beginCampaign(page, velarium, 'Notice with a form', /Sky letter/);
  await page.getByRole('button', { name: 'The box' }).click();
  await page.getByRole('combobox', { name: 'Format' }).click();
  await page.getByRole('option', { name: 'Bar' }).click();
  await say(page, 'at once, everywhere, on every device, every time');
  await launch(page);
  await after.reload();
  await after.pass(0.5);
  await expect(after.message).toHaveCount(1);
  await after.pass(5);
  await after.page.getByLabel('Your mail address').fill('keir@example.org');
  await after.page.getByRole('checkbox').check();
  await after.page.getByRole('button', { name: 'Send me the sky' }).click();
  await expect(after.message).toContainText('Clear skies');
  await page.getByRole('link', { name: 'People', exact: true }).click();
  await expect(page.getByRole('row', { name: /keir@example\.org/ })).toBeVisible();
  await page.getByRole('link', { name: 'Outbox', exact: true }).click();
  await page.getByRole('tab', { name: 'Connections' }).click();
  await page.getByRole('button', { name: 'Connect a service' }).click();
  const connect = page.getByRole('dialog', { name: 'Connect a service' });
  await connect.getByRole('radio', { name: 'A request shaped by hand' }).check();
  await connect.getByLabel('Name', { exact: true }).fill('Customer records');
  await connect.getByLabel('Address').fill(`${velarium.standins}/records`);
  await connect.getByRole('button', { name: 'Connect', exact: true }).click();
  await page.getByRole('button', { name: 'Actions for Customer records' }).click();
  await page.getByRole('menuitem', { name: 'Send it the answers there are' }).click();
  await expect(page.getByText(/that it had not heard of are on the way/)).toBeVisible();
  await expect
    .poll(async () => (await recordsOf(velarium)).map(({ body }) => (body as { email: string }).email))
    .toContain('keir@example.org');
});

test('a bar that opens on a page scrolled down moves nothing that is read, and what is fixed stays beside it', async ({
  memberPage: page,
  velarium,
  browser,
}) => {
  await launchBarThatMakesRoom(page, velarium);
  const site = await visit(await newVisitor(browser), `${velarium.fell}/about`);
  await site.page.evaluate(() => {
    const sheet = new CSSStyleSheet();
    sheet.replaceSync(
      'header { position: fixed; inset: 0 0 auto } main { padding-bottom: 3000px } html { scroll-behavior: smooth }',
    );
    document.adoptedStyleSheets = [sheet];
    scrollTo({ top: 300, behavior: 'instant' });
  });
  const stands = () =>
    site.page.evaluate(() => {
      const top = (name: string) => document.querySelector(name)?.getBoundingClientRect().top;
      return { read: top('main p'), header: top('header'), body: document.body.style.cssText, at: scrollY };
    });
  const before = await stands();
  await expect(site.message).toHaveCount(0);
  await site.pass(5);
  await expect(site.message.getByRole('timer')).toBeVisible();
  const height = Math.round((await site.message.locator('.box').boundingBox())?.height ?? 0);
  expect(await stands()).toEqual({
    read: before.read,
    header: height,
    body: `padding-top: ${height}px !important;`,
    at: before.at + height,
  });
  await site.message.getByRole('button', { name: 'Close' }).click();
  await site.pass(0.5);
  await expect.poll(stands).toEqual(before);
});
