import type { Manifest, Rehearsal, RehearsedVisitor } from '@velarium/contract';
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
import { NOTHING_OF_PAGES } from './page-fits.ts';

/** Somebody whose name decides nothing. */
const NOBODY = '0'.repeat(32);
let sessions = 0;
/** Names of sessions, each its own; what they are decides nothing. */
export const IDS = { visitor: () => NOBODY, session: () => `rehearsed ${++sessions}` };

const HOUR_MS = 3_600_000;

const MOST_PARAMETERS = 20;

/** How a session begins that begins with this page. */
export function arrivalAt(path: string, referrer: string): Arrival {
  const { pathname, searchParams } = new URL(`https://any.example${path}`);
  return {
    landing: pathname.replace(/(?<!\/)\/+$/, '') || '/',
    referrer,
    parameters: Object.fromEntries([...searchParams].slice(0, MOST_PARAMETERS)),
  };
}

/** What page and browser tell of the visitor as a visit begins. */
export const rehearsedFacts = (visitor: RehearsedVisitor, timeZone: string): PageViewFacts => ({
  ...NOTHING_OF_PAGES,
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

/** What the visitor's browser remembers as the visit begins: a session that begins with its first page, and what they met before. */
export function beginMemory(
  { visitor, pages }: Pick<Rehearsal, 'visitor' | 'pages'>,
  manifest: Manifest,
  beginsMs: number,
  name: string = NOBODY,
): Memory {
  const fresh = newMemory(
    { ...IDS, visitor: () => name },
    beginsMs,
    arrivalAt(pages[0]?.path ?? '/', visitor.referrer),
  );
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
