import type { Manifest, ManifestCampaign } from '@velarium/contract';
import { DEVICES } from '@velarium/contract/values';
import type { PageIndex } from './page-index.ts';

/** Addresses remembered at most; a crawler of a large site must not fill a server's memory. */
const MEMO_SIZE = 20_000;

/** An index for many visits: they come back to the same pages again and again, and each is read once. */
export function memoisedIndex(index: PageIndex, { campaigns }: Pick<Manifest, 'campaigns'>): PageIndex {
  // Whether an element is there can change at any moment, so such a site is read anew each time.
  const isSteady = campaigns.every(
    ({ include, exclude }) => ![...include, ...exclude].some(({ kind }) => kind === 'holds'),
  );
  if (!isSteady) return index;
  const memos = new Map(DEVICES.map((device) => [device, new Map<string, readonly ManifestCampaign[]>()]));
  return {
    fit: index.fit,
    candidates(href, facts, device) {
      const memo = memos.get(device) as Map<string, readonly ManifestCampaign[]>;
      const key = facts.kind ? `${facts.kind} ${href}` : href;
      const known = memo.get(key);
      if (known) return known;
      const found = index.candidates(href, facts, device);
      if (memo.size >= MEMO_SIZE) memo.clear();
      memo.set(key, found);
      return found;
    },
  };
}
