import type { Comparison, Condition } from '@velarium/contract';
import { SYSTEMS } from '@velarium/contract/values';
import { SYSTEM_WORDS } from '../sentence/reach-words.ts';
import { COUNT, numberOf, ORDINAL, only, ordinalOf } from './numbers.ts';
import { addCondition, onReach, setOnce, type Way } from './reading.ts';

const condition =
  (one: Condition, not = false): Way[1] =>
  (_, reading) =>
    addCondition(reading, one, not);

const PEOPLE = '(?:visitors?|readers?|people|users?|customers?|shoppers|ones)';
/** Who is called a member is signed in, which is said besides. */
const MEMBERS = `(?:${PEOPLE}|members)`;
const WHO = `(?:(?:only )?(?:for |to )?(?:the )?(?:${PEOPLE}|those|(?:every|some|any)(?:body|one))(?: who(?:’re|’ve)?)? ?)?(?:who )?(?:are |is |have |has )?`;
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
  ['(?:an? |the |our )?(?:e-?mails?|mails?|newsletters?|mailings?)', 'mail'],
  ['(?:an? |the )?(?:other|another) (?:web ?)?sites?', 'site'],
];

const lookUp = new Map<string, ReadonlyMap<string, string>>();
/** Codes by their English names, as CLDR has them and the browser carries them. */
function codesOf(type: 'region' | 'language'): ReadonlyMap<string, string> {
  const known = lookUp.get(type);
  if (known) return known;
  const names = new Intl.DisplayNames('en-GB', { type, fallback: 'none' });
  const letters = [...'abcdefghijklmnopqrstuvwxyz'];
  // A code that has given way to another bears the same name.
  const isCurrent = (code: string) =>
    type === 'region'
      ? new Intl.Locale(`und-${code}`).region === code.toUpperCase()
      : new Intl.Locale(code).language === code;
  const codes = letters.flatMap((first) => letters.map((second) => first + second)).filter(isCurrent);
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
  us: 'us',
  'the netherlands': 'nl',
};

/** What somebody did to a campaign. */
const deedOf = (said: string): Extract<Condition, { kind: 'campaign' }>['what'] =>
  /^cl/i.test(said) ? 'closed' : /^(?:se|sa|m)/i.test(said) ? 'seen' : 'converted';

