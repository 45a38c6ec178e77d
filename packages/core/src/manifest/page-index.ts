import type { Device, Manifest, ManifestCampaign } from '@velarium/contract';
import { DEVICE_BIT } from '../devices/device.ts';
import { createKeyReader } from '../pages/page-key.ts';
import type { PageFacts } from '../pages/page-rule.ts';
import type { Extras } from '../visit/extras.ts';

export type PageFit = 'fits' | 'unmatched' | 'excluded';

/** The campaigns that page and device let through, in order of precedence. */
export type Candidates = Readonly<Record<Device, readonly ManifestCampaign[]>>;

export interface PageIndex {
  /** How each campaign's page rules read this page, by position in the manifest. */
  fit(href: string, facts: PageFacts): readonly PageFit[];
  candidates(href: string, facts: PageFacts): Candidates;
}

/**
 * Prepares a manifest's page rules for many addresses: one table from page key to the campaigns that name it, so an
 * address costs two look-ups however many exact pages there are. The other kinds of page rules need the extras.
 */
export function createPageIndex(manifest: Manifest, extras?: Partial<Extras>): PageIndex {
  const { campaigns } = manifest;
  const keysOf = createKeyReader(manifest.site);
  const included = tableOf(campaigns.map((campaign) => campaign.includeKeys));
  const excluded = tableOf(campaigns.map((campaign) => campaign.excludeKeys));
  const fit = (href: string, facts: PageFacts): PageFit[] => {
    const page = keysOf(href);
    const isAmong = (rules: ManifestCampaign['include']) =>
      rules.some((rule) => rule.kind === 'every') ||
      (rules.length > 0 && extras?.isAmong?.(rules, href, page, facts) === true);
    const fits = campaigns.map((): PageFit => 'unmatched');
    const mark = (table: ReadonlyMap<string, readonly number[]>, from: PageFit, to: PageFit) => {
      for (const key of page.full === null ? [page.path] : [page.path, page.full]) {
        for (const position of table.get(key) ?? []) if (fits[position] === from) fits[position] = to;
      }
    };
    mark(included, 'unmatched', 'fits');
    campaigns.forEach(({ include }, position) => {
      if (fits[position] === 'unmatched' && isAmong(include)) fits[position] = 'fits';
    });
    // Exclusion wins, so it is read last.
    mark(excluded, 'fits', 'excluded');
    campaigns.forEach(({ exclude }, position) => {
      if (fits[position] === 'fits' && isAmong(exclude)) fits[position] = 'excluded';
    });
    return fits;
  };

  const candidates = (href: string, facts: PageFacts): Candidates => {
    const fits = fit(href, facts);
    const on = (device: Device) =>
      campaigns.filter(
        (campaign, position) => fits[position] === 'fits' && (campaign.devices & DEVICE_BIT[device]) !== 0,
      );
    return { desktop: on('desktop'), tablet: on('tablet'), mobile: on('mobile') };
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
