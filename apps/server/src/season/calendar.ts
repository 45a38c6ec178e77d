import type { SaveSeasonDays } from '@velarium/contract';
import { dayAfter, quantity } from '@velarium/core';
import ICAL from 'ical.js';
import { isOverTime, withinTime } from '../infra/within-time.ts';

/** How far a repeating event is followed, and how often it is noted at most. */
const AHEAD_DAYS = 730;
const REPEATS = 60;
/**
 * How long a file may take to be taken apart; and the repeats of one event, and those of all of them: a rule may repeat every
 * second for ever, or ask for a 30 February and look for it as long.
 */
const PARSE_MS = 3000;
const EVENT_MS = 200;
const FILE_MS = 1000;
const LONGEST_TEXT = 120;

export interface ReadCalendar {
  readonly days: readonly SaveSeasonDays[];
  /** What could not be read, in words. */
  readonly left: readonly string[];
}

type Dated = Pick<ICAL.Event, 'component' | 'startDate' | 'endDate'>;

/** The day as it is written: an event of whole days has no zone, and one with a time is of the day its own clock shows. */
const writtenDay = ({ year, month, day }: ICAL.Time): string =>
  `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;

const nameOf = (summary: string): string => summary.replace(/\s+/g, ' ').trim().slice(0, LONGEST_TEXT);

/** What a component says, and nothing where that cannot be read. */
function said(component: ICAL.Component, property: string): string {
  try {
    return String(component.getFirstPropertyValue(property) ?? '');
  } catch {
    return '';
  }
}

/** Source: RFC 5545, 3.8.1.11. */
const isCancelled = (component: ICAL.Component): boolean =>
  said(component, 'status').toUpperCase() === 'CANCELLED';

/** A rule that the library follows to days which it does not mean. */
class UnknownRepeats extends Error {}

/** Weeks of a year, and days of all its months, are not counted by the library. */
const isUnknown = ({ freq, parts }: ICAL.Recur): boolean =>
  'BYWEEKNO' in parts || (freq === 'YEARLY' && 'BYMONTHDAY' in parts && !('BYMONTH' in parts));

/**
 * The days of a month that a rule of years names by their number, or by that of its first: in a year that has none of them nothing
 * happens, where the library takes the day after (RFC 5545, 3.3.10). Nothing where it repeats in other ways as well.
 *
 * @throws {UnknownRepeats}
 */
function namedDays({ component, startDate }: ICAL.Event): readonly number[] | undefined {
  const rules = component.getAllProperties('rrule').map((rule) => rule.getFirstValue() as ICAL.Recur);
  if (rules.some(isUnknown)) throw new UnknownRepeats();
  const [rule, ...others] = rules;
  if (rule?.freq !== 'YEARLY' || others.length > 0 || component.hasProperty('rdate')) return undefined;
  const { BYDAY, BYYEARDAY, BYMONTHDAY } = rule.parts;
  const days = BYMONTHDAY ?? [startDate.day];
  return !BYDAY && !BYYEARDAY && days.every((day) => day > 0) ? days : undefined;
}

const parse = (text: string): ICAL.Component => new ICAL.Component(ICAL.parse(text));

/** The lines of each event, and those between them. */
function* eventsIn(text: string): Generator<{ readonly lines: string; readonly isEvent: boolean }> {
  let lines: string[] = [];
  for (const line of text.split(/\r\n|\n|\r/)) {
    const isFirst = /^BEGIN:VEVENT\s*$/i.test(line);
    if (isFirst && lines.length > 0) {
      yield { lines: lines.join('\r\n'), isEvent: false };
      lines = [];
    }
    lines.push(line);
    if (!/^END:VEVENT\s*$/i.test(line)) continue;
    yield { lines: lines.join('\r\n'), isEvent: true };
    lines = [];
  }
  yield { lines: lines.join('\r\n'), isEvent: false };
}

/**
 * A library that reads a file at once reads none of it where one line of it is wrong. What is wrong is taken out and named.
 *
 * @throws {Error} If the text is no calendar, whatever is taken out.
 */
function parseWhatCanBe(text: string, left: string[]): ICAL.Component {
  try {
    return parse(text);
  } catch {
    const readable: string[] = [];
    for (const { lines, isEvent } of eventsIn(text))
      try {
        if (isEvent) parse(`BEGIN:VCALENDAR\r\n${lines}\r\nEND:VCALENDAR`);
        readable.push(lines);
      } catch {
        const name = nameOf(/^SUMMARY[^:\n]*:(.*)$/im.exec(lines)?.[1] ?? '');
        left.push(`${name === '' ? 'an event' : `“${name}”`}, which cannot be read`);
      }
    return parse(readable.join('\r\n'));
  }
}

/**
 * The days that the events of an iCalendar file lie on, two years back and ahead. Source: RFC 5545: an end of whole days is the
 * day after the last (3.6.1), repeating events are followed for two years, and one of them that was moved stands where it was
 * moved to (3.8.4.4).
 *
 * @throws {Error} If the text is no calendar, or takes too long to be taken apart; `isOverTime` knows which.
 */
export function readCalendar(text: string, nowMs: number): ReadCalendar {
  const days: SaveSeasonDays[] = [];
  const left: string[] = [];
  const calendar = withinTime(PARSE_MS, () => parseWhatCanBe(text, left));
  const today = new Date(nowMs).toISOString().slice(0, 10);
  const [since, until] = [dayAfter(today, -AHEAD_DAYS), dayAfter(today, AHEAD_DAYS)];
  const untilMs = performance.now() + FILE_MS;
  const daysOf = ({ component, startDate: start, endDate: end }: Dated, text: string): SaveSeasonDays[] => {
    const from = writtenDay(start);
    const last = end && end.compare(start) > 0 ? writtenDay(end) : from;
    // Midnight at the end belongs to no day of it.
    const endsAtMidnight = end && (end.isDate || (end.hour === 0 && end.minute === 0 && end.second === 0));
    const to = endsAtMidnight && last > from ? dayAfter(last, -1) : last;
    return to >= since && from <= until && !isCancelled(component) ? [{ from, to, text }] : [];
  };
  const repeatsOf = (event: ICAL.Event, text: string): SaveSeasonDays[] => {
    const found: SaveSeasonDays[] = [];
    const named = namedDays(event);
    const times = event.iterator();
    while (found.length < REPEATS) {
      const next = times.next();
      if (!next || writtenDay(next) > until) break;
      if (named && !named.includes(next.day)) continue;
      const { item, startDate, endDate } = event.getOccurrenceDetails(next);
      found.push(...daysOf({ component: item.component, startDate, endDate }, nameOf(item.summary) || text));
    }
    return found;
  };
  const components = calendar.getAllSubcomponents('vevent');
  const uidOf = (component: ICAL.Component) => said(component, 'uid');
  const repeats = (component: ICAL.Component) =>
    ['rrule', 'rdate'].some((name) => component.hasProperty(name));
  const isMoved = (component: ICAL.Component) => component.hasProperty('recurrence-id');
  const repeating = new Set(components.filter(repeats).map(uidOf));
  const moved = new Map<string, ICAL.Component[]>();
  for (const component of components.filter(isMoved)) {
    const uid = uidOf(component);
    const others = moved.get(uid);
    if (others) others.push(component);
    else moved.set(uid, [component]);
  }
  let late = 0;
  for (const component of components) {
    // Met again among the repeats that it is one of.
    if (isMoved(component) && repeating.has(uidOf(component))) continue;
    const name = nameOf(said(component, 'summary'));
    if (name === '' || !component.hasProperty('dtstart')) {
      left.push(name === '' ? 'an event without a name' : `“${name}”, which has no beginning`);
      continue;
    }
    const time = Math.min(EVENT_MS, untilMs - performance.now());
    if (time <= 0) {
      late++;
      continue;
    }
    // Told which are its own, an event does not look through all the others for them.
    const event = (exceptions: ICAL.Component[]) => new ICAL.Event(component, { exceptions });
    try {
      days.push(
        ...(repeats(component)
          ? withinTime(time, () => repeatsOf(event(moved.get(uidOf(component)) ?? []), name))
          : daysOf(event([]), name)),
      );
    } catch (error) {
      left.push(`“${name}”, ${faultWords(error)}`);
    }
  }
  if (late > 0) left.push(`${quantity(late, 'event')} more than there was time for`);
  return { days, left };
}

function faultWords(error: unknown): string {
  if (isOverTime(error)) return 'which repeats too often';
  if (error instanceof UnknownRepeats) return 'which repeats in a way that is not known here';
  return 'whose dates cannot be read';
}

export interface CalendarEvent {
  /** The same for the same thing, so that a calendar that reads it again moves it. */
  readonly uid: string;
  readonly summary: string;
  /** Whole days, both in it; or instants, milliseconds since 1970. */
  readonly when:
    | { readonly from: string; readonly to: string }
    | { readonly fromMs: number; readonly toMs: number };
}

/** Events as an iCalendar file. Source: RFC 5545. */
export function writeCalendar(name: string, events: readonly CalendarEvent[], nowMs: number): string {
  const calendar = new ICAL.Component(['vcalendar', [], []]);
  calendar.addPropertyWithValue('version', '2.0');
  calendar.addPropertyWithValue('prodid', '-//Velarium//Season//EN');
  calendar.addPropertyWithValue('name', name);
  const utc = (ms: number) => ICAL.Time.fromJSDate(new Date(Math.floor(ms / 1000) * 1000), true);
  for (const { uid, summary, when } of events) {
    const component = new ICAL.Component('vevent');
    component.addPropertyWithValue('uid', uid);
    component.addPropertyWithValue('dtstamp', utc(nowMs));
    component.addPropertyWithValue('summary', summary);
    const isDays = 'from' in when;
    component.addPropertyWithValue(
      'dtstart',
      isDays ? ICAL.Time.fromDateString(when.from) : utc(when.fromMs),
    );
    component.addPropertyWithValue(
      'dtend',
      isDays ? ICAL.Time.fromDateString(dayAfter(when.to, 1)) : utc(when.toMs),
    );
    calendar.addSubcomponent(component);
  }
  return calendar.toString();
}
