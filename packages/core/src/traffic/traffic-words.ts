import type { Traffic } from '@velarium/contract';
import { stretchWords } from '../results/words.ts';
import { wallClock } from '../schedule/zone.ts';
import { counted, figure } from '../sentence/words.ts';
import type { LogFound } from './traffic-of-log.ts';

/** Whose visits are replayed: those the tag recorded, those of a server's log, or none that ever were. */
export const VISITS_FROM = ['recorded', 'log', 'invented'] as const;
export type VisitsFrom = (typeof VISITS_FROM)[number];
export const VISITS_FROM_WORDS: Readonly<Record<VisitsFrom, string>> = {
  recorded: 'Recorded',
  log: 'From a log',
  invented: 'Invented',
};

/** What is replayed, in a line under the heading. */
export function trafficWords(from: VisitsFrom, { visitors, days, isSample, list }: Traffic): string {
  const who = counted(visitors, 'visitor');
  const sample = isSample ? ` (a fair sample of ${figure(list.length)})` : '';
  if (from === 'invented') return `${who} in ${counted(days, 'day')}, invented, replayed${sample}`;
  if (from === 'log') return `${who} of ${counted(days, 'day')} in a server’s log, replayed${sample}`;
  return `${who} of the last ${counted(days, 'day')}, replayed${sample}`;
}

/** What a log holds: `1,204 page views in 9,880 lines, 3 November 2026 to 24 November 2026`. */
export function foundWords({ views, lines, fromMs, untilMs }: LogFound, timeZone: string): string {
  const dayOf = (atMs: number) => new Date(wallClock(atMs, timeZone)).toISOString().slice(0, 10);
  const when =
    fromMs === null || untilMs === null
      ? ''
      : `, ${stretchWords({ from: dayOf(fromMs), until: dayOf(untilMs) })}`;
  return `${counted(views, 'page view')} in ${counted(lines, 'line')}${when}`;
}

/** What of a log was no page view of a person, and how many lines of each there were; what there was none of is not said. */
export const leftOutWords = ({ robots, files, noPages, unreadable }: LogFound): string[] =>
  [
    files > 0 ? counted(files, 'file') : '',
    robots > 0 ? `${counted(robots, 'page view')} of robots` : '',
    noPages > 0 ? `${counted(noPages, 'answer')} that ${noPages === 1 ? 'was' : 'were'} no page` : '',
    unreadable > 0 ? `${counted(unreadable, 'line')} that cannot be read` : '',
  ].filter(Boolean);

/** What no server's log tells, and what a replay of one therefore takes for granted. */
export const LOG_KNOWS_NOT =
  'A log does not know how far anybody scrolled (half of each page is taken), when a last page was left (it lasts as long as other views of the page), countries, languages, sign-ins and baskets, nor pages that opened without asking the server. People behind one address with one kind of browser are one visitor, and everybody’s first visit in it counts as their first.';
