import type { Manifest } from '@velarium/contract';

/** A page that has been open for so long asks whether a campaign still runs. */
export const STALE_MS = 600_000;

/** Settles when nothing fills the whole screen: what one watches there is not covered. */
async function outOfFullScreen(): Promise<void> {
  while (document.fullscreenElement)
    await new Promise((resolve) => document.addEventListener('fullscreenchange', resolve, { once: true }));
}

/**
 * Whether a page of the same site is around this one and carries the tag: its messages are the visitor's. A frame whose tag
 * began before that page's could not know it then.
 */
function isFramed(): boolean {
  try {
    return window !== top && (top as { velariumIsHere?: true }).velariumIsHere === true;
  } catch {
    // Another site's page is around this one.
    return false;
  }
}

/**
 * Whether a campaign still runs, told when its message could be seen. A young page knows; an old one asks the edge, and
 * goes on where that says nothing.
 */
export async function isLive(ask: (path: string) => Promise<unknown>, id: string): Promise<boolean> {
  await outOfFullScreen();
  if (isFramed()) return false;
  if (performance.now() < STALE_MS) return true;
  const manifest = (await ask('manifest.json').catch(() => undefined)) as Manifest | undefined;
  return manifest?.campaigns.some((campaign) => campaign.id === id) ?? true;
}
