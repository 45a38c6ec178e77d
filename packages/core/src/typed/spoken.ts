import { COUNT, numberOf, ORDINAL, ordinalOf } from './numbers.ts';

const MINUTE = '(?:m|mins?|minutes?)';
const HOUR = '(?:h|hours?)';
const UNIT = '(seconds?|minutes?|hours?|days?|weeks?|months?)';
const SECOND = '(?:s|secs?|seconds?)';

const PART = 'heading|headline|title|text|button';
const QUALITY =
  '(?:(?:much |a little |a bit |slightly |a lot )?(?:larger|bigger|smaller)|bold|cent(?:re|er)ed|dark [a-z]+|light [a-z]+|white|black|red|green|blue|yellow|orange|grey|gray|brown|pink|purple)';

/** “8 in the evening”, “2 at night”. */
function halfDay(hour: number, minutes: string, part: string): string {
  const isMorning = part === 'morning' || (part === 'night' && hour < 6);
  if (hour === 12 && part === 'night') return minutes === '' ? 'midnight' : `0${minutes}`;
  return hour > 12 ? `${hour}${minutes || ':00'}` : `${hour}${minutes} ${isMorning ? 'am' : 'pm'}`;
}

/** Words as people say them, and how the ways of reading know them. */
type Rewriting = readonly [said: RegExp, write: (...found: string[]) => string];

