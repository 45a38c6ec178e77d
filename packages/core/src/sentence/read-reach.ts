import type { Audience, AudienceItem, Condition, Device, PageRule, Pages } from '@velarium/contract';
import { DEVICES, LIMITS, SOURCES } from '@velarium/contract/values';
import {
  as,
  either,
  joined,
  list,
  maybe,
  number,
  oneOf,
  ownWords,
  type Parser,
  quantityOf,
  said,
  words,
} from './parsers.ts';
import {
  BROWSER_WORDS,
  countryName,
  EARLIER_WORDS,
  FIRST_SESSION,
  placeName,
  SYSTEM_WORDS,
  sourceWords,
} from './reach-words.ts';
import { COMPARISON_WORDS, CONTRARY_WORDS, DEVICES_WORDS } from './words.ts';

/** Ids of what a site's names stand for. */
export interface Ids {
  readonly campaign: (name: string) => string | undefined;
  readonly group: (name: string) => string | undefined;
}

/** Addresses hold no blanks; a comma at the end may be the sentence's or their own. */
const address: Parser<string> = function* (text, at) {
  const [all = ''] = /^(?:\/|https?:\/\/)\S*/.exec(text.slice(at, at + LIMITS.pageAddress)) ?? [];
  const least = all.replace(/,+$/, '').length;
  for (let length = all.length; length >= least && length > 0; length--)
    yield [all.slice(0, length), at + length];
};

const named = (id: (name: string) => string | undefined): Parser<string> =>
  function* (text, at) {
    for (const [name, end] of ownWords(text, at)) {
      const known = id(name);
      if (known !== undefined) yield [known, end];
    }
  };

/** What `pageWords` says. */
export const pageSaid = ({ group }: Ids): Parser<PageRule> =>
  either<PageRule>(
    words('every page', { kind: 'every' }),
    as(said`addresses that begin with ${address}`, ([begin]) => ({ kind: 'begins', address: begin })),
    as(said`addresses with ${ownWords} in them`, ([text]) => ({ kind: 'contains', text })),
    as(said`addresses like ${address}`, ([pattern]) => ({ kind: 'wildcard', pattern })),
    as(said`addresses that match ${ownWords}`, ([pattern]) => ({ kind: 'regex', pattern })),
    as(said`pages of the kind ${ownWords}`, ([name]) => ({ kind: 'pageKind', name })),
    as(
      said`addresses with the parameter ${ownWords}${maybe(said` being ${ownWords}`, [null] as const)}`,
      ([name, [value]]) => ({ kind: 'parameter', name, value }),
    ),
    as(said`pages that hold ${ownWords}`, ([selector]) => ({ kind: 'holds', selector })),
    as(said`the pages of the group ${named(group)}`, ([id]) => ({ kind: 'group', id })),
    as(address, (exact) => ({ kind: 'exact', address: exact })),
  );

/** What `pagesWords` says. */
export function pagesSaid(ids: Ids): Parser<Pages> {
  const page = pageSaid(ids);
  const followed = as(said`the pages of the campaign ${named(ids.campaign)}`, ([id]) => ({ follows: id }));
  const included = as(list(either<PageRule | { follows: string }>(followed, page)), (all) => ({
    include: all.flatMap((one) => ('kind' in one ? one : [])),
    follows: all.flatMap((one) => ('follows' in one ? one.follows : []))[0] ?? null,
  }));
  const excluded = list(page, 'or');
  return either<Pages>(
    as(said`on no page yet${maybe(said`, never on ${excluded}`, [[]] as const)}`, ([[exclude]]) => ({
      include: [],
      exclude: [...exclude],
      follows: null,
    })),
    as(
      said`${maybe(words('only ', null), null)}on ${included}${maybe(said` but not on ${excluded}`, [[]] as const)}`,
      ([, { include, follows }, [exclude]]) => ({ include, exclude: [...exclude], follows }),
    ),
  );
}

/** What `devicesWords` says. */
export const devicesSaid: Parser<readonly Device[]> = either<readonly Device[]>(
  words('on no device yet', []),
  words('on every device', DEVICES),
  as(said`on ${list(oneOf(DEVICES_WORDS))} only`, ([devices]) => devices),
);

/** `Norway (no)`: the name goes with the code, so what is read is said again and compared. */
const place = (nameOf: (code: string) => string): Parser<string> =>
  function* (text, at) {
    for (const { 1: code = '' } of text.slice(at, at + 120).matchAll(/[(“]([a-z0-9-]{2,})[)”]/g)) {
      const name = nameOf(code);
      if (text.startsWith(name, at)) yield [code, at + name.length];
    }
  };

