import type {
  Assumptions,
  Happening,
  Manifest,
  Reaction,
  RehearsedPage,
  Traffic,
  TrafficVisitor,
} from '@velarium/contract';
import type { Visit } from '../rehearsal/play.ts';

/**
 * What is taken for granted until somebody says otherwise: about half of the page views at a desk end by way of the
 * window's top edge, few on phones by a quick scroll up, and a message is dealt with in eight seconds (common practice).
 */
export const USUAL_ASSUMPTIONS: Assumptions = {
  leavesByMouse: 0.5,
  leavesByTouch: 0.15,
  closesAfterSeconds: 8,
};

/** Where nothing is known of any view of a page. */
const PLAIN_STAY = { seconds: 20, depth: 50 } as const;
/** From here on the end of an article has been in sight. */
const END_OF_ARTICLE_PERCENT = 90;
/** Longer than this nothing is asked any more; see the limit of triggers. */
const LONGEST_SECONDS = 3600;
const MINUTE_MS = 60_000;
/** Just before the end of a view: who leaves is still there. */
const BEFORE_END_SECONDS = 0.2;

type Stay = Readonly<Record<'seconds' | 'depth', number>>;

/** Draws stays for page views whose end was never told of, out of those of the same page that are known. */
export function staysOf({ list }: Traffic): (path: string, nth: number) => Stay {
  const known = new Map<string, Stay[]>();
  for (const { pages } of list) {
    for (const { path, seconds, depth } of pages) {
      if (seconds === null) continue;
      const key = pathOf(path);
      const stays = known.get(key) ?? [];
      if (stays.length === 0) known.set(key, stays);
      // A server's log knows how long, and never how far.
      if (stays.length < MOST_KNOWN) stays.push({ seconds, depth: depth ?? PLAIN_STAY.depth });
    }
  }
  return (path, nth) => {
    const stays = known.get(pathOf(path));
    return stays?.[nth % stays.length] ?? PLAIN_STAY;
  };
}
const MOST_KNOWN = 500;
/** An address without what follows its path. */
export const pathOf = (address: string): string => address.split(/[?#]/, 1)[0] ?? address;

/** A number from 0 to below 1 for one page view of one visitor: the same every time it is replayed. */
export function lot(visitor: number, view: number, of: number): number {
  let mixed =
    Math.imul(visitor + 1, 0x9e3779b1) ^ Math.imul(view + 1, 0x85ebca6b) ^ Math.imul(of + 1, 0xc2b2ae35);
  mixed = Math.imul(mixed ^ (mixed >>> 16), 0x21f0aaad);
  mixed = Math.imul(mixed ^ (mixed >>> 15), 0x735a2d97);
  return ((mixed ^ (mixed >>> 15)) >>> 0) / 2 ** 32;
}

interface AsVisitInput {
  readonly visitor: TrafficVisitor;
  /** Which of the visitors it is, for what is drawn by lot. */
  readonly nth: number;
  readonly stays: ReturnType<typeof staysOf>;
  readonly assumptions: Assumptions;
}

/** What was recorded of a visitor as a visit that can be played, with what no record tells taken for granted. */
export function asVisit({ visitor, nth, stays, assumptions }: AsVisitInput): Omit<Visit, 'reactions'> {
  const { pages: recorded, ...about } = visitor;
  const beginsMs = recorded[0]?.atMs ?? 0;
  let endedMs = beginsMs;
  const pages = recorded.map(({ path, atMs, seconds, depth }, view): RehearsedPage => {
    const drawn =
      seconds === null || depth === null ? stays(path, Math.floor(lot(nth, view, 0) * 1e6)) : undefined;
    const stay = Math.min(seconds ?? drawn?.seconds ?? 0, LONGEST_SECONDS);
    const reached = depth ?? drawn?.depth ?? 0;
    const afterMinutes = Math.max(0, (atMs - endedMs) / MINUTE_MS);
    endedMs = Math.max(endedMs, atMs) + stay * 1000;
    const end = Math.max(0, stay - BEFORE_END_SECONDS);
    const happenings: Happening[] = [];
    if (reached >= END_OF_ARTICLE_PERCENT) happenings.push({ at: end, what: 'articleEnd' });
    const chance = lot(nth, view, 1);
    if (visitor.device !== 'mobile' && chance < assumptions.leavesByMouse)
      happenings.push({ at: end, what: 'leavesByMouse', certainty: 'certain' });
    if (visitor.device === 'mobile' && chance < assumptions.leavesByTouch)
      happenings.push({ at: end, what: 'leavesByTouch', by: 'scrollUp' });
    return { path, seconds: stay, depth: reached, afterMinutes, happenings };
  });
  return { visitor: { ...about, met: [] }, pages, beginsMs };
}

/** Whatever opens is closed after a while. */
export const usualReactions = (
  { campaigns }: Pick<Manifest, 'campaigns'>,
  { closesAfterSeconds }: Assumptions,
): Reaction[] =>
  campaigns.map(({ id }) => ({ campaign: id, does: 'close', afterSeconds: closesAfterSeconds }));