/** How a wish is begun or ended, which says nothing of it. */
const MANNER: readonly Rewriting[] = [
  [/^(?:please|pls|plz) | please$/i, () => ''],
  [/\b(they|who)[’']ve\b/gi, (_, who) => `${who} have`],
  [/^(?:visible|shown|displayed) (?=(?:on|in|to|for) )/i, () => ''],
  [/^(?:runs?|running|live|active|valid) (?=from |between |until |on |in )/i, () => ''],
];

/** Other words for a thing. */
const NAMES: readonly Rewriting[] = [
  [/\b(?:shopping )?(?:carts?|trolleys?)\b|\bshopping basket\b/gi, () => 'basket'],
  [/\bURLs\b/gi, () => 'addresses'],
  [/\bURL\b/gi, () => 'address'],
  [/\bnew ?comers?\b|\bfirst[- ]timers?\b/gi, () => 'new visitors'],
  [/\b(?:a|one|every|each) fortnight\b/gi, (said) => (/^e/i.test(said ?? '') ? 'every 2 weeks' : '2 weeks')],
  [/^pop[- ]?up (?=(?:in|at|from)\b)/i, () => 'a pop-up '],
  [/\bignored\b/gi, () => 'unanswered'],
  [/\bwho (?:speak|read)s?\b/gi, () => 'speaking'],
  [/\bit (?:was|has been|gets) (?:closed|dismissed)\b/gi, () => 'it is closed'],
  [/[£€$](?=\d)|(?<=\d) ?(?:pounds|euros?|dollars|[£€$])/gi, () => ''],
];

/** On which pages. */
const WHERE: readonly Rewriting[] = [
  [/^(only )?for (?=(?:all |every )?(?:pages?|addresses) )/i, (_, alone) => `${alone ?? ''}on `],
  [/^(?:nowhere|on no pages?) (?:but|except|other than)(?: (?:in|on))? /i, () => 'only in '],
  [/^everything (?=(?:on|in|under) )/i, () => 'everywhere '],
  [/^address (?=contain|includ|begin|start|end|has|with)/i, () => 'the address '],
  [/^(?:the )?address (?:is|equals) (?=\/)/i, () => 'only on '],
  [/^exclud(?:e|es|ed|ing) (?:the )?/i, () => 'except '],
  [/^not while (?:on|in) /i, () => 'not in '],
  [/^wherever\b/i, () => 'where'],
  [/^(?:on )?(?:every|any|each|all) pages? (?=(?:that|which|whose|where|with)\b)/i, () => 'on pages '],
  [/^(?:do not|don[’']t|never) show (?:it )?(?=(?:on|in|under)\b)/i, () => 'not '],
  [/^hide (?:it )?(?=(?:on|in|under)\b)/i, () => 'not '],
  [/\b(?:any|every)thing (?:under|below|beneath|inside|in) (?=\/)/gi, () => 'pages under '],
];

/** For whom, and what they have done. */
const WHO: readonly Rewriting[] = [
  [/^rank (?=\d)/i, () => 'priority '],
  [/\b(?:who|that) (?:have )?searched(?: for .+)?$/i, () => 'from search'],
  [/^((?:only )?(?:for |on )?)both /i, (_, to) => to ?? ''],
  [
    new RegExp(`\\b(${ORDINAL} (?:session|visit)) and (?:up|on|onwards|above|beyond)$`, 'i'),
    (_, from) => `${from} or later`,
  ],
  [/\b(?:who have|with|having) (?:an? |the )?basket$/i, () => 'with something in the basket'],
  [
    /^((?:for )?)(?:loyal|regular|frequent) (?=(?:visitors|people|readers|customers) (?:with|who)\b)/i,
    (_, to) => to ?? '',
  ],
  [
    /\b(?:viewed|opened|visited|looked at) (?=(?:at (?:least|most)|more than|fewer than|exactly|up to)\b)/gi,
    () => 'seen ',
  ],
  [/^(?:keep|hold) (?=\d+ ?(?:%|per ?cent) (?:as|back|out)\b)/i, () => ''],
  [/^(?:only )?(?:for|in) (?:all )?baskets\b/i, () => 'with a basket'],
  [/^((?:only )?(?:for|to) )the (?=(?:signed|logged)[- ](?:in|out)$)/i, (_, to) => `${to}people `],
  [
    /^(?:do not|don[’']t|never) (?:bother|disturb|interrupt|annoy|pester|nag|target|ask|trouble) /i,
    () => 'not for ',
  ],
];

/** How often, and when it stays away. */
const HOW_OFTEN: readonly Rewriting[] = [
  [/\b(\d+) ?[x×](?= (?:per|an?|each|every|in)\b)/gi, (_, count) => `${count} times`],
  [/ at the very most$/i, () => ' at most'],
  [/^once,? and (?:then )?never again$/i, () => 'once'],
  [new RegExp(`\\b${COUNT} times or more\\b`, 'gi'), (_, count) => `at least ${count} times`],
  [
    /^after (?:an? |the )?(close|no|conversion|sign[- ]?up): (?!never)(?=.)/i,
    (_, deed) => `after a ${deed} stays away for `,
  ],
  [/^(?:not|never) twice (?:in|on|per|during) (?:the same |one |an? )?/i, () => 'once per '],
  [/^(?:with )?(?:at least )?(.+) between (?:two )?(?:showings|times)$/i, (_, span) => `once every ${span}`],
  [/^(.+ times|once|twice) (?:max(?:imum)?|tops)$/i, (_, often) => `at most ${often}`],
  [/^(?:repeat(?:s|ed|ing)?|again) (?=every|once|after)/i, () => ''],
  [/^(?:do not|don[’']t|never|no) (?:ever )?repeat(?:s|ing)?(?: it)?$/i, () => 'once'],
  [
    /^until (?:they|the visitor|somebody|someone|visitors|people) (?:have |has )?(?:sign(?:s|ed)? up|subscribed?s?|answer(?:s|ed)?|convert(?:s|ed)?)$/i,
    () => 'after a conversion never again',
  ],
  [/ per (?:person|user|reader|customer|head)$/i, () => ' per visitor'],
  [/(?<=\b(?:day|week|month|hour|session|visit)s?) (?:per|for each|for every) visitor$/i, () => ''],
  [
    new RegExp(`^(?:never|not|no) more (?:often )?than (?=(?:once|twice|thrice|${COUNT} times)\\b)`, 'i'),
    () => 'at most ',
  ],
  [/\bevery other (day|week|month)\b/gi, (_, unit) => `every 2 ${unit}s`],
  [
    /\b(?:give (?:it|them) a (?:rest|break|pause)|leave (?:them|people|visitors)(?: alone| in peace| be)?|keep (?:it )?(?:quiet|away)) (?=for )/gi,
    () => 'stays away ',
  ],
];

/** At which moment, and on which days. */
const WHEN: readonly Rewriting[] = [
  [/\bfor (?:more|longer) than (?=\d|an? |one |half )/gi, () => 'for '],
  [
    new RegExp(`^(?:an? )?${COUNT} ?(${SECOND}|${MINUTE}) delay$`, 'i'),
    (_, count, unit) => `after ${count} ${unit}`,
  ],
  [/^just (?=before )/i, () => ''],
  [/^closed on (?=(?:the )?\d)/i, () => 'not on '],
  [
    new RegExp(`\\bthe ${ORDINAL} of (?=(?:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec))`, 'gi'),
    (_, day) => `${ordinalOf(day ?? '')} `,
  ],
  [
    /\b(\d{1,2})((?:[:.]\d\d)?) (?:in the|at) (morning|afternoon|evening|night)\b/gi,
    (_, hour, minutes, part) => halfDay(Number(hour), minutes ?? '', part ?? ''),
  ],
  [/^(?:a )?delay(?:ed)?(?: of| by|:)? /i, () => 'after '],
  [/^wait(?:ing)? (?:until|till) /i, () => 'when '],
  [/^(?:right |straight )?(?:at|from) the (?:very )?(?:start|beginning|outset)$/i, () => 'at once'],
  [/\b(?:no|not) (?:earlier|sooner) than\b/gi, () => 'not before'],
  [/^(?:at the earliest after|at the earliest) (.+)$/i, (_, time) => `not before ${time}`],
  [/^(?:after )?(.+) at the (?:very )?earliest$/i, (_, time) => `not before ${time}`],
  [
    /^(?:on )?every (weekday|weekend|mon|tues|wednes|thurs|fri|satur|sun)(day)?(?= |,|$)/i,
    (_, day, rest) => `${day}${rest ?? ''}s`,
  ],
  [/\b(?:the )?end of (?:the )?(month|year)\b/gi, (_, what) => `the end of the ${what}`],
];

/** How it looks. */
const LOOKS: readonly Rewriting[] = [
  [
    /^use (.+) for (?:the )?(button|heading|headline|title|text|background)s?$/i,
    (_, how, part) => `${part} ${how}`,
  ],
  [/^animation[: ]+/i, () => 'animation '],
  [/^add (?=an? )/i, () => 'with '],
  [
    /^(?:with|and|having) (?:an? |the )?(?=.*\b(?:background|corners|border|button|heading|headline|title|text|letters)\b)/i,
    () => '',
  ],
  // A quality before the thing, or a doing.
  [
    new RegExp(`^(?:an? |the )?(${QUALITY}) (${PART})(?= on | for |$)`, 'i'),
    (_, quality, part) => `${part} ${quality}`,
  ],
  [new RegExp(`^cent(?:re|er) (?:the )?(${PART})$`, 'i'), (_, part) => `${part} centred`],
  [
    new RegExp(`^align (?:the )?(?:(${PART}|everything) )?(?:to the )?(left|right)$`, 'i'),
    (_, part, side) => `${part ?? 'everything'} ${side}`,
  ],
  [/^font size (\d+)(?: ?px)?(?= on | for |$)/i, (_, size) => `text ${size} px`],
];

/** Numbers, and times told in two parts. */
const AMOUNTS: readonly Rewriting[] = [
  [new RegExp(`\\b${COUNT}(?: or more\\b|\\+(?= ))`, 'gi'), (_, count) => `at least ${count}`],
  [new RegExp(`\\b${COUNT} or (?:fewer|less)\\b`, 'gi'), (_, count) => `at most ${count}`],
  [/ or (?:more|longer)$/i, () => ''],
  [/\bone time\b/gi, () => 'once'],
  [/\b(\d+) time\b/gi, (_, count) => `${count} times`],
  [
    new RegExp(`\\b${COUNT} and a half ${UNIT}`, 'gi'),
    (_, count, unit) => `${numberOf(count ?? '') + 0.5} ${unit}`,
  ],
  [new RegExp(`\\b(?:an?|one) ${UNIT} and a half\\b`, 'gi'), (_, unit) => `1.5 ${unit}s`],
  [
    new RegExp(`\\b${COUNT} ?${MINUTE}[ ,]*(?:and )?${COUNT}(?: ?${SECOND})?$`, 'i'),
    (_, minutes, seconds) => `${numberOf(minutes ?? '') * 60 + numberOf(seconds ?? '')} seconds`,
  ],
  [
    new RegExp(`\\b${COUNT} ?${HOUR}[ ,]*(?:and )?${COUNT} ?${MINUTE}$`, 'i'),
    (_, hours, minutes) => `${numberOf(hours ?? '') * 60 + numberOf(minutes ?? '')} minutes`,
  ],
];

/** One after the other: what a later one reads may have been written by an earlier. */
const SPOKEN: readonly Rewriting[] = [
  ...MANNER,
  ...NAMES,
  ...WHERE,
  ...WHO,
  ...HOW_OFTEN,
  ...WHEN,
  ...LOOKS,
  ...AMOUNTS,
];

const QUOTED = /“[^”]*”|"[^"]*"/g;
/** The same in plainer words; what stands in quotation marks is somebody's own. */
export function plainly(piece: string): string {
  const quoted: string[] = [];
  const unquoted = piece.replace(QUOTED, (own) => `“${quoted.push(own) - 1}”`);
  const plain = SPOKEN.reduce(
    (said, [words, write]) => said.replace(words, (...found) => write(...(found as string[]))),
    unquoted,
  );
  return plain.replace(/“(\d+)”/g, (_, nth) => quoted[nth] ?? '');
}

/** What begins a wish and says nothing of it: `show it`, `it should open`. */
const FILLER =
  '(?:please |it should |it |i want it to |we want it to |only |make it |let it )*(?:show up|come up|show|display|open|appear|come|present|pop up|trigger|fire)(?:s|ing)?(?: (?:it|this|them|(?:the |a |this )?(?:message|campaign|pop-?up|box)))?';
const ALL_FILLER = new RegExp(`^${FILLER}$`, 'i');
const BEGINS_AS_FILLER = new RegExp(`^${FILLER}(?: only)? (?=\\S)`, 'i');
export const isFiller = (piece: string): boolean => ALL_FILLER.test(piece);
export const withoutFiller = (piece: string): string =>
  piece.replace(BEGINS_AS_FILLER, '').replace(/ (?:only|alone|at (?:the )?most)$/i, '');
