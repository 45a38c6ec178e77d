import type { Device, Manifest, ManifestCampaign } from '@velarium/contract';
import { createPageIndex, type PageIndex } from '../manifest/page-index.ts';
import { createKeyReader } from '../pages/page-key.ts';
import type { PageFacts } from '../pages/plain-page-rule.ts';
import type { Verdict } from '../verdict/verdict.ts';
import { pageVerdicts } from '../visit/explain.ts';
import type { Arrival } from '../visit/memory.ts';
import type { PageViewInput } from '../visit/page-view.ts';
import { type Asked, askedOf } from './happenings.ts';

/** What a rehearsal knows of a page beside its address: nothing. */
export const NOTHING_OF_PAGES: PageFacts = { kind: '', holds: () => false };

/** A verdict, and the second of the page from which it held. */
export interface Since {
  readonly at: number;
  readonly verdict: Verdict;
}

/** Everything of a page that is the same whoever comes to it by the same kind of device. */
export interface PreparedPage {
  readonly href: string;
  readonly pageKey: string;
  readonly index: PageIndex;
  /** The manifest of those that page and device let through: of the others nobody asks. */
  readonly manifest: Manifest;
  /** Of each campaign of the whole manifest, what page and device have against it for as long as the page is open. */
  readonly lasting: readonly (Since[] | undefined)[];
  /** Where in the whole manifest those stand that both let through. */
  readonly positions: readonly number[];
  /** Where those stand against which page or device speaks, and what they say, but a schedule comes first. */
  readonly scheduled: readonly (readonly [position: number, ofPage: Verdict])[];
  readonly asked: Asked;
  /** How a session begins that begins here, from nowhere that is known. */
  readonly arrival: Arrival;
}

const MOST_PARAMETERS = 20;

/** How a session begins that begins with this page. */
export function arrivalAt(path: string, referrer: string): Arrival {
  const { pathname, searchParams } = new URL(`https://any.example${path}`);
  return {
    landing: pathname.replace(/(?<!\/)\/+$/, '') || '/',
    referrer,
    arrival: Object.fromEntries([...searchParams].slice(0, MOST_PARAMETERS)),
  };
}

/** Pages remembered of one manifest; many visits go to the same ones. */
const MOST = 5000;

/** Prepares pages for being played. A page stays what it is, so it is read once for all visits that come to it. */
export function createPagePreparer(
  manifest: Manifest,
  extras: NonNullable<PageViewInput['extras']>,
  origin: string,
): (path: string, device: Device) => PreparedPage {
  const index = createPageIndex(manifest, extras);
  const keysOf = createKeyReader(manifest.site);
  // A map for each device: putting a name together of both would cost more than all the rest of finding it.
  const known = { desktop: new Map(), tablet: new Map(), mobile: new Map() } satisfies Record<
    Device,
    Map<string, PreparedPage>
  >;

  const prepare = (path: string, device: Device): PreparedPage => {
    const href = origin + path;
    const readings = index.read(href, NOTHING_OF_PAGES);
    const ofPage = pageVerdicts(manifest, readings, device);
    const positions = [...ofPage.keys()].filter((n) => ofPage[n] === undefined);
    const campaigns = positions.map((n) => manifest.campaigns[n] as ManifestCampaign);
    return {
      href,
      pageKey: keysOf(path).path,
      index: { read: () => readings, candidates: (): readonly ManifestCampaign[] => campaigns },
      manifest: { ...manifest, campaigns },
      lasting: manifest.campaigns.map(({ schedule }, n) => {
        const verdict = ofPage[n];
        return verdict && schedule === null ? [{ at: 0, verdict }] : undefined;
      }),
      positions,
      scheduled: manifest.campaigns.flatMap(({ schedule }, n) => {
        const verdict = ofPage[n];
        return verdict && schedule !== null ? [[n, verdict] as const] : [];
      }),
      asked: askedOf(campaigns),
      arrival: arrivalAt(path, ''),
    };
  };

  return (path, device) => {
    const pages: Map<string, PreparedPage> = known[device];
    let found = pages.get(path);
    if (!found) {
      found = prepare(path, device);
      if (pages.size >= MOST) pages.clear();
      pages.set(path, found);
    }
    return found;
  };
}
