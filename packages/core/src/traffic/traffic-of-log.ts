import type { RecordedPage, Source, Traffic, TrafficVisitor } from '@velarium/contract';
import { MOST_PAGES_OF_VISITOR, MOST_TRAFFIC } from '@velarium/contract/values';
import { murmur32 } from '../assignment/murmur.ts';
import { browserOf, deviceOfAgent, systemOf } from '../devices/browser.ts';
import { arrivalAt } from '../rehearsal/prepared-page.ts';
import { type LogLine, readLogLine } from './log-line.ts';

export interface LogReaderInput {
  /** Hosts of the site itself: who comes from there has come from nowhere. */
  readonly hosts: readonly string[];
  /** After so long without a page a visit is over. */
  readonly sessionMinutes: number;
  readonly isRobot: (agent: string) => boolean;
  /** The kind of place a visit came from, by its referrer's host and what its first address carries. */
  readonly sourceOf: (referrer: string, arrival: Readonly<Record<string, string>>) => Source;
  /** Page views kept at most; past them those of fewer visitors are, a fair sample. */
  readonly most?: number;
}

/** What was found in a log, and what was left out of it; lines. */
export interface LogFound {
  readonly lines: number;
  readonly views: number;
  readonly robots: number;
  /** Pictures, scripts and other files. */
  readonly files: number;
  /** Answers that were no page: moved, gone, refused, sent by a form. */
  readonly noPages: number;
  readonly unreadable: number;
  /** The first that could not be read, with what is wrong with it. */
  readonly firstUnreadable: { readonly line: number; readonly why: string } | null;
  /** Of the first and last page view, epoch milliseconds; `null` without one. */
  readonly fromMs: number | null;
  readonly untilMs: number | null;
}

/** Visitors are told apart by this much of their hash. */
const HASHES = 2 ** 32;
const DAY_MS = 86_400_000;
/** Seen whole: answered, or still in the browser's own cache. */
const SEEN = [200, 304];
/** A name with an ending that is none of a page's. */
const FILE = /\/[^/?#]*\.(?!(?:x?html?|shtml|php\d?|aspx?|jsp|cgi|cfm)$)[a-z][a-z0-9]{0,7}$/i;

interface Kept {
  readonly agent: string;
  readonly referrer: string;
  readonly pages: { readonly path: string; readonly atMs: number }[];
}

/**
 * Reads an access log line by line into traffic that can be replayed. Visitors are told apart by address and agent, which
 * are forgotten with the reader; memory stays flat however long the log is.
 */
export function createLogReader(input: LogReaderInput) {
  const { most = MOST_TRAFFIC, hosts, isRobot } = input;
  const found = { lines: 0, views: 0, robots: 0, files: 0, noPages: 0, unreadable: 0 };
  let firstUnreadable: LogFound['firstUnreadable'] = null;
  let [fromMs, untilMs] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  let kept = new Map<number, Kept>();
  let keptViews = 0;
  /** Visitors whose hash lies below are kept. */
  let below = HASHES;

  const halve = () => {
    below /= 2;
    kept = new Map([...kept].filter(([hash]) => hash < below));
    keptViews = [...kept.values()].reduce((sum, { pages }) => sum + pages.length, 0);
  };
  const keep = ({ address, agent, atMs, referrer }: LogLine, path: string) => {
    const hash = murmur32(`${address} ${agent}`);
    if (hash >= below) return;
    const one = kept.get(hash) ?? { agent, referrer, pages: [] };
    if (one.pages.length >= MOST_PAGES_OF_VISITOR) return;
    one.pages.push({ path, atMs });
    kept.set(hash, one);
    keptViews++;
    while (keptViews > most && kept.size > 1) halve();
  };
  const hostOf = (referrer: string): string => {
    const host = URL.canParse(referrer) ? new URL(referrer).hostname : '';
    return hosts.includes(host) ? '' : host;
  };
  const visitorOf = ({ agent, referrer, pages }: Kept): TrafficVisitor => {
    const said = { userAgent: agent, touchPoints: 0 };
    const ordered = [...pages].sort((a, b) => a.atMs - b.atMs);
    const host = hostOf(referrer);
    const { arrival } = arrivalAt(ordered[0]?.path ?? '/', host);
    return {
      device: deviceOfAgent(agent),
      browser: browserOf(said),
      system: systemOf(said),
      source: input.sourceOf(host, arrival),
      referrer: host,
      session: 1,
      signedIn: null,
      basket: null,
      country: null,
      language: 'en',
      pages: ordered.map(({ path, atMs }, at): RecordedPage => {
        const stayMs = (ordered[at + 1]?.atMs ?? Number.POSITIVE_INFINITY) - atMs;
        // What came after a visit was over says nothing of how long its last page was read.
        const isKnown = stayMs <= input.sessionMinutes * 60_000;
        return { path, atMs, seconds: isKnown ? stayMs / 1000 : null, depth: null };
      }),
    };
  };

  return {
    add(text: string): void {
      if (text === '') return;
      found.lines++;
      const line = readLogLine(text);
      if (typeof line === 'string') {
        found.unreadable++;
        firstUnreadable ??= { line: found.lines, why: line };
      } else if (line.method !== 'GET' || line.target === null || !SEEN.includes(line.status))
        found.noPages++;
      else if (FILE.test(line.target.split(/[?#]/, 1)[0] ?? '')) found.files++;
      else if (line.agent === '' || isRobot(line.agent)) found.robots++;
      else {
        found.views++;
        fromMs = Math.min(fromMs, line.atMs);
        untilMs = Math.max(untilMs, line.atMs);
        keep(line, line.target);
      }
    },
    found: (): LogFound => ({
      ...found,
      firstUnreadable,
      fromMs: found.views > 0 ? fromMs : null,
      untilMs: found.views > 0 ? untilMs : null,
    }),
    traffic: (): Traffic => ({
      days: found.views > 0 ? Math.floor((untilMs - fromMs) / DAY_MS) + 1 : 0,
      visitors: Math.round(kept.size * (HASHES / below)),
      isSample: below < HASHES,
      // By their hashes: where they come in the log tells when, not who.
      list: [...kept].sort(([a], [b]) => a - b).map(([, one]) => visitorOf(one)),
    }),
  };
}
