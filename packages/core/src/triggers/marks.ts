import type { Moment, Trigger } from '@velarium/contract';

/** A trigger with its place in the list of a moment. */
export type PlacedTrigger<Kind extends Trigger = Trigger> = { readonly trigger: Kind; readonly at: number };
type TimeTrigger = Extract<Trigger, { kind: 'time' }>;
type ScrollTrigger = Extract<Trigger, { kind: 'scroll' }>;

/** A moment's triggers by where a visit that is drawn as a line has a place for them. */
export interface MomentMarks {
  readonly timed: readonly PlacedTrigger<TimeTrigger>[];
  /** Depths in per cent; how deep a pixel lies differs from page to page. */
  readonly scrolled: readonly PlacedTrigger<ScrollTrigger>[];
  readonly others: readonly PlacedTrigger[];
  /** The second of the mark that decides, by the way the triggers are joined; `null` without time marks. */
  readonly decidingSecond: number | null;
  /** The last second anything is said of. */
  readonly lastSecond: number;
}

const isTime = (one: PlacedTrigger): one is PlacedTrigger<TimeTrigger> => one.trigger.kind === 'time';
const isDepth = (one: PlacedTrigger): one is PlacedTrigger<ScrollTrigger> =>
  one.trigger.kind === 'scroll' && one.trigger.unit === 'percent';

export function momentMarks({ join, triggers, notBeforeSeconds }: Moment): MomentMarks {
  const placed = triggers.map((trigger, at): PlacedTrigger => ({ trigger, at }));
  const timed = placed.filter(isTime);
  const seconds = timed.map(({ trigger }) => trigger.seconds);
  return {
    timed,
    scrolled: placed.filter(isDepth),
    others: placed.filter((one) => !isTime(one) && !isDepth(one)),
    decidingSecond:
      seconds.length === 0 ? null : join === 'any' ? Math.min(...seconds) : Math.max(...seconds),
    lastSecond: Math.max(0, notBeforeSeconds, ...seconds),
  };
}
