import type { Span } from '@velarium/contract';

/** Numbers as people write them out. */
const NAMED: Readonly<Record<string, number>> = {
  'half an': 0.5,
  'half a': 0.5,
  'a couple of': 2,
  an: 1,
  a: 1,
  one: 1,
  two: 2,
  three: 3,
  four: 4,
  five: 5,
  six: 6,
  seven: 7,
  eight: 8,
  nine: 9,
  ten: 10,
  eleven: 11,
  twelve: 12,
  fifteen: 15,
  twenty: 20,
  thirty: 30,
  forty: 40,
  'forty-five': 45,
  fifty: 50,
  sixty: 60,
  ninety: 90,
};
const ORDINALS = [
  'first',
  'second',
  'third',
  'fourth',
  'fifth',
  'sixth',
  'seventh',
  'eighth',
  'ninth',
  'tenth',
  'eleventh',
  'twelfth',
];
const TIMES: Readonly<Record<string, number>> = { once: 1, twice: 2, thrice: 3 };

/** Longer words first: “forty-five” is not “forty”. */
const anyOf = (words: readonly string[]): string => [...words].sort((a, b) => b.length - a.length).join('|');

const WHOLE = anyOf(Object.keys(NAMED));
/** A number in digits or words. */
export const COUNT = `(\\d+(?:\\.\\d+)?|${WHOLE})`;
export const numberOf = (said: string): number => NAMED[said.trim().toLowerCase()] ?? Number(said);

/** A number of times: `once`, `twice`, `3 times`, `three times`. */
export const TIMES_SAID = `(?:(${Object.keys(TIMES).join('|')})|${COUNT} times)`;
export const timesOf = (word: string | undefined, count: string | undefined): number =>
  word === undefined ? numberOf(count ?? '1') : (TIMES[word.toLowerCase()] ?? 1);

/** `4th`, `fourth`. */
export const ORDINAL = `(\\d+(?:st|nd|rd|th)|${anyOf(ORDINALS)})`;
export const ordinalOf = (said: string): number => {
  const named = ORDINALS.indexOf(said.toLowerCase());
  return named < 0 ? Number.parseInt(said, 10) : named + 1;
};

const SECONDS: Readonly<Record<string, number>> = { s: 1, m: 60, h: 3600 };
/** A number and its unit: `10s`, `1.5 minutes`, `half an hour`; a number in words stands apart from its unit. */
export const TIME = `(\\d+(?:\\.\\d+)? ?|(?:${WHOLE}) )(s|secs?|seconds?|mins?|minutes?|h|hours?)`;
/** Seconds, to the thousandth: a binary fraction more is not meant. */
export const secondsOf = (count: string, unit: string): number =>
  Math.round(numberOf(count) * (SECONDS[unit.charAt(0).toLowerCase()] ?? 1) * 1000) / 1000;

/** A number and a unit of the calendar: `3 days`, `a week`. */
export const SPAN = `${COUNT} (minutes?|hours?|days?|weeks?|months?)`;
export const spanOf = (count: string, unit: string): Span => ({
  count: numberOf(count),
  unit: `${unit.toLowerCase().replace(/s$/, '')}s` as Span['unit'],
});

/** A word or several, in capitals or not, and nothing else. */
export const only = (pattern: string): RegExp => new RegExp(`^(?:${pattern})$`, 'i');
