import type { Device, Manifest, ManifestCampaign } from '@velarium/contract';
import { DEVICE_BIT } from '../devices/device.ts';
import { pageKeys, trackingTest } from '../pages/page-key.ts';

export type PageFit = 'fits' | 'unmatched' | 'excluded' | 'nowhere';

/** The campaigns that page and device let through, in order of precedence. */
export type Candidates = Readonly<Record<Device, readonly ManifestCampaign[]>>;

export interface PageIndex {
  /** How each campaign's page rules read this address, by position in the manifest. */
  fit(href: string): readonly PageFit[];
  /** Memoised: visits come back to the same pages again and again. */
  candidates(href: string): Candidates;
}

/** Addresses remembered at most; a crawler of a large site must not fill the memory of an edge. */
const MEMO_SIZE = 20_000;

/**
 * Prepares a manifest's page rules for many addresses: one table from page key to the campaigns that name it,
 * so an address costs two look-ups however many campaigns there are.
 */
export function createPageIndex(manifest: Manifest): PageIndex {
  const { campaigns } = manifest;
  const isTracking = trackingTest(manifest.site.trackingParameters);
  const included = tableOf(campaigns.map((campaign) => campaign.include ?? []));
  const excluded = tableOf(campaigns.map((campaign) => campaign.exclude));
  const start: PageFit[] = campaigns.map(({ include }) =>
    include === null ? 'fits' : include.length === 0 ? 'nowhere' : 'unmatched',
  );
  const memo = new Map<string, Candidates>();

  const fit = (href: string): PageFit[] => {
    const keys = pageKeys(href, isTracking);
    const fits = [...start];
    for (const key of keys.full === null ? [keys.path] : [keys.path, keys.full]) {
      for (const position of included.get(key) ?? []) fits[position] = 'fits';
    }
    // Exclusion wins, so it is read last.
    for (const key of keys.full === null ? [keys.path] : [keys.path, keys.full]) {
      for (const position of excluded.get(key) ?? [])
        if (fits[position] === 'fits') fits[position] = 'excluded';
    }
    return fits;
  };

  const candidates = (href: string): Candidates => {
    const known = memo.get(href);
    if (known) return known;
    const fits = fit(href);
    const on = (device: Device) =>
      campaigns.filter(
        (campaign, position) => fits[position] === 'fits' && (campaign.devices & DEVICE_BIT[device]) !== 0,
      );
    const found: Candidates = { desktop: on('desktop'), tablet: on('tablet'), mobile: on('mobile') };
    if (memo.size >= MEMO_SIZE) memo.clear();
    memo.set(href, found);
    return found;
  };
  return { fit, candidates };
}

function tableOf(lists: readonly (readonly string[])[]): Map<string, number[]> {
  const table = new Map<string, number[]>();
  lists.forEach((keys, position) => {
    for (const key of keys) table.set(key, [...(table.get(key) ?? []), position]);
  });
  return table;
}
