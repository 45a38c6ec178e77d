import type { Comparison, Condition, Device, PageRule } from '@velarium/contract';
import { pageRuleSchema } from '@velarium/contract';
import { DEVICES, SYSTEMS } from '@velarium/contract/values';
import { typedPage } from '../pages/typed-page.ts';
import { readWhole } from '../sentence/parsers.ts';
import { SYSTEM_WORDS } from '../sentence/reach-words.ts';
import { pageSaid } from '../sentence/read-reach.ts';
import { COUNT, numberOf, ORDINAL, only, ordinalOf } from './numbers.ts';
import { type Answer, addCondition, idsOf, type Reading, type SiteWords, type Way } from './reading.ts';

const DEVICE_NAMES: readonly [RegExp, Device][] = [
  [/^(?:mobile |smart)?(?:phones?|mobiles?)$|^mobile devices?$/i, 'mobile'],
  [/^tablets?$/i, 'tablet'],
  [/^(?:desktops?|laptops?|computers?|desktop computers?|pcs?)$/i, 'desktop'],
];
const deviceNamed = (name: string): Device | undefined =>
  DEVICE_NAMES.find(([names]) => names.test(name))?.[1];
const DEVICE =
  '((?:mobile |smart)?phones?|mobiles?|mobile devices?|tablets?|desktops?|laptops?|computers?|desktop computers?|pcs?)';

const HOME = /^(?:home|home ?page|front ?page|start ?page|landing page|first page of the site)$/;

const lowered = new WeakMap<SiteWords['pages'], readonly string[]>();
/** Titles in small letters, page by page; made once for a list. */
function titlesOf(pages: SiteWords['pages']): readonly string[] {
  const made = lowered.get(pages) ?? pages.map(({ title }) => title.toLowerCase());
  lowered.set(pages, made);
  return made;
}

/** The pages somebody means by a word: as the sentence says them, a group, a kind, a folder or a page, in this order. */
function pagesMeant(typed: string, words: SiteWords): PageRule[] {
  const { pages, groups, kinds } = words;
  const told = readWhole(pageSaid(idsOf(words)), typed);
  // An address is read as somebody types it: a star or a last slash means something.
  if (told && told.kind !== 'exact') return pageRuleSchema.safeParse(told).success ? [told] : [];
  if (/^(\/|https?:)/.test(typed)) return [typedPage(typed)].filter((rule) => rule !== undefined);
  const wanted = typed
    .toLowerCase()
    .replace(/^(?:on |in |under )/, '')
    .replace(
      /^(?:the pages? (?:of|under|in)|pages? (?:of|under|in)|every(?:thing)?(?: page)? (?:under|in)|the|all|every|any)\s+(?:the\s+)?/,
      '',
    )
    .replace(/\s+(?:pages?|section|area)$/, '');
  if (wanted === '') return [];
  if (/^(?:\/|https?:)/.test(wanted)) return pagesMeant(wanted, words);
  const group = groups.find(({ name }) => name.toLowerCase() === wanted);
  if (group) return [{ kind: 'group', id: group.id }];
  const single = wanted.replace(/s$/, '');
  const kind = kinds.find((one) => one.toLowerCase() === wanted || one.toLowerCase() === single);
  if (kind !== undefined) return [{ kind: 'pageKind', name: kind }];
  const titles = titlesOf(pages);
  const page = pages[titles.indexOf(wanted)];
  if (page) return [{ kind: 'exact', address: page.path }];
  if (HOME.test(wanted)) return [{ kind: 'exact', address: '/' }];
  const path = `/${wanted.replaceAll(' ', '-')}`;
  if (pages.some((one) => one.path.startsWith(`${path}/`))) return [{ kind: 'begins', address: `${path}/` }];
  if (pages.some((one) => one.path === path)) return [{ kind: 'exact', address: path }];
  const parts = pages.filter((_, n) => titles[n]?.includes(wanted));
  return parts.length === 1 && parts[0] ? [{ kind: 'exact', address: parts[0].path }] : [];
}

/** Takes the pages meant into a list; a name the site has not is nothing. */
function take(list: PageRule[], typed: string, words: SiteWords): Answer {
  const meant = pagesMeant(typed, words);
  list.push(...meant);
  return meant.length > 0;
}
const EVERYWHERE =
  '(?:on |across )?(?:everywhere|anywhere|(?:every|each|any) page|all (?:the )?pages|(?:the )?(?:whole|entire) site)';
const BUT = '(?:but(?: not)?|except(?: for)?|apart from|other than|save|without|not|never)(?: on| in)?';

