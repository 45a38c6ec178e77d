import type { Manifest, RehearsedVisitor } from '@velarium/contract';
import {
  type Arrival,
  type Memory,
  newMemory,
  rememberClosed,
  rememberConverted,
  rememberRefused,
  rememberShown,
} from '../visit/memory.ts';
import type { PageViewFacts } from '../visit/visitor-facts.ts';
import { NOTHING_OF_PAGES } from './prepared-page.ts';

/** Somebody whose name decides nothing. */
const NOBODY = '0'.repeat(32);
let sessions = 0;
/** Names of sessions, each its own; what they are decides nothing. */
export const IDS = { visitor: () => NOBODY, session: () => `rehearsed ${++sessions}` };

const HOUR_MS = 3_600_000;

/** A visitor of whom one need not know by which clock the visit begins. */
export type VisitorOfAnyHour = Omit<RehearsedVisitor, 'begins'>;

/** What page and browser tell of the visitor as a visit begins. */
export const rehearsedFacts = (visitor: VisitorOfAnyHour, timeZone: string): PageViewFacts => ({
  kind: NOTHING_OF_PAGES.kind,
  holds: NOTHING_OF_PAGES.holds,
  signedIn: visitor.signedIn,
  basket: visitor.basket,
  attributes: {},
  languages: [visitor.language],
  country: visitor.country,
  browser: visitor.browser,
  system: visitor.system,
  source: visitor.source,
  timeZone: () => timeZone,
});

/** What the visitor's browser remembers as the visit begins: a session that begins so, and what they met before. */
export function beginMemory(
  visitor: VisitorOfAnyHour,
  arrival: Arrival,
  manifest: Manifest,
  beginsMs: number,
  name: string = NOBODY,
): Memory {
  const fresh = newMemory({ ...IDS, visitor: () => name }, beginsMs, arrival);
  const begun: Memory = { ...fresh, session: { ...fresh.session, number: visitor.session } };
  const earlier = [...visitor.met].sort((a, b) => b.hoursBefore - a.hoursBefore);
  const known = earlier.reduce(
    (memory, { campaign, what, hoursBefore }) => {
      const one = manifest.campaigns.find(({ id }) => id === campaign);
      if (!one) return memory;
      const atMs = beginsMs - hoursBefore * HOUR_MS;
      const shown = rememberShown(memory, one, atMs);
      if (what === 'closed') return rememberClosed(shown, campaign, atMs);
      if (what === 'refused') return rememberClosed(rememberRefused(shown, campaign, atMs), campaign, atMs);
      if (what === 'converted') return rememberConverted(shown, campaign, atMs);
      return shown;
      // In a session of before: what was met then has no part in this one.
    },
    { ...begun, session: { ...begun.session, id: IDS.session(), shown: 0 } },
  );
  return { ...known, session: begun.session };
}
