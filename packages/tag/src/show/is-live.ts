import type { Manifest } from '@velarium/contract';

/** A page that has been open for so long asks whether a campaign still runs. */
export const STALE_MS = 600_000;

/** Whether a campaign still runs. A young page knows; an old one asks the edge, and goes on where that says nothing. */
export async function isLive(ask: (path: string) => Promise<unknown>, id: string): Promise<boolean> {
  if (performance.now() < STALE_MS) return true;
  const manifest = (await ask('manifest.json').catch(() => undefined)) as Manifest | undefined;
  return manifest?.campaigns.some((campaign) => campaign.id === id) ?? true;
}
