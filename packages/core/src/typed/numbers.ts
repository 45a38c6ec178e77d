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
  'a dozen': 12,
  thirteen: 13,
  fourteen: 14,
  fifteen: 15,
  sixteen: 16,
  seventeen: 17,
  eighteen: 18,
  nineteen: 19,
  'a hundred': 100,
  'one hundred': 100,
};
const TENS = ['twenty', 'thirty', 'forty', 'fifty', 'sixty', 'seventy', 'eighty', 'ninety'];
const ONES = ['one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];
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

/** `twenty` to `ninety-nine`, with a hyphen or a blank. */
const COMPOUND = `(?:${TENS.join('|')})(?:[- ](?:${ONES.join('|')}))?`;
const WHOLE = `${COMPOUND}|${anyOf(Object.keys(NAMED))}`;
/** A number in digits or words. */
export const COUNT = `(\\d+(?:\\.\\d+)?|${WHOLE})`;
export function numberOf(said: string): number {
  const text = said.trim().toLowerCase();
  const [ten = '', one = ''] = text.split(/[- ]/);
  const tens = TENS.indexOf(ten);
  return tens < 0 ? (NAMED[text] ?? Number(said)) : (tens + 2) * 10 + ONES.indexOf(one) + 1;
}

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
const secondsIn = (unit: string): number =>
  /^(?:ms|milli)/i.test(unit) ? 0.001 : (SECONDS[unit.charAt(0).toLowerCase()] ?? 1);
/** A number and its unit: `10s`, `300 ms`, `1.5 minutes`, `half an hour`; a number in words stands apart from its unit. */
export const TIME = `(\\d+(?:\\.\\d+)? ?|(?:${WHOLE}) )(ms|milliseconds?|s|secs?|seconds?|mins?|minutes?|h|hours?)`;
/** Seconds, to the thousandth: a binary fraction more is not meant. */
export const secondsOf = (count: string, unit: string): number =>
  Math.round(numberOf(count) * secondsIn(unit) * 1000) / 1000;

/** A number and a unit of the calendar: `3 days`, `a week`. */
export const SPAN = `${COUNT} (minutes?|hours?|days?|weeks?|months?)`;
export const spanOf = (count: string, unit: string): Span => ({
  count: numberOf(count),
  unit: `${unit.toLowerCase().replace(/s$/, '')}s` as Span['unit'],
});

/** A word or several, in capitals or not, and nothing else. */
export const only = (pattern: string): RegExp => new RegExp(`^(?:${pattern})$`, 'i');
