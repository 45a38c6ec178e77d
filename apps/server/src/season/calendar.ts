import type { SaveSeasonDays } from '@velarium/contract';
import { dayAfter } from '@velarium/core';
import ICAL from 'ical.js';

/** How far a repeating event is followed, and how often it is noted at most. */
const AHEAD_DAYS = 730;
const REPEATS = 60;
/** Repeats that are gone through in one file, those of long ago included: a rule may repeat every second for ever. */
const MOST_STEPS = 100_000;
const LONGEST_TEXT = 120;

export interface ReadCalendar {
  readonly days: readonly SaveSeasonDays[];
  /** What could not be read, in words. */
  readonly left: readonly string[];
}

/** The day as it is written: an event of whole days has no zone, and one with a time is of the day its own clock shows. */
const writtenDay = ({ year, month, day }: ICAL.Time): string =>
  `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;

/**
 * The days that the events of an iCalendar file lie on, two years back and ahead. Source: RFC 5545: an end of whole days is the
 * day after the last (3.6.1), and repeating events are followed for two years.
 *
 * @throws {Error} If the text is no calendar.
 */
export function readCalendar(text: string, nowMs: number): ReadCalendar {
  const calendar = new ICAL.Component(ICAL.parse(text));
  const today = new Date(nowMs).toISOString().slice(0, 10);
  const [since, until] = [dayAfter(today, -AHEAD_DAYS), dayAfter(today, AHEAD_DAYS)];
  const days: SaveSeasonDays[] = [];
  const left: string[] = [];
  let steps = 0;
  for (const component of calendar.getAllSubcomponents('vevent')) {
    const event = new ICAL.Event(component);
    const summary = (event.summary ?? '').replace(/\s+/g, ' ').trim().slice(0, LONGEST_TEXT);
    if (summary === '' || !event.startDate) {
      left.push(summary === '' ? 'an event without a name' : `“${summary}”, which has no beginning`);
      continue;
    }
    const put = (start: ICAL.Time, end: ICAL.Time | null) => {
      const from = writtenDay(start);
      const last = end && end.compare(start) > 0 ? writtenDay(end) : from;
      // Midnight at the end belongs to no day of it.
      const endsAtMidnight = end && (end.isDate || (end.hour === 0 && end.minute === 0 && end.second === 0));
      const to = endsAtMidnight && last > from ? dayAfter(last, -1) : last;
      if (to >= since && from <= until) days.push({ from, to, text: summary });
    };
    try {
      if (!event.isRecurring()) {
        put(event.startDate, event.endDate);
        continue;
      }
      const times = event.iterator();
      const before = days.length;
      while (days.length - before < REPEATS) {
        const next = times.next();
        if (!next || writtenDay(next) > until) break;
        if (++steps > MOST_STEPS) {
          left.push(`“${summary}”, which repeats too often`);
          break;
        }
        const { startDate, endDate } = event.getOccurrenceDetails(next);
        put(startDate, endDate);
      }
    } catch {
      left.push(`“${summary}”, whose dates cannot be read`);
    }
  }
  return { days, left };
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