const compared = oneOf(COMPARISON_WORDS);
const timesSaid = (comparison: typeof compared) =>
  either<Condition>(
    as(said`${comparison} ${quantityOf('page view')} in this session`, ([how, count]) => ({
      kind: 'views',
      comparison: how,
      count,
    })),
    as(said`${comparison} ${quantityOf('session')}`, ([how, count]) => ({
      kind: 'sessions',
      comparison: how,
      count,
    })),
  );

/** What is said with “with” and “without”. */
const condition = ({ campaign }: Ids): Parser<Condition> =>
  either<Condition>(
    // People say this too.
    words('a first session', { kind: 'visitor', is: 'new' }),
    words('an earlier session', { kind: 'visitor', is: 'returning' }),
    words('a sign-in', { kind: 'signedIn', is: true }),
    words('a page that says they are signed out', { kind: 'signedIn', is: false }),
    timesSaid(compared),
    as(said`${compared} ${quantityOf('thing')} in the basket`, ([comparison, count]) => ({
      kind: 'basketItems',
      comparison,
      count,
    })),
    as(said`a basket worth ${compared} ${number}`, ([comparison, amount]) => ({
      kind: 'basketTotal',
      comparison,
      amount,
    })),
    as(said`an arrival from the host ${ownWords}`, ([host]) => ({ kind: 'referrer', host })),
    ...SOURCES.map((is) => words(sourceWords(is), { kind: 'source', is } as const)),
    as(said`an arrival with ${ownWords} being ${ownWords}`, ([parameter, value]) => ({
      kind: 'arrival',
      parameter,
      value,
    })),
    as(said`a session begun on ${ownWords}`, ([path]) => ({ kind: 'landing', path })),
    as(said`the language ${place((code) => placeName('language', code))}`, ([code]) => ({
      kind: 'language',
      code,
    })),
    as(oneOf(BROWSER_WORDS), (is) => ({ kind: 'browser', is })),
    as(
      said`${oneOf(EARLIER_WORDS)} of ${either<string | null>(
        words('this campaign', null),
        as(said`the campaign ${named(campaign)}`, ([id]) => id),
      )}`,
      ([what, id]) => ({ kind: 'campaign', id, what }),
    ),
    as(said`${ownWords} being ${ownWords}`, ([name, value]) => ({ kind: 'attribute', name, value })),
  );

type Group = Audience['groups'][number];

/** Things joined by one word throughout, and which it is; a single one is joined by “all”. */
const matched = <Value>(item: Parser<Value>) =>
  either<{ match: 'all' | 'any'; all: Value[] }>(
    as(joined(item, ' and '), (all) => ({ match: 'all', all })),
    as(joined(item, ' or '), (all) => ({ match: 'any', all })),
  );

/** What `audienceWords` says. */
export function audienceSaid(ids: Ids): Parser<Audience> {
  const isNot = either(words('not ', true), words('', false));
  const country = either(words('an unknown country', 'unknown'), place(countryName));
  const item = either<AudienceItem>(
    as(said`${isNot}from ${country}`, ([not, code]) => ({ not, condition: { kind: 'country', code } })),
    as(said`${isNot}on ${oneOf(SYSTEM_WORDS)}`, ([not, is]) => ({ not, condition: { kind: 'system', is } })),
    as(said`${isNot}in ${words(FIRST_SESSION, null)}`, ([not]) => ({
      not,
      condition: { kind: 'visitor', is: 'new' },
    })),
    as(said`with ${timesSaid(oneOf(CONTRARY_WORDS))}`, ([one]) => ({ not: true, condition: one })),
    as(said`${either(words('without', true), words('with', false))} ${condition(ids)}`, ([not, one]) => ({
      not,
      condition: one,
    })),
  );
  const group = (not: boolean): Parser<Group> =>
    as(matched(item), ({ match, all }) => ({ not, match, items: all }));
  const bracketed = either<Group>(
    as(said`not (${group(true)})`, ([one]) => one),
    as(said`(${group(false)})`, ([one]) => one),
  );
  const alone = (one: Group): Audience => ({ match: 'all', groups: [one] });
  return either<Audience>(
    as(said`for all visitors but those ${group(true)}`, ([one]) => alone(one)),
    as(said`for visitors ${group(false)}`, ([one]) => alone(one)),
    as(said`for visitors ${matched(bracketed)}`, ([{ match, all }]) => ({ match, groups: all })),
  );
}
