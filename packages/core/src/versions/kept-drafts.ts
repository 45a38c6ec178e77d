/** From this age on, in seconds, one draft is kept of each stretch of so many seconds. */
export interface Thinning {
  readonly fromSeconds: number;
  readonly everySeconds: number;
}

const HOUR = 3600;
const DAY = 24 * HOUR;

/**
 * How earlier drafts grow fewer with age: every one for an hour, then one in ten minutes, in an hour from the second
 * day on, in a day after a month, in a week after a season.
 */
export const THINNINGS: readonly Thinning[] = [
  { fromSeconds: HOUR, everySeconds: 600 },
  { fromSeconds: DAY, everySeconds: HOUR },
  { fromSeconds: 30 * DAY, everySeconds: DAY },
  { fromSeconds: 90 * DAY, everySeconds: 7 * DAY },
];
/** Older ones are gone; what was published stays. */
export const DRAFTS_KEPT_SECONDS = 730 * DAY;

/** How coarsely drafts of an age are kept, in seconds; `0` where every one is. */
export const thinnedTo = (ageSeconds: number): number =>
  THINNINGS.filter(({ fromSeconds }) => ageSeconds >= fromSeconds).at(-1)?.everySeconds ?? 0;

/**
 * Which earlier drafts stay, of their times in seconds since 1970, in rising order: the last of each stretch, and always the
 * newest.
 */
export function keptDrafts(atSeconds: readonly number[], nowSeconds: number): number[] {
  const last = new Map<string, number>();
  for (const at of atSeconds) {
    const age = nowSeconds - at;
    if (age > DRAFTS_KEPT_SECONDS && at !== atSeconds.at(-1)) continue;
    const every = thinnedTo(age);
    last.set(every === 0 ? `at ${at}` : `${every} ${Math.floor(at / every)}`, at);
  }
  return [...last.values()];
}
