import type {
  Audience,
  AudienceItem,
  Browser,
  Condition,
  Device,
  PageRule,
  Pages,
  System,
} from '@velarium/contract';
import { DEVICES, type Source } from '@velarium/contract/values';
import type { Names } from './names.ts';
import { COMPARISON_WORDS, CONTRARY_WORDS, DEVICES_WORDS, listOf, quantity, quoted } from './words.ts';

/** One page rule as the sentence says it. */
export function pageWords(page: PageRule, names: Names): string {
  switch (page.kind) {
    case 'every':
      return 'every page';
    case 'exact':
      return page.address;
    case 'begins':
      return `addresses that begin with ${page.address}`;
    case 'contains':
      return `addresses with ${quoted(page.text)} in them`;
    case 'wildcard':
      return `addresses like ${page.pattern}`;
    case 'regex':
      return `addresses that match ${quoted(page.pattern)}`;
    case 'pageKind':
      return `pages of the kind ${quoted(page.name)}`;
    case 'parameter':
      return page.value === null
        ? `addresses with the parameter ${quoted(page.name)}`
        : `addresses with the parameter ${quoted(page.name)} being ${quoted(page.value)}`;
    case 'holds':
      return `pages that hold ${quoted(page.selector)}`;
    case 'group':
      return `the pages of the group ${quoted(names.group(page.id))}`;
  }
}

export function pagesWords({ include, exclude, follows }: Pages, names: Names): string {
  const wordsOf = (page: PageRule) => pageWords(page, names);
  const excluded = listOf(exclude.map(wordsOf), 'or');
  const followed = follows === null ? [] : [`the pages of the campaign ${quoted(names.campaign(follows))}`];
  if (include.length + followed.length === 0)
    return exclude.length === 0 ? 'on no page yet' : `on no page yet, never on ${excluded}`;
  const only = include.some(({ kind }) => kind === 'every') ? '' : 'only ';
  const included = `${only}on ${listOf([...followed, ...include.map(wordsOf)])}`;
  return exclude.length === 0 ? included : `${included} but not on ${excluded}`;
}

export function devicesWords(devices: readonly Device[]): string {
  const named = DEVICES.filter((device) => devices.includes(device));
  if (named.length === 0) return 'on no device yet';
  if (named.length === DEVICES.length) return 'on every device';
  return `on ${listOf(named.map((device) => DEVICES_WORDS[device]))} only`;
}

/**
 * `for visitors with an earlier session and without a sign-in`; several groups stand in brackets,
 * `for visitors (with a sign-in) or not (in their first session)`. How a single condition or group is joined says nothing.
 */
export function audienceWords({ match, groups }: Audience, names: Names): string {
  const said = groups.map((group) =>
    group.items.map((item) => audienceItemWords(item, names)).join(group.match === 'all' ? ' and ' : ' or '),
  );
  const [only = ''] = said;
  if (groups.length === 1) {
    return groups[0]?.not ? `for all visitors but those ${only}` : `for visitors ${only}`;
  }
  const bracketed = said.map((words, n) => `${groups[n]?.not ? 'not ' : ''}(${words})`);
  return `for visitors ${bracketed.join(match === 'all' ? ' and ' : ' or ')}`;
}

export const BROWSER_WORDS: Readonly<Record<Browser, string>> = {
  chromium: 'a browser of the Chromium family',
  gecko: 'a browser of the Gecko family',
  webkit: 'a browser of the WebKit family',
  other: 'another browser',
};
export const SYSTEM_WORDS: Readonly<Record<System, string>> = {
  ios: 'iOS',
  android: 'Android',
  windows: 'Windows',
  macos: 'macOS',
  linux: 'Linux',
  other: 'another system',
};

/** `Norway (no)`: the code tells apart what goes by one name. Source: Unicode CLDR, as the browser carries it. */
export function placeName(type: 'region' | 'language', code: string): string {
  try {
    const name = new Intl.DisplayNames('en-GB', { type }).of(type === 'region' ? code.toUpperCase() : code);
    return `${name} (${code})`;
  } catch {
    // Not every code that may be written is one that may be looked up.
    return quoted(code);
  }
}

