import type { Locator, Page } from '@playwright/test';
import { accessibilityFaults, OVER, overOf } from './lib/accessibility.ts';
import { expect, test } from './lib/velarium.ts';
import { openCampaign, side } from './lib/workbench.ts';

test.use({ ground: 'page' });

/** The places, and what in each opens something over it by a button that does not say so itself. */
const PLACES: Readonly<Record<string, readonly RegExp[]>> = {
  Board: [/^New campaign$/],
  Rehearsal: [],
  Forecast: [],
  Coverage: [],
  Season: [],
  Results: [],
  People: [/^Keeping$/],
  Outbox: [/^Connect a service$/],
  Site: [/^Add a goal$/, /^New (page )?group$/, /^New Look$/, /^Change Night ridge$/],
  Team: [/^Invite/, /^New (access )?token/],
};
const SIZES = [
  { width: 1280, height: 800 },
  { width: 1440, height: 900 },
  { width: 640, height: 400 },
  { width: 390, height: 844 },
] as const;

/**
 * What of a place cannot be reached or read: controls beside the window, and words that end where their box does; and what is
 * written in a size of its own.
 */
const faultsOf = (page: Page): Promise<string[]> =>
  page.evaluate(async () => {
    // What follows the size of the window has followed it.
    await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));
    const found: string[] = [];
    const told = (element: Element, what: string) =>
      found.push(`${what}: ${element.outerHTML.replace(/\s+/g, ' ').slice(0, 140)}`);
    if (document.documentElement.scrollWidth > innerWidth)
      found.push(`${document.documentElement.scrollWidth} wide`);
    if (document.body.textContent?.includes('could not be read')) found.push('something could not be read');
    const here = document.querySelector('nav[aria-label=Places] [aria-current=page]');
    const row = here?.getBoundingClientRect();
    if (here && row && (row.left < 0 || row.right > innerWidth))
      told(here, 'the place one is in, out of sight');
    const scrolls = (element: Element | null): boolean => {
      for (let at = element; at && at !== document.body; at = at.parentElement) {
        const { overflowX } = getComputedStyle(at);
        // What scrolls down alone is not meant to scroll across, though a browser lets it.
        const isMeant = !at.classList.contains('overflow-y-auto');
        if ((overflowX === 'auto' || overflowX === 'scroll') && at.scrollWidth > at.clientWidth && isMeant)
          return true;
      }
      return false;
    };
    const isSeen = (element: Element) =>
      element.checkVisibility({ opacityProperty: true, visibilityProperty: true }) &&
      !element.closest('.sr-only');
    for (const control of document.querySelectorAll(
      'a, button, input, select, textarea, [role=button], [role=tab]',
    )) {
      const { left, right, width } = control.getBoundingClientRect();
      if (
        width > 0 &&
        isSeen(control) &&
        (left < -1 || right > innerWidth + 1) &&
        !scrolls(control.parentElement)
      )
        told(control, 'outside');
      const down = control.closest('.overflow-y-auto');
      if (down && width > 0 && isSeen(control) && !scrolls(control.parentElement)) {
        const edge = down.getBoundingClientRect().left + down.clientLeft + down.clientWidth;
        if (right > edge + 1) told(control, 'beside what scrolls down');
      }
    }
    // What is hidden from readers is no place for the focus; behind a dialog it cannot come there.
    if (!document.querySelector('[role=dialog]'))
      for (const element of document.querySelectorAll(
        '[aria-hidden=true] :is(a, button, input, select, textarea)',
      ))
        if ((element as HTMLElement).tabIndex >= 0 && isSeen(element) && !element.closest('[inert]'))
          told(element, 'hidden, and can have the focus');
    const root = getComputedStyle(document.documentElement);
    const scale = new Set(
      ['xs', 'base', 'lg', 'xl', '2xl', '3xl', '4xl'].map(
        (step) => `${Number.parseFloat(root.getPropertyValue(`--text-${step}`)) * 16}px`,
      ),
    );
    for (const element of document.querySelectorAll('body *')) {
      const holdsText = [...element.childNodes].some(
        (node) => node.nodeType === 3 && node.textContent?.trim(),
      );
      if (!holdsText || !isSeen(element) || element.closest('svg')) continue;
      const { overflowX, textOverflow, fontSize } = getComputedStyle(element);
      if (!scale.has(fontSize)) told(element, `${fontSize} is no size of the scale`);
      const isCut = element.scrollWidth > element.clientWidth + 1 && element.clientWidth > 1;
      // Who cuts on purpose says so by dots, and keeps the whole at hand.
      if (isCut && overflowX !== 'visible' && overflowX !== 'auto' && textOverflow !== 'ellipsis')
        told(element, 'cut off');
      // A word that is wider than its box lies over what stands beside it.
      if (overflowX === 'visible' && isCut && getComputedStyle(element).display !== 'inline') {
        const box = element.getBoundingClientRect();
        if (box.left + element.scrollWidth > innerWidth + 1 && !scrolls(element)) told(element, 'runs out');
      }
    }
    return found;
  });