/** A rule by what stands in an address, or on the page. */
const byContent: readonly Way[] = [
  [
    only(
      '(?:only )?(?:on |where )?(?:pages |addresses |the address )?(?:that |which )?(?:with|contain(?:s|ing)?|includ(?:es?|ing)) (?:“([^”]+)”|"([^"]+)"|([\\w/-]+)) in (?:the|their) address|(?:only )?(?:on |where )?(?:pages|addresses|the address) (?:that |which )?(?:contain(?:s|ing)?|includ(?:es?|ing)) (?:“([^”]+)”|"([^"]+)"|([\\w/-]+))',
    ),
    ([, ...texts], { include }) => add(include, { kind: 'contains', text: texts.find(Boolean) ?? '' }),
  ],
  [
    only('(?:only )?(?:on )?(?:pages |addresses )?with (?:the parameter )?\\?([\\w.-]+)(?:=([^\\s]+))?'),
    ([, name = '', value], { include }) => add(include, { kind: 'parameter', name, value: value ?? null }),
  ],
  [
    only(
      '(?:only )?(?:on )?pages (?:with|that have|that hold|having) (?:an? |the )?(?:element )?(“[^”]+”|"[^"]+"|[.#[][^\\s]+)',
    ),
    ([, selector = ''], { include }) =>
      add(include, { kind: 'holds', selector: selector.replace(/^[“"]|[”"]$/g, '') }),
  ],
];
const add = (list: PageRule[], rule: PageRule): Answer =>
  pageRuleSchema.safeParse(rule).success ? list.push(rule) > 0 : 'out of range';

const condition =
  (one: Condition, not = false): Way[1] =>
  (_, reading) =>
    addCondition(reading, one, not);

const WHO =
  '(?:(?:only )?(?:for |to )?(?:the )?(?:visitors|readers|people|those|everybody|somebody|anyone|guests)(?: who(?:’re|’ve)?)? ?)?(?:who )?(?:are |is |have |has )?';
const NOT = "(not |never |(?:have|has|are|is)(?:n’t|n't) )?";
const more = (said: string | undefined): Comparison =>
  /^(?:under|below|less|fewer|at most|up to|no more)/i.test(said ?? '')
    ? 'atMost'
    : /^(?:exactly|just)/i.test(said ?? '')
      ? 'exactly'
      : 'atLeast';
const COMPARED =
  '(at least|more than|over|above|from|exactly|just|under|below|less than|fewer than|at most|up to|no more than)';
const THINGS = '(?:things?|items?|articles?|products?|pieces?)';
/** “More than three” things are four or more; of an amount of money the border itself is let be. */
const wholeOf = (said: string | undefined, count: number): number =>
  /^(?:more than|over|above)$/i.test(said ?? '')
    ? count + 1
    : /^(?:under|below|less than|fewer than)$/i.test(said ?? '')
      ? Math.max(count - 1, 0)
      : count;

const SOURCE_NAMES: readonly [string, Extract<Condition, { kind: 'source' }>['is']][] = [
  ['(?:an? |the )?search(?: engines?| results?)?', 'search'],
  ['(?:an? |the )?social(?: media| networks?| sites?)?', 'social'],
  ['(?:an? |the |our )?(?:e-?mails?|newsletters?|mailings?)', 'mail'],
  ['(?:an? |the )?(?:other|another) (?:web ?)?sites?', 'site'],
];

const lookUp = new Map<string, ReadonlyMap<string, string>>();
/** Codes by their English names, as CLDR has them and the browser carries them. */
function codesOf(type: 'region' | 'language'): ReadonlyMap<string, string> {
  const known = lookUp.get(type);
  if (known) return known;
  const names = new Intl.DisplayNames('en-GB', { type, fallback: 'none' });
  const letters = [...'abcdefghijklmnopqrstuvwxyz'];
  const codes = letters.flatMap((first) => letters.map((second) => first + second));
  const made = new Map(
    codes.flatMap((code) => {
      const name = names.of(type === 'region' ? code.toUpperCase() : code);
      return name === undefined ? [] : [[name.toLowerCase(), code] as const];
    }),
  );
  lookUp.set(type, made);
  return made;
}
const OTHER_NAMES: Readonly<Record<string, string>> = {
  'the united kingdom': 'gb',
  uk: 'gb',
  'the uk': 'gb',
  britain: 'gb',
  'great britain': 'gb',
  'the united states': 'us',
  usa: 'us',
  'the usa': 'us',
  'the us': 'us',
  'the netherlands': 'nl',
};

