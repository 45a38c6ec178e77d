import type { Page } from '@playwright/test';
import type { SitePage } from './velarium.ts';

/** A flick of a finger, through the browser's own input. */
export async function flick(page: Page, fromY: number, toY: number): Promise<void> {
  const client = await page.context().newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', y?: number) =>
    client.send('Input.dispatchTouchEvent', { type, touchPoints: y === undefined ? [] : [{ x: 200, y }] });
  await touch('touchStart', fromY);
  for (let n = 1; n <= 8; n++) await touch('touchMove', fromY + ((toY - fromY) * n) / 8);
  await touch('touchEnd');
}

/** Leaves through the top edge of the window, once leaving is believed. */
export async function leaveByMouse(site: SitePage): Promise<void> {
  await site.pass(4);
  await site.page.mouse.move(640, 200);
  await site.page.mouse.move(640, -10, { steps: 3 });
  await site.pass(0.5);
}
