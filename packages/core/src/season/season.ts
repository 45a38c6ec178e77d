import type { Device, ManifestCampaign, Schedule } from '@velarium/contract';
import { DEVICES } from '@velarium/contract/values';
import { earliestOf } from '../checks/in-the-way.ts';
import type { Coverage } from '../coverage/coverage.ts';
import { hasDevice } from '../devices/device.ts';
import { type Interval, joined, shared, stretchesBetween, weekdayOf } from '../schedule/schedule.ts';
import { instantOf, wallClock } from '../schedule/zone.ts';
import { counted, quoted } from '../sentence/words.ts';

/** A campaign over time: when it is open between the instants that are looked at. */
export interface Lane {
  readonly id: string;
  readonly name: string;
  /** When its draft says that it is open. */
  readonly open: readonly Interval[];
  /** When visitors can meet it, as it was published; never where it does not run. */
  readonly live: readonly Interval[];
}

/** Two campaigns that are open at the same time on the same pages, in one place of the window. */
export interface Meeting {
  /** The one that opens first, and the other: by position among the lanes. */
  readonly first: number;
  readonly second: number;
  readonly pages: number;
  readonly when: readonly Interval[];
}

export interface Seasonal {
  readonly id: string;
  readonly name: string;
  /** Of its draft. */
  readonly schedule: Schedule | null;
  /** As it was published; missing where it does not run. */
  readonly published?: Schedule | null | undefined;
}

/** When each campaign is open between two instants. Where a schedule goes by the visitor's clock, the site's is taken. */
export const lanesOf = (
  campaigns: readonly Seasonal[],
  [fromMs, toMs]: Interval,
  zone: string,
): readonly Lane[] =>
  campaigns.map(({ id, name, schedule, published }) => ({
    id,
    name,
    open: stretchesBetween(schedule, fromMs, toMs, zone),
    live: published === undefined ? [] : stretchesBetween(published, fromMs, toMs, zone),
  }));

const BITS = 32;

/** The pages a campaign's rules name, whatever its schedule or devices say: a bit each. */
function pagesOf(coverage: Coverage, campaign: number): Uint32Array {
  const bits = new Uint32Array(Math.ceil(coverage.pages.length / BITS));
  coverage.pages.forEach((_, page) => {
    if (!['not', 'excluded'].includes(coverage.cell(page, campaign)))
      bits[page >> 5] = (bits[page >> 5] as number) | (1 << (page & 31));
  });
  return bits;
}
function commonPages(a: Uint32Array, b: Uint32Array): number {
  let count = 0;
  for (let n = 0; n < a.length; n++)
    for (let bits = (a[n] as number) & (b[n] as number); bits !== 0; bits &= bits - 1) count++;
  return count;
}

/** Whether both can be on some device, and want one place of its window. */
const wantOnePlace = (a: ManifestCampaign, b: ManifestCampaign): boolean =>
  DEVICES.some(
    (device: Device, at) =>
      hasDevice(a.devices & b.devices, device) && ((a.cells[at] as number) & (b.cells[at] as number)) !== 0,
  );

/** Where two lanes meet: at the same time, on the same pages, in the same place. The widest meetings come first. */
export function meetings(lanes: readonly Lane[], coverage: Coverage): readonly Meeting[] {
  const at = lanes.map(({ id }) => coverage.campaigns.findIndex((one) => one.id === id));
  const pages = at.map((campaign) => (campaign < 0 ? undefined : pagesOf(coverage, campaign)));
  const found: Meeting[] = [];
  lanes.forEach((lane, a) => {
    for (let b = a + 1; b < lanes.length; b++) {
      const [one, other] = [coverage.campaigns[at[a] as number], coverage.campaigns[at[b] as number]];
      const [mine, theirs] = [pages[a], pages[b]];
      if (!one || !other || !mine || !theirs || !wantOnePlace(one, other)) continue;
      const when = shared(lane.open, lanes[b]?.open ?? []);
      const common = when.length > 0 ? commonPages(mine, theirs) : 0;
      if (common === 0) continue;
      // Of two moments at once the one further up in the manifest goes first.
      const isFirst =
        earliestOf(one.moment) - earliestOf(other.moment) || (at[a] as number) - (at[b] as number);
      const [first, second] = isFirst < 0 ? [a, b] : [b, a];
      found.push({ first, second, pages: common, when });
    }
  });
  return found.sort((a, b) => b.pages - a.pages);
}

/** What two campaigns do to one another. */
export const meetingWords = ({ first, second, pages }: Meeting, lanes: readonly Lane[]): string =>
  `${quoted(lanes[first]?.name ?? '')} and ${quoted(lanes[second]?.name ?? '')} want one place on ${counted(pages, 'page')}: the first can open first, the other waits for it or gives way.`;

const DAY_MS = 86_400_000;

/** Days of a stretch as a zone's clocks have them: each begins at its midnight, and is as long as it is. */
export function localDays([fromMs, toMs]: Interval, zone: string): readonly Interval[] {
  const days: Interval[] = [];
  const first = Math.floor(wallClock(fromMs, zone) / DAY_MS);
  for (let day = first; ; day++) {
    const [begin, end] = [instantOf(day * DAY_MS, zone), instantOf((day + 1) * DAY_MS, zone)];
    if (begin >= toMs) return days;
    days.push([begin, end]);
  }
}

/** Weeks, from Monday to Monday by a zone's clocks, in which no campaign that is live is ever open. */
export function quietWeeks(lanes: readonly Lane[], stretch: Interval, zone: string): readonly Interval[] {
  const open = joined(lanes.flatMap(({ live }) => live));
  const days = localDays(stretch, zone);
  const mondays = days.filter(([begin]) => weekdayOf(Math.floor(wallClock(begin, zone) / DAY_MS)) === 1);
  return mondays
    .map(([begin]): Interval => [begin, instantOf(wallClock(begin, zone) + 7 * DAY_MS, zone)])
    .filter((week) => week[1] <= stretch[1] && shared([week], open).length === 0);
}

/** The days from one to another, both in it, as a zone's clocks have them. */
export const wholeDays = (
  { from, to }: { readonly from: string; readonly to: string },
  zone: string,
): Interval => [
  instantOf(Date.parse(`${from}T00:00Z`), zone),
  instantOf(Date.parse(`${to}T00:00Z`) + DAY_MS, zone),
];

/** Which of a schedule's days is moved. */
export type ScheduleEdge = 'start' | 'end' | 'both';

/** A schedule whose first day, last day or both lie some days later, or earlier; nothing where it would end before it begins. */
export function movedSchedule(schedule: Schedule, edge: ScheduleEdge, days: number): Schedule | undefined {
  const start = schedule.start && edge !== 'end' ? movedBy(schedule.start, days) : schedule.start;
  const end = schedule.end && edge !== 'start' ? movedBy(schedule.end, days) : schedule.end;
  return start !== null && end !== null && start >= end ? undefined : { ...schedule, start, end };
}

const movedBy = (local: string, days: number): string =>
  new Date(Date.parse(`${local}:00Z`) + days * DAY_MS).toISOString().slice(0, 16);