/** Ways of saying who. */
export const WHO_WAYS: readonly Way[] = [
  [
    only(
      `(?:(?:if|when|while) )?(?:they(?:’re|'re)? )?${WHO}${NOT}(?:being )?(?:signed|logged)[- ]?in(?: ${MEMBERS})?|(?:only )?(not )?(?:for |to )?(?:the |our )?(?:(?:signed|logged)[- ]?in )?members(?: only)?`,
    ),
    ([, not, other], reading) => addCondition(reading, { kind: 'signedIn', is: true }, Boolean(not ?? other)),
  ],
  [only(`${WHO}with (?:a sign-in|an account|a log-?in)`), condition({ kind: 'signedIn', is: true })],
  [
    only(
      `${WHO}without (?:a sign-in|an account|a log-?in)|${WHO}(?:signed|logged)[- ]?out(?: ${PEOPLE})?|(?:only |for |to )+(?:signed|logged)[- ]?out(?: ${PEOPLE})?|(?:for |to )?non-?members`,
    ),
    condition({ kind: 'signedIn', is: true }, true),
  ],
  [
    only(
      `(?:only )?(?:for |to )?(?:new|first[- ]time) ${PEOPLE}(?: only)?|(?:only )?(?:(?:on|in|for|during) )?(?:(?:the|their|a) )?(?:very )?first (?:session|visit)(?: only)?|who (?:are|is) new`,
    ),
    condition({ kind: 'visitor', is: 'new' }),
  ],
  [
    only(
      `(?:only )?(?:for |to )?(?:returning|repeat) ${PEOPLE}(?: only)?|${WHO}(?:been )?here before|(?:who (?:come|came|have come)|${WHO}coming) back`,
    ),
    condition({ kind: 'visitor', is: 'returning' }),
  ],
  [
    only(`(?:only )?(?:(?:on|in|for|during|at) )?(?:(?:the|their) )?${ORDINAL} (?:session|visit)(?: only)?`),
    ([, nth = ''], reading) =>
      addCondition(reading, { kind: 'sessions', comparison: 'exactly', count: ordinalOf(nth) }),
  ],
  [
    only(
      `(?:only )?(?:for )?(?:(?:those|${PEOPLE}) )?(?:(?:on|in|for) )?(?:(?:the|their) )?${ORDINAL} (?:session|visit) (?:or|and) (?:later|after(?:wards)?|more)`,
    ),
    ([, nth = ''], reading) =>
      addCondition(reading, { kind: 'sessions', comparison: 'atLeast', count: ordinalOf(nth) }),
  ],
  [
    only('(?:for |to )?(?:everyone|everybody|anyone|anybody|all (?:visitors|people|readers))'),
    (_, reading) =>
      reading.conditions.length > 0
        ? 'something else was said before'
        : setOnce(reading, 'audience', null, onReach({ audience: null })),
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
  [
    only(
      `not before (?:the )?(?:${COUNT} pages(?: views?)?|${ORDINAL} page(?: view)?)(?: (?:into|in|of) (?:the|this|a) (?:session|visit))?`,
    ),
    ([, count, nth], reading) =>
      addCondition(reading, {
        kind: 'views',
        comparison: 'atLeast',
        count: count === undefined ? ordinalOf(nth ?? '') : numberOf(count),
      }),
  ],
  ...SOURCE_NAMES.map(
    ([said, is]): Way => [
      only(
        `(?:only )?(?:source(?: is|:| =)? |${WHO}${NOT}(?:com(?:e|es|ing) |came |arriv(?:ed|e|ing) |(?:if |when )(?:they |the visitor )?(?:came|come|arrived?|arrives) )?(?:in )?(?:from|through|by|via) )${said}`,
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
      `${WHO}${NOT}(?:com(?:e|es|ing) |came |arriv(?:ed|e|ing) )?(?:from|via|through|by way of|referred by) (?:the (?:host|site|website|partner) )?((?:https?://)?[\\w-]+(?:\\.[\\w-]+)*\\.[a-z]{2,}(?:/\\S*)?)`,
    ),
    ([, not, host = ''], reading) => addCondition(reading, { kind: 'referrer', host }, Boolean(not)),
  ],
  [
    only(
      `${WHO}(?:arriv(?:ed|ing) )?with (?:the parameter )?(\\w+)=(\\S+)|(?:if |when |where |with |whose )?(?:the parameter )?(utm_\\w+)(?: (?:is|=|equals|being))? [“"]?([^\\s”"]+)[”"]?`,
    ),
    ([, parameter, value, other = '', otherValue = ''], reading) =>
      addCondition(reading, {
        kind: 'arrival',
        parameter: parameter ?? other,
        value: value ?? otherValue,
      }),
  ],
  [
    only(
      `${WHO}${NOT}(?:having )?(?:land(?:ed|ing)?|beg[aiu]n|began|start(?:ed|ing)?|entered|arriv(?:ed|ing)) (?:on|at) (/\\S*)`,
    ),
    ([, not, path = ''], reading) => addCondition(reading, { kind: 'landing', path }, Boolean(not)),
  ],
  [
    only(
      `${WHO}(?:with )?(?:an? )?(?:empty basket|basket (?:that is )?empty)|with nothing in (?:the|their) basket|(?:when |if |while )?(?:the|their) basket is empty|(?:only )?(?:for |with )an empty basket`,
    ),
    condition({ kind: 'basketItems', comparison: 'atMost', count: 0 }),
  ],
  [
    only(
      `${WHO}with (?:something|anything|things) in (?:the|their) basket|with a (?:full|filled|non-empty) basket|(?:when |if |while )?(?:the|their) basket (?:is not|isn’t|isn't) empty|(?:when |if |while )?(?:there is |there’s |there's )?(?:something|anything) (?:is )?in (?:the|their) basket`,
    ),
    condition({ kind: 'basketItems', comparison: 'atLeast', count: 1 }),
  ],
  [
    only(
      `${WHO}(?:with )?(?:${COMPARED} )?${COUNT} ${THINGS} in (?:the|their|a) basket(?:,? (?:and )?(?:worth|costing|for) (?:${COMPARED} )?(\\d+(?:\\.\\d+)?))?(?: together| altogether| in all| in total)?`,
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
    only(`${WHO}with (?:${COMPARED} )?${COUNT} in (?:the|their|a) basket`),
    () => 'say how many things, or “worth” so much',
  ],
  [
    only(
      `(?:when |if )?${WHO}(?:with |whose )?(?:an? |the |their )?baskets? (?:is )?(?:(?:worth|of|total(?:ling)?|value)(?: of)? )?(?:is )?(?:between|from|more than|over|above|at least) (\\d+(?:\\.\\d+)?) (?:and|to|but) (?:less than |under |below |at most )?(\\d+(?:\\.\\d+)?)`,
    ),
    ([, least = '', most = ''], reading) => {
      if (Number(least) > Number(most)) return 'it would be more than it is less than';
      const from = addCondition(reading, {
        kind: 'basketTotal',
        comparison: 'atLeast',
        amount: Number(least),
      });
      if (from !== true) return from;
      return addCondition(reading, { kind: 'basketTotal', comparison: 'atMost', amount: Number(most) });
    },
  ],
  [
    only(
      `(?:when |if )?${WHO}(?:with |whose )?(?:an? |the |their )?basket (?:is )?(?:(?:worth|of|total(?:ling)?|value)(?: of)? )?(?:is )?(?:${COMPARED} )?(\\d+(?:\\.\\d+)?)`,
    ),
    ([, compared, amount = ''], reading) =>
      addCondition(reading, { kind: 'basketTotal', comparison: more(compared), amount: Number(amount) }),
  ],
  [
    only(
      `(?:only )?(?:(?:on|with|using) )?(?:the )?(${SYSTEMS.filter((one) => one !== 'other').join('|')})(?: users| visitors)?`,
    ),
    ([, named = ''], reading) => {
      const is = SYSTEMS.find((one) => SYSTEM_WORDS[one].toLowerCase() === named.toLowerCase());
      return is ? addCondition(reading, { kind: 'system', is }) : false;
    },
  ],
  [
    only(
      `${WHO}${NOT}(?:yet |already |ever )?(?:(seen|saw|closed|met) (?:this(?: campaign| message)?|it)|(converted|answered|signed up|subscribed)(?: (?:in|on|by|to|for))?(?: (?:this(?: campaign| message)?|it))?)(?: before| already| yet)?`,
    ),
    ([, not, met, other], reading) =>
      addCondition(reading, { kind: 'campaign', id: null, what: deedOf(met ?? other ?? '') }, Boolean(not)),
  ],
  [
    only(
      `${WHO}${NOT}(?:yet |already |ever )?(seen|saw|closed|met|converted|answered|signed up)(?: (?:in|on|by|to))?(?: the)?(?: (?:campaign|message))? [“"]?(.+?)[”"]?(?: (?:campaign|message))?(?: before| already| yet)?`,
    ),
    ([, not, deed = '', name = ''], reading, { campaigns }) => {
      const one = campaigns.find((other) => other.name.toLowerCase() === name.toLowerCase());
      return one
        ? addCondition(reading, { kind: 'campaign', id: one.id, what: deedOf(deed) }, Boolean(not))
        : false;
    },
  ],
];

/** Ways of naming a country or a language, either of which may be called as a page is. */
export const NAMED_PLACES: readonly Way[] = [
  [
    only(
      `(?:only |just )?${WHO}${NOT}(?:living |who are )?(?:in|from) ([a-z][a-z .’'-]+?)(?: only)?|([a-z][a-z .’'-]+) only`,
    ),
    ([, not, said, alone = ''], reading) => {
      const name = said ?? alone;
      const code = OTHER_NAMES[name.toLowerCase()] ?? codesOf('region').get(name.toLowerCase());
      return code ? addCondition(reading, { kind: 'country', code }, Boolean(not)) : false;
    },
  ],
  [
    only(
      `${WHO}${NOT}(?:speaking|reading|whose (?:browser|language)(?: language)? is(?: set to| in)?|(?:the |their )?(?:browser )?language(?: is|:)?|with (?:the language|an? (?=[a-z]+ browser))|in) ?([a-z]+)(?: browser)?|(?:only )?(not )?(?:for |to )?([a-z]+)[- ](?:speakers|speaking(?: ${PEOPLE})?)`,
    ),
    ([, not, said, otherNot, other = ''], reading) => {
      const name = said ?? other;
      const code = codesOf('language').get(name.toLowerCase());
      return code ? addCondition(reading, { kind: 'language', code }, Boolean(not ?? otherNot)) : false;
    },
  ],
  [
    only(
      `(?:only |just )?${WHO}${NOT}(?:living )?(?:in|from|outside(?: of)?) (?:the )?(?:europe|africa|asia|oceania|(?:north|south|latin|central) america|scandinavia|eu|european union|balkans|baltics?|middle east|nordic countries|nordics)`,
    ),
    () => 'say which countries',
  ],
  [
    only(`(?:only )?(?:for )?(?:known|recognised|familiar) ${PEOPLE}(?: only)?`),
    () => 'say “returning”, or “signed in”',
  ],
  [
    only('(?:only )?(?:not )?(?:for |to )?(?:the )?guests?(?: only)?'),
    () => 'say “visitors”, or “not signed in”',
  ],
  [
    only(`(?:only )?(?:for )?(?:unknown|anonymous|unrecognised) ${PEOPLE}(?: only)?`),
    () => 'say “new”, or “not signed in”',
  ],
  [
    only(`(?:only )?(?:not )?(?:for |to )?(?:the )?([a-z]+?)s?(?: ${PEOPLE})?(?: only)?`),
    ([, name = '']) =>
      codesOf('language').has(name.toLowerCase())
        ? 'say from where they are, or which language they speak'
        : false,
  ],
  [
    only(
      `(?:only )?(?:if |when |for )?(?:they |the visitor |${PEOPLE} )?(?:who )?(?:come|came|comes|coming|arrive|arrived|arriving) (?:here )?(?:from|through|via) [a-z]+`,
    ),
    () => 'say “from a search”, “from social media”, or the address, as in “from example.com”',
  ],
];

/** Ways of saying for whom it is not. */
export const WHO_NOT_WAYS: readonly Way[] = [
  [
    only(
      "(?:but )?(?:(?:not|never|(?:(?:do not|don’t|don't|never) show|hide)(?: it)?|hidden|nothing) (?:for|to|from)|except(?: for)?|excluding|outside(?: of)?|(?:for |to )?(?:everyone|everybody|anyone|anybody|all(?: visitors)?) (?:but|except)(?: for)?) (.+)",
    ),
    ([, who = ''], reading, words) => {
      const { length } = reading.conditions;
      for (const said of [`for ${who}`, who, `from ${who}`])
        for (const [way, read] of [...WHO_WAYS, ...NAMED_PLACES]) {
          const found = way.exec(said);
          const answer = found ? read(found, reading, words) : false;
          const [one, ...more] = reading.conditions.slice(length);
          if (answer === true && one && more.length === 0) {
            reading.conditions[length] = { ...one, not: !one.not };
            return true;
          }
          reading.conditions.splice(length);
          if (typeof answer === 'string') return answer;
        }
      return false;
    },
  ],
];
