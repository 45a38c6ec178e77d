import type { Manifest } from '@velarium/contract';

/** A page that has been open for so long asks whether a campaign still runs. */
export const STALE_MS = 600_000;

/** Settles when nothing fills the whole screen: what one watches there is not covered. */
async function outOfFullScreen(): Promise<void> {
  while (document.fullscreenElement)
    await new Promise((resolve) => document.addEventListener('fullscreenchange', resolve, { once: true }));
}

/**
 * Whether a campaign still runs, told when its message could be seen. A young page knows; an old one asks the edge, and
 * goes on where that says nothing.
 */
export async function isLive(ask: (path: string) => Promise<unknown>, id: string): Promise<boolean> {
  await outOfFullScreen();
  if (performance.now() < STALE_MS) return true;
  const manifest = (await ask('manifest.json').catch(() => undefined)) as Manifest | undefined;
  return manifest?.campaigns.some((campaign) => campaign.id === id) ?? true;
}
