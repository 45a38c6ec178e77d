import type { Device, Manifest, ManifestCampaign } from '@velarium/contract';
import { hasDevice } from '../devices/device.ts';
import { createKeyReader } from '../pages/page-key.ts';
import { isOnPlainPage, type PageFacts } from '../pages/plain-page-rule.ts';
import type { Extras } from '../visit/extras.ts';
import type { Rare } from '../visit/rare.ts';

/** Whether a campaign's page rules take a page in, and leave it out again. */
export type PageReading = readonly [isIn: boolean, isOut: boolean];

export interface PageIndex {
  /** How each campaign's page rules read this page, by position in the manifest. */
  read(href: string, facts: PageFacts): readonly PageReading[];
  /** The campaigns that page and device let through, in order of precedence. */
  candidates(href: string, facts: PageFacts, device: Device): readonly ManifestCampaign[];
}

/**
 * Reads pages by a manifest's page rules. A page is read once in its view, so the names are gone through as they come:
 * that is less work than a table of them, which would be asked once. Whoever plays many visits prepares pages
 * (`createPagePreparer`). The kinds of page rules beyond exact pages and folders need the extras.
 */
export function createPageIndex(
  { campaigns, site }: Manifest,
  extras?: Partial<Pick<Extras & Rare, 'isAmong' | 'isAmongPlain'>>,
): PageIndex {
  const keysOf = createKeyReader(site);
  const read = (href: string, facts: PageFacts): PageReading[] => {
    const page = keysOf(href);
    const isAmong = (keys: readonly string[], rules: ManifestCampaign['include']) =>
      keys.some((key) => key === page.path || key === page.full) ||
      rules.some((rule) => isOnPlainPage(rule, page)) ||
      (rules.length > 0 && (extras?.isAmong ?? extras?.isAmongPlain)?.(rules, href, page, facts) === true);
    return campaigns.map(({ includeKeys, include, excludeKeys, exclude }) => [
      isAmong(includeKeys, include),
      isAmong(excludeKeys, exclude),
    ]);
  };

  return {
    read,
    candidates(href, facts, device) {
      const readings = read(href, facts);
      return campaigns.filter(({ devices }, position) => {
        const [isIn, isOut] = readings[position] as PageReading;
        return isIn && !isOut && hasDevice(devices, device);
      });
    },
  };
}
