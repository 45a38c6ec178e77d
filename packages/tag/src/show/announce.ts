import type { Manifest, ManifestCampaign } from '@velarium/contract';

/** What a message does, as whatever measures on the page hears of it. */
type Deed = 'shown' | 'viewable' | 'clicked' | 'shared' | 'answering' | 'closed' | 'converted' | 'refused';

/**
 * Tells the page what a message does, where the site's owner says so and the visitor has agreed to be remembered: a DOM
 * event on `document`, and an entry in an array of the page's own.
 */
export function createAnnouncer(
  { site: { measuring } }: Manifest,
  { id, version }: ManifestCampaign,
  isKept: () => boolean,
): (deed: Deed) => void {
  return (deed) => {
    if (!measuring || !isKept()) return;
    const detail = { campaign: id, version };
    document.dispatchEvent(new CustomEvent(`velarium:${deed}`, { detail }));
    try {
      if (!measuring.array) return;
      const scope = window as unknown as Record<string, unknown[]>;
      scope[measuring.array] ??= [];
      scope[measuring.array]?.push({ event: `velarium_${deed}`, ...detail });
    } catch {
      // What stands under that name is no array; it is the page's own.
    }
  };
}
