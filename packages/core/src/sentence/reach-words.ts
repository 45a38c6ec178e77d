import type { Audience, Condition, Device, PageRule, Pages } from '@velarium/contract';
import { DEVICES } from '@velarium/contract/values';
import { COMPARISON_WORDS, DEVICE_WORDS, listOf, quantity, quoted } from './words.ts';

function pageWords(page: PageRule): string {
  switch (page.kind) {
    case 'every':
      return 'every page';
    case 'exact':
      return page.address;
    case 'begins':
      return `what begins with ${page.address}`;
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
  }
}

export function pagesWords({ include, exclude }: Pages): string {
  const excluded = listOf(exclude.map(pageWords));
  if (include.length === 0)
    return exclude.length === 0 ? 'on no page yet' : `on no page yet, never on ${excluded}`;
  const isEvery = include.length === 1 && include[0]?.kind === 'every';
  const included = isEvery ? 'on every page' : `only on ${listOf(include.map(pageWords))}`;
  return exclude.length === 0 ? included : `${included} but not on ${excluded}`;
}

export function devicesWords(devices: readonly Device[]): string {
  const named = DEVICES.filter((device) => devices.includes(device));
  if (named.length === 0) return 'on no device yet';
  if (named.length === DEVICES.length) return 'on every device';
  return `on ${listOf(named.map((device) => DEVICE_WORDS[device]))} only`;
}

/** `for visitors who are returning and have at least 3 things in the basket`. */
export function audienceWords({ match, groups }: Audience): string {
  const said = groups.map((group) => {
    const items = group.items.map(({ not, condition }) =>
      not ? `not (${conditionWords(condition)})` : conditionWords(condition),
    );
    const joined = items.join(group.match === 'all' ? ' and ' : ' or ');
    // One condition needs no way of joining, yet the rule holds one; the bracket says which.
    const way = group.match === 'all' ? 'all of' : 'any of';
    return `${group.not ? 'not ' : ''}${way} (${joined})`;
  });
  return `for visitors with ${match === 'all' ? 'all of' : 'any of'}: ${said.join('; ')}`;
}

function conditionWords(condition: Condition): string {
  switch (condition.kind) {
    case 'visitor':
      return condition.is === 'new' ? 'a first session' : 'an earlier session';
    case 'sessions':
      return `${COMPARISON_WORDS[condition.comparison]} ${quantity(condition.count, 'session')}`;
    case 'views':
      return `${COMPARISON_WORDS[condition.comparison]} ${quantity(condition.count, 'page view')} in this session`;
    case 'signedIn':
      return condition.is ? 'a sign-in' : 'no sign-in';
    case 'source':
      return condition.is === 'site'
        ? 'an arrival from another site'
        : condition.is === 'direct'
          ? 'a direct arrival'
          : `an arrival from ${condition.is}`;
    case 'referrer':
      return `an arrival from the host ${quoted(condition.host)}`;
    case 'arrival':
      return `an arrival with ${quoted(condition.parameter)} being ${quoted(condition.value)}`;
    case 'landing':
      return `a session begun on ${quoted(condition.path)}`;
    case 'language':
      return `the language ${quoted(condition.code)}`;
    case 'country':
      return `the country ${quoted(condition.code)}`;
    case 'basketItems':
      return `${COMPARISON_WORDS[condition.comparison]} ${quantity(condition.count, 'thing')} in the basket`;
    case 'basketTotal':
      return `a basket worth ${COMPARISON_WORDS[condition.comparison]} ${condition.amount}`;
    case 'attribute':
      return `${quoted(condition.name)} being ${quoted(condition.value)}`;
    case 'campaign':
      return `${condition.id === null ? 'this campaign' : `the campaign ${quoted(condition.id)}`} ${condition.what} before`;
  }
}
