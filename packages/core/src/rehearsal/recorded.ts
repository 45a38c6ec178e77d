import {
  LONGEST_VISIT_SECONDS,
  type Manifest,
  MOST_SESSIONS,
  REHEARSAL_FORM,
  type Rehearsal,
  type RehearsedPage,
  rehearsedVisitorSchema,
  type Traffic,
  type TrafficVisitor,
} from '@velarium/contract';
import { asVisit, staysOf, USUAL_ASSUMPTIONS } from '../forecast/as-visit.ts';
import { wallClock } from '../schedule/zone.ts';
import { sourceWords } from '../sentence/reach-words.ts';
import { counted, DEVICE_WORDS } from '../sentence/words.ts';
import { clockWords } from './expectations.ts';

/** Nobody is supposed to have left by an edge: only what was recorded is on the line. */
const AS_RECORDED = { ...USUAL_ASSUMPTIONS, leavesByMouse: 0, leavesByTouch: 0 };

/** A recorded visitor's pages as a visit that can be rehearsed; what a rehearsal has no room for is left out at its end. */
export function rehearsalOfRecorded(
  traffic: Traffic,
  nth: number,
  { timeZone }: Pick<Manifest, 'timeZone'>,
): Rehearsal | undefined {
  const recorded = traffic.list[nth];
  if (!recorded) return undefined;
  const { visitor, pages, beginsMs } = asVisit({
    visitor: recorded,
    nth,
    stays: staysOf(traffic),
    assumptions: AS_RECORDED,
  });
  const language = visitor.language.toLowerCase();
  let left = LONGEST_VISIT_SECONDS;
  const fitting = pages.flatMap((page): RehearsedPage[] => {
    const seconds = Math.round(page.seconds * 10) / 10;
    left -= seconds;
    return left < 0 ? [] : [{ ...page, seconds, depth: Math.min(100, page.depth) }];
  });
  return {
    form: REHEARSAL_FORM,
    visitor: {
      ...visitor,
      begins: new Date(wallClock(beginsMs, timeZone)).toISOString().slice(0, 16),
      session: Math.min(visitor.session, MOST_SESSIONS),
      language: rehearsedVisitorSchema.shape.language.safeParse(language).success ? language : 'en',
    },
    pages: fitting,
    reactions: [],
    expectations: [],
  };
}

/** A recorded visitor in a line: `24 Nov 2026, 20:14: on a phone, by an arrival from search, 3 pages in 2:10`. `write` puts an instant into words. */
export function recordedWords(
  { device, source, pages }: TrafficVisitor,
  write: (atMs: number) => string,
): string {
  // Of a page whose end was not told of nobody knows how long it was read.
  const known = pages.flatMap((page) => page.seconds ?? []);
  const seconds = Math.round(known.reduce((sum, one) => sum + one, 0));
  const stay =
    known.length === 0 ? '' : ` in ${clockWords(seconds)}${known.length < pages.length ? ' or more' : ''}`;
  return `${write(pages[0]?.atMs ?? 0)}: on a ${DEVICE_WORDS[device]}, by ${sourceWords(source)}, ${counted(pages.length, 'page')}${stay}`;
}
