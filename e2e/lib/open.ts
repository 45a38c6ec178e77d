import type { BrowserContext } from '@playwright/test';
import type { Trigger } from '@velarium/contract';
import { publish, type RuleOf, restAll } from './api.ts';
import { test as base, expect, newVisitor, type SitePage, visit } from './velarium.ts';

export const ARTICLE = '/journal/aurora-over-the-fell';

/** Publishes one campaign and opens a page of the site as a fresh visitor. */
export const test = base.extend<{
  open: (rule: RuleOf, path?: string, context?: BrowserContext) => Promise<SitePage>;
}>({
  open: async ({ velarium, visitor }, use) => {
    await restAll(velarium);
    await use(async (rule, path = ARTICLE, context = visitor) => {
      await publish(velarium, rule);
      return visit(context, velarium.fell + path);
    });
  },
});

export const on = (...triggers: Trigger[]): RuleOf => ({ triggers });
export const expectShut = async (site: SitePage) => {
  await site.pass(0.2);
  await expect(site.message).toHaveCount(0);
};
export const expectOpen = async (site: SitePage) => {
  await site.pass(0.2);
  await expect(site.message).toHaveCount(1);
};
/** Scrolls by the wheel, as a hand does, as far as the page goes, and lets a frame pass. */
export async function wheel(site: SitePage, pixels: number): Promise<void> {
  await site.page.mouse.move(600, 400);
  const goal = await site.page.evaluate((by) => {
    const most = document.documentElement.scrollHeight - innerHeight;
    return Math.max(0, Math.min(most, scrollY + by));
  }, pixels);
  await site.page.mouse.wheel(0, pixels);
  await site.page.waitForFunction((at) => Math.abs(scrollY - at) < 2, goal);
  await site.pass(0.3);
}
export const phone = (browser: NonNullable<ReturnType<BrowserContext['browser']>>) =>
  newVisitor(browser, { viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true });