/** Ways of saying who. */
const audienceWays: readonly Way[] = [
  [
    only(`${WHO}${NOT}(?:being )?(?:signed|logged)[- ]?in`),
    ([, not], reading) => addCondition(reading, { kind: 'signedIn', is: true }, Boolean(not)),
  ],
  [
    only(`${WHO}without (?:a sign-in|an account)|${WHO}(?:signed|logged)[- ]?out`),
    condition({ kind: 'signedIn', is: true }, true),
  ],
  [
    only(
      '(?:only )?(?:for |to )?(?:new|first[- ]time) (?:visitors?|readers?|people|guests?)(?: only)?|(?:only )?(?:on|in|for|during) (?:the|their|a) (?:very )?first (?:session|visit)|who (?:are|is) new',
    ),
    condition({ kind: 'visitor', is: 'new' }),
  ],
  [
    only(
      `(?:only )?(?:for |to )?(?:returning|repeat) (?:visitors?|readers?|people|guests?)(?: only)?|${WHO}(?:been )?here before|who (?:come|came|have come) back`,
    ),
    condition({ kind: 'visitor', is: 'returning' }),
  ],
  [
    only(`(?:only )?(?:on|in|for|during|at) (?:the|their) ${ORDINAL} (?:session|visit)(?: only)?`),
    ([, nth = ''], reading) =>
      addCondition(reading, { kind: 'sessions', comparison: 'exactly', count: ordinalOf(nth) }),
  ],
  [
    only(`${WHO}(?:been here |with )?${COMPARED} ${COUNT} (?:sessions?|visits?|times)`),
    ([, compared, count = ''], reading) =>
      addCondition(reading, {
        kind: 'sessions',
        comparison: more(compared),
        count: wholeOf(compared, numberOf(count)),
      }),
  ],
  [
    only(
      `${WHO}(?:with |seen |read )?${COMPARED} ${COUNT} pages?(?: views?)?(?: seen| read)?(?: (?:in|of) (?:this|the) (?:session|visit))?`,
    ),
    ([, compared, count = ''], reading) =>
      addCondition(reading, {
        kind: 'views',
        comparison: more(compared),
        count: wholeOf(compared, numberOf(count)),
      }),
  ],
  ...SOURCE_NAMES.map(
    ([said, is]): Way => [
      only(
        `${WHO}${NOT}(?:com(?:e|es|ing) |came |arriv(?:ed|e|ing) )?(?:in )?(?:from|through|by|via) ${said}`,
      ),
      ([, not], reading) => addCondition(reading, { kind: 'source', is }, Boolean(not)),
    ],
  ),
  [
    only(
      `${WHO}${NOT}(?:com(?:e|es|ing) |came |arriv(?:ed|e|ing) )?direct(?:ly)?(?: (?:visitors|arrivals))?|who (?:not )?typed the address`,
    ),
    ([, not], reading) => addCondition(reading, { kind: 'source', is: 'direct' }, Boolean(not)),
  ],
  [
    only(
      `${WHO}${NOT}(?:com(?:e|es|ing) |came |arriv(?:ed|e|ing) )?from (?:the (?:host|site|website) )?((?:https?://)?[\\w-]+(?:\\.[\\w-]+)*\\.[a-z]{2,}(?:/\\S*)?)`,
    ),
    ([, not, host = ''], reading) => addCondition(reading, { kind: 'referrer', host }, Boolean(not)),
  ],
  [
    only(`${WHO}(?:arriv(?:ed|ing) )?with (?:the parameter )?(\\w+)=(\\S+)`),
    ([, parameter = '', value = ''], reading) => addCondition(reading, { kind: 'arrival', parameter, value }),
  ],
  [
    only(
      `${WHO}${NOT}(?:having )?(?:land(?:ed|ing)?|beg[aiu]n|began|start(?:ed|ing)?|entered|arriv(?:ed|ing)) (?:on|at) (/\\S*)`,
    ),
    ([, not, path = ''], reading) => addCondition(reading, { kind: 'landing', path }, Boolean(not)),
  ],
  [
    only(`${WHO}(?:with )?(?:an? )?(?:empty basket|basket (?:that is )?empty)|with nothing in the basket`),
    condition({ kind: 'basketItems', comparison: 'atMost', count: 0 }),
  ],
  [
    only(`${WHO}with (?:something|anything|things) in (?:the|their) basket|with a (?:full|filled) basket`),
    condition({ kind: 'basketItems', comparison: 'atLeast', count: 1 }),
  ],
  [
    only(
      `${WHO}(?:with )?(?:${COMPARED} )?${COUNT} ${THINGS} in (?:the|their|a) basket(?:,? (?:and )?(?:worth|costing|for) (?:${COMPARED} )?(\\d+(?:\\.\\d+)?))?`,
    ),
    ([, compared, count = '', worthCompared, worth], reading) => {
      const things = addCondition(reading, {
        kind: 'basketItems',
        comparison: more(compared),
        count: wholeOf(compared, numberOf(count)),
      });
      if (things !== true || worth === undefined) return things;
      return addCondition(reading, {
        kind: 'basketTotal',
        comparison: more(worthCompared),
        amount: Number(worth),
      });
    },
  ],
  [
    only(
      `${WHO}(?:with )?(?:an? |the )?basket (?:is )?(?:(?:worth|of|total(?:ling)?) )?(?:${COMPARED} )?(\\d+(?:\\.\\d+)?)`,
    ),
    ([, compared, amount = ''], reading) =>
      addCondition(reading, { kind: 'basketTotal', comparison: more(compared), amount: Number(amount) }),
  ],
  [
    only(`(?:only )?(?:on|with|using) (?:the )?(${SYSTEMS.filter((one) => one !== 'other').join('|')})`),
    ([, named = ''], reading) => {
      const is = SYSTEMS.find((one) => SYSTEM_WORDS[one].toLowerCase() === named.toLowerCase());
      return is ? addCondition(reading, { kind: 'system', is }) : false;
    },
  ],
  [
    only(
      `${WHO}${NOT}(?:yet )?(seen|closed|converted(?: in| on| by)?|answered|signed up (?:in|to|by)|met) (?:this(?: campaign| message)?|it)(?: before| already| yet)?`,
    ),
    ([, not, deed = ''], reading) => {
      const what = /^c(?:l)/i.test(deed) ? 'closed' : /^(?:se|m)/i.test(deed) ? 'seen' : 'converted';
      return addCondition(reading, { kind: 'campaign', id: null, what }, Boolean(not));
    },
  ],
  [
    only(`${WHO}${NOT}(?:living |who are )?(?:in|from) ([a-z][a-z .’'-]+)`),
    ([, not, name = ''], reading) => {
      const code = OTHER_NAMES[name.toLowerCase()] ?? codesOf('region').get(name.toLowerCase());
      return code ? addCondition(reading, { kind: 'country', code }, Boolean(not)) : false;
    },
  ],
  [
    only(
      `${WHO}${NOT}(?:speaking|reading|whose (?:browser|language) is(?: in)?|with the language|in) ([a-z]+)`,
    ),
    ([, not, name = ''], reading) => {
      const code = codesOf('language').get(name.toLowerCase());
      return code ? addCondition(reading, { kind: 'language', code }, Boolean(not)) : false;
    },
  ],
];

