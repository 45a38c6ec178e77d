import type { Device, Manifest } from '@velarium/contract';
import { DEVICE_BIT } from '../devices/device.ts';
import type { PageFit, PageIndex } from '../manifest/page-index.ts';
import type { PageFacts } from '../pages/plain-page-rule.ts';

/** Addresses remembered of one manifest; many visits go to the same pages. */
const MOST = 5000;
const known = new WeakMap<Manifest, Map<string, readonly PageFit[]>>();

/** What a rehearsal knows of a page beside its address: nothing. */
export const NOTHING_OF_PAGES: PageFacts = { kind: '', holds: () => false };

/** The index of one page of a rehearsal. A page stays what it is, so its rules are read once for all visits that come to it. */
export function indexOfPage(manifest: Manifest, index: PageIndex, href: string, device: Device): PageIndex {
  const fitsOf = known.get(manifest) ?? new Map<string, readonly PageFit[]>();
  known.set(manifest, fitsOf);
  const fits = fitsOf.get(href) ?? index.fit(href, NOTHING_OF_PAGES);
  if (fitsOf.size >= MOST) fitsOf.clear();
  fitsOf.set(href, fits);
  const candidates = manifest.campaigns.filter(
    ({ devices }, n) => fits[n] === 'fits' && (devices & DEVICE_BIT[device]) !== 0,
  );
  return { fit: () => fits, candidates: () => candidates };
}