export function sourceWords(source: Source): string {
  if (source === 'direct') return 'a direct arrival';
  return `an arrival from ${source === 'site' ? 'another site' : source}`;
}

/** Regions whose name goes with an article in English. Common practice. */
const WITH_ARTICLE = /^(?:ae|bs|cc|cd|cf|cg|ck|do|fk|fo|gb|gm|io|ky|mh|mp|mv|nl|ph|sb|sc|tc|tf|um|us|vg|vi)$/;

/** `Norway (no)`, `the Netherlands (nl)`, `an unknown country`: where somebody is from. */
export const countryName = (code: string): string =>
  code === 'unknown'
    ? 'an unknown country'
    : `${WITH_ARTICLE.test(code) ? 'the ' : ''}${placeName('region', code)}`;

export const FIRST_SESSION = 'their first session';

/** `with an earlier session`, `without a sign-in`, `not from Norway (no)`, `on Windows`, `in their first session`. */
export function audienceItemWords({ not, condition }: AudienceItem, names: Names): string {
  const isNot = not ? 'not ' : '';
  if (condition.kind === 'country') return `${isNot}from ${countryName(condition.code)}`;
  if (condition.kind === 'system') return `${isNot}on ${SYSTEM_WORDS[condition.is]}`;
  if (condition.kind === 'visitor' && condition.is === 'new') return `${isNot}in ${FIRST_SESSION}`;
  // Always known, so that what is not at most five is more than five.
  if (condition.kind === 'sessions' || condition.kind === 'views')
    return `with ${timesWords(condition, not ? CONTRARY_WORDS : COMPARISON_WORDS)}`;
  return `${not ? 'without' : 'with'} ${conditionWords(condition, names)}`;
}

/** `at least 3 sessions`, `fewer than 2 page views in this session`. */
const timesWords = (
  { kind, comparison, count }: Extract<Condition, { kind: 'sessions' | 'views' }>,
  compared: typeof COMPARISON_WORDS,
): string =>
  `${compared[comparison]} ${kind === 'sessions' ? quantity(count, 'session') : `${quantity(count, 'page view')} in this session`}`;

/** What somebody did with a campaign earlier. */
export const EARLIER_WORDS = {
  seen: 'an earlier showing',
  closed: 'an earlier close',
  converted: 'an earlier conversion',
} as const;

/** One condition by itself, as it is listed. */
export function conditionWords(condition: Condition, names: Names): string {
  switch (condition.kind) {
    case 'visitor':
      return condition.is === 'new' ? FIRST_SESSION : 'an earlier session';
    case 'sessions':
    case 'views':
      return timesWords(condition, COMPARISON_WORDS);
    case 'signedIn':
      // Not the same as “without a sign-in”, which those of whom nothing is known are too.
      return condition.is ? 'a sign-in' : 'a page that says they are signed out';
    case 'source':
      return sourceWords(condition.is);
    case 'referrer':
      return `an arrival from the host ${quoted(condition.host)}`;
    case 'arrival':
      return `an arrival with ${quoted(condition.parameter)} being ${quoted(condition.value)}`;
    case 'landing':
      return `a session begun on ${quoted(condition.path)}`;
    case 'language':
      return `the language ${placeName('language', condition.code)}`;
    case 'country':
      return `somebody from ${countryName(condition.code)}`;
    case 'browser':
      return BROWSER_WORDS[condition.is];
    case 'system':
      return SYSTEM_WORDS[condition.is];
    case 'basketItems':
      return `${COMPARISON_WORDS[condition.comparison]} ${quantity(condition.count, 'thing')} in the basket`;
    case 'basketTotal':
      return `a basket worth ${COMPARISON_WORDS[condition.comparison]} ${condition.amount}`;
    case 'attribute':
      return `${quoted(condition.name)} being ${quoted(condition.value)}`;
    case 'campaign':
      return `${EARLIER_WORDS[condition.what]} of ${condition.id === null ? 'this campaign' : `the campaign ${quoted(names.campaign(condition.id))}`}`;
  }
}