/** Whatever lies over a place: it comes, is looked at, and goes by Escape. */
async function lookInto(page: Page, opener: Locator, name: string, look: (name: string) => Promise<void>) {
  if (!(await opener.isVisible()) || !(await opener.isEnabled())) return;
  const over = page.locator(OVER);
  await opener.click();
  await expect(over.first()).toBeVisible();
  await expect(page.getByRole('status', { name: /^Loading/ })).toHaveCount(0);
  await look(name);
  await page.keyboard.press('Escape');
  await expect(over).toHaveCount(0);
}

type Look = (name: string) => Promise<void>;

/** What can be opened over what is there: whatever says that it opens something, and these others. */
async function overs(page: Page, name: string, others: readonly RegExp[], look: Look): Promise<void> {
  const main = page.getByRole('main');
  const openers = main.locator('[aria-haspopup]');
  // Of many alike the first.
  const seen = new Set<string>();
  for (let n = 0; n < (await openers.count()); n++) {
    const kind = (
      (await openers.nth(n).getAttribute('aria-label')) ??
      (await openers.nth(n).textContent()) ??
      ''
    )
      .replace(/ (for|of) .*/, '')
      .trim();
    if (seen.has(kind)) continue;
    seen.add(kind);
    await lookInto(page, openers.nth(n), `${name}, ${kind}`, look);
  }
  for (const other of others)
    await lookInto(page, main.getByRole('button', { name: other }).first(), `${name}, ${other}`, look);
}

const isThere = async (page: Page): Promise<void> => {
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await expect(page.getByRole('status', { name: /^Loading/ })).toHaveCount(0);
};

/** Goes to every place and each of its parts, menus and dialogs; then to what there is of one campaign. */
async function everywhere(page: Page, look: Look): Promise<void> {
  for (const [place, others] of Object.entries(PLACES)) {
    const link = page
      .getByRole('navigation', { name: 'Places' })
      .getByRole('link', { name: place, exact: true });
    await link.click();
    // Until then the place one comes from stands there.
    await expect(link).toHaveAttribute('aria-current', 'page');
    await isThere(page);
    await look(place);
    await overs(page, place, others, look);
    for (const tab of await page.getByRole('tab').all()) {
      await tab.click();
      await expect(page.getByRole('status', { name: /^Loading/ })).toHaveCount(0);
      const name = `${place}, ${await tab.textContent()}`;
      await look(name);
      await overs(page, name, others, look);
    }
  }

  await page
    .getByRole('navigation', { name: 'Places' })
    .getByRole('link', { name: 'Board', exact: true })
    .click();
  await openCampaign(page, 'Sky letter for readers');
  await expect(page.getByText('All saved')).toBeVisible();
  const campaign = page.url();
  for (const name of ['Message', 'Moment', 'Reach', 'Limits'] as const) {
    await side(page, name);
    await look(`Workbench, ${name}`);
  }
  await overs(page, 'Workbench', [/^Launch/, /^Note/], look);
  for (const place of ['results', 'versions']) {
    await page.goto(`${campaign}/${place}`);
    await isThere(page);
    await look(`campaign, ${place}`);
    await overs(page, place, [], look);
  }
}

test('every place, menu and dialog: usable by everybody, nothing beside the window, no word cut off, at any size', async ({
  studioPage: page,
}) => {
  test.setTimeout(300_000);
  const faults: string[] = [];
  let seen = 0;
  await everywhere(page, async (name) => {
    seen++;
    // The place itself was looked over before anything lay on it.
    faults.push(...(await accessibilityFaults(page, await overOf(page))).map((fault) => `${name}: ${fault}`));
    for (const { width, height } of SIZES) {
      await page.setViewportSize({ width, height });
      for (const fault of await faultsOf(page)) faults.push(`${name}, ${width} by ${height}: ${fault}`);
    }
    await page.setViewportSize(SIZES[0]);
  });
  expect(faults).toEqual([]);
  // It has been somewhere.
  expect(seen).toBeGreaterThan(40);
});
