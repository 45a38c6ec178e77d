import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { expect, type Page } from '@playwright/test';
import type axe from 'axe-core';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
const RULES: axe.RunOptions = {
  runOnly: { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'] },
  // What passes is not told of one by one.
  resultTypes: ['violations'],
};
/** The pages behind the stage are scenery: hidden from readers and scripts. */
const SCENERY = 'iframe[sandbox]';

/** What lies over a place, and what is under it cannot be used meanwhile. */
export const OVER =
  '[role=menu], [role=dialog], [data-radix-popper-content-wrapper]:not(:has([role=tooltip]))';

/**
 * Nothing that WCAG's automatic rules can find is wrong on this page. Where something lies over it that alone is looked at: what is
 * under it was there before.
 */
export async function expectAccessible(page: Page): Promise<void> {
  expect(await accessibilityFaults(page, await overOf(page))).toEqual([]);
}

/** What the rules are asked of where something lies over a place; nothing where nothing does. */
export const overOf = (page: Page): Promise<string | undefined> =>
  page.evaluate((over) => (document.querySelector(over) ? over : undefined), OVER);

/**
 * What WCAG's automatic rules find on a page and the frames of its own, or within what is named of it: a selector, or for what
 * lies in a frame the frame's and then its own. The rules are read once in the life of a document: reading them is what costs.
 */
export async function accessibilityFaults(page: Page, within?: string | string[]): Promise<string[]> {
  // A notice that comes or goes is pale for that moment only; of who asks for less motion none is.
  const isStill = await page.evaluate(() => matchMedia('(prefers-reduced-motion: reduce)').matches);
  if (!isStill) await page.emulateMedia({ reducedMotion: 'reduce' });
  await expect
    .poll(() =>
      page.evaluate(
        () => document.querySelector('[data-sonner-toaster]')?.getAnimations({ subtree: true }).length ?? 0,
      ),
    )
    .toBe(0);
  const found = await findFaults(page, within);
  if (!isStill) await page.emulateMedia({ reducedMotion: null });
  return found;
}

async function findFaults(page: Page, within: string | string[] | undefined): Promise<string[]> {
  // A message lies in a document without an address; whatever has one is not ours to look at.
  const frames = Array.isArray(within)
    ? [await (await page.$(within[0] ?? ''))?.contentFrame()]
    : page.frames().filter((frame) => frame.url() === 'about:srcdoc');
  await Promise.all(
    [page.mainFrame(), ...frames].map(async (frame) => {
      try {
        if (!(await frame?.evaluate(() => 'axe' in window))) await frame?.evaluate(AXE);
      } catch (error) {
        // What has gone meanwhile need not be looked at.
        if (!frame?.isDetached()) throw error;
      }
    }),
  );
  return page.evaluate(
    async ([rules, include, scenery]) => {
      const { violations } = await (window as unknown as { axe: typeof axe }).axe.run(
        { ...(include ? { include: [include] } : {}), exclude: [scenery] } as axe.ElementContext,
        rules,
      );
      return violations.map(
        ({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`,
      );
    },
    [RULES, within, SCENERY] as const,
  );
}