const onDevice = (reading: Reading, name: string, isNot: boolean): Answer => {
  const device = deviceNamed(name);
  if (!device) return false;
  (isNot ? reading.withoutDevices : reading.devices).push(device);
  return true;
};

/** Ways of saying where, and for whom. */
export const REACH_WAYS: readonly Way[] = [
  [
    only('(?:on |for )?(?:every|all|any) devices?'),
    (_, { devices }) => {
      devices.push(...DEVICES);
      return true;
    },
  ],
  [
    only(`(?:on |for )?(?:every|all|any) devices? ${BUT} ${DEVICE}`),
    ([, name = ''], reading) => {
      reading.devices.push(...DEVICES);
      return onDevice(reading, name, true);
    },
  ],
  [
    only(`(not |never |no |without |(?:but )?not |except )(?:on |for )?(?:an? |the )?${DEVICE}`),
    ([, , name = ''], reading) => onDevice(reading, name, true),
  ],
  [
    only(`(?:only |just )?(?:on |for |to )?(?:an? |the )?${DEVICE}(?: users| visitors)?(?: only| alone)?`),
    ([, name = ''], reading) => onDevice(reading, name, false),
  ],
  [only(EVERYWHERE), (_, { include }) => include.push({ kind: 'every' }) > 0],
  [
    only(`${EVERYWHERE},? ${BUT} (.+)`),
    ([, typed = ''], { include, exclude }, words) => {
      const answer = take(exclude, typed, words);
      if (answer === true) include.push({ kind: 'every' });
      return answer;
    },
  ],
  ...byContent,
  ...audienceWays.slice(0, -2),
  [
    only('(?:but )?(?:not|never|nowhere|nothing) (?:on|in|under|at) (.+)'),
    ([, typed = ''], { exclude }, words) => take(exclude, typed, words),
  ],
  [
    only('(?:only |just )?(?:on|in|under|anywhere (?:on|in|under)|somewhere (?:on|in|under)) (.+)'),
    ([, typed = ''], { include }, words) => take(include, typed, words),
  ],
  // A country or a language may be called as a page is; the page goes first.
  ...audienceWays.slice(-2),
  [only('(?:only |just )(.+)'), ([, typed = ''], { include }, words) => take(include, typed, words)],
];
