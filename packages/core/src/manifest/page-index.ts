import type { Device, Manifest, ManifestCampaign } from '@velarium/contract';
import { DEVICE_BIT } from '../devices/device.ts';
import { createKeyReader } from '../pages/page-key.ts';
import type { PageFacts } from '../pages/plain-page-rule.ts';
import type { Extras } from '../visit/extras.ts';

export type PageFit = 'fits' | 'unmatched' | 'excluded';

export interface PageIndex {
  /** How each campaign's page rules read this page, by position in the manifest. */
  fit(href: string, facts: PageFacts): readonly PageFit[];
  /** The campaigns that page and device let through, in order of precedence. */
  candidates(href: string, facts: PageFacts, device: Device): readonly ManifestCampaign[];
}

/**
 * Reads pages by a manifest's page rules. A page is read once in its view, so the names are gone through as they come:
 * that is less work than a table of them, which would be asked once. Whoever plays many visits prepares pages
 * (`createPagePreparer`). The kinds of page rules beyond exact pages need the extras.
 */
export function createPageIndex({ campaigns, site }: Manifest, extras?: Partial<Extras>): PageIndex {
  const keysOf = createKeyReader(site);
  const fit = (href: string, facts: PageFacts): PageFit[] => {
    const page = keysOf(href);
    const isAmong = (keys: readonly string[], rules: ManifestCampaign['include']) =>
      keys.some((key) => key === page.path || key === page.full) ||
      rules.some(({ kind }) => kind === 'every') ||
      (rules.length > 0 && extras?.isAmong?.(rules, href, page, facts) === true);
    return campaigns.map(({ includeKeys, include, excludeKeys, exclude }) =>
      !isAmong(includeKeys, include) ? 'unmatched' : isAmong(excludeKeys, exclude) ? 'excluded' : 'fits',
    );
  };

  return {
    fit,
    candidates(href, facts, device) {
      const fits = fit(href, facts);
      return campaigns.filter(
        ({ devices }, position) => fits[position] === 'fits' && (devices & DEVICE_BIT[device]) !== 0,
      );
    },
  };
}
