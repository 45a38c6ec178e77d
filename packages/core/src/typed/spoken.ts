import { COUNT, numberOf } from './numbers.ts';

const MINUTE = '(?:m|mins?|minutes?)';
const HOUR = '(?:h|hours?)';
const UNIT = '(seconds?|minutes?|hours?|days?|weeks?|months?)';
const SECOND = '(?:s|secs?|seconds?)';

const PART = 'heading|headline|title|text|button';
const QUALITY =
  '(?:(?:much |a little |a bit |slightly |a lot )?(?:larger|bigger|smaller)|bold|dark [a-z]+|light [a-z]+|white|black|red|green|blue|yellow|orange|grey|gray|brown|pink|purple)';

/** Other words for a thing, and times told in two parts, each as the ways of reading know them. */
const SPOKEN: readonly (readonly [RegExp, (...found: string[]) => string])[] = [
  [/\b(?:shopping )?(?:carts?|trolleys?)\b|\bshopping basket\b/gi, () => 'basket'],
  [/\bURLs\b/gi, () => 'addresses'],
  [/\bURL\b/gi, () => 'address'],
  [/\b(\d+) ?[x×](?= (?:per|an?|each|every|in)\b)/gi, (_, count) => `${count} times`],
  [/ please$/i, () => ''],
  [/\b(?:a|one|every|each) fortnight\b/gi, (said) => (/^e/i.test(said ?? '') ? 'every 2 weeks' : '2 weeks')],
  [/ per (?:person|user|reader|customer|head)$/i, () => ' per visitor'],
  [/(?<=\b(?:day|week|month|hour|session|visit)s?) (?:per|for each|for every) visitor$/i, () => ''],
  [
    new RegExp(`^(?:never|not|no) more (?:often )?than (?=(?:once|twice|thrice|${COUNT} times)\\b)`, 'i'),
    () => 'at most ',
  ],
  [/^wherever\b/i, () => 'where'],
  [/\bevery other (day|week|month)\b/gi, (_, unit) => `every 2 ${unit}s`],
  [/^(?:on )?(?:every|any|each|all) pages? (?=(?:that|which|whose|where|with)\b)/i, () => 'on pages '],
  [/^(?:do not|don[’']t|never) show (?:it )?(?=(?:on|in|under|for|from)\b)/i, () => 'not '],
  [/^hide (?:it )?(?=(?:on|in|under|for|from|to)\b)/i, () => 'not '],
  [/^pop[- ]?up (?=(?:in|at|from)\b)/i, () => 'a pop-up '],
  [/\bignored\b/gi, () => 'unanswered'],
  [
    /^((?:for )?)(?:loyal|regular|frequent) (?=(?:visitors|people|readers|customers) (?:with|who)\b)/i,
    (_, to) => to ?? '',
  ],
  [
    /\b(?:viewed|opened|visited|looked at) (?=(?:at (?:least|most)|more than|fewer than|exactly|up to)\b)/gi,
    () => 'seen ',
  ],
  [/^(?:keep|hold) (?=\d+ ?(?:%|per ?cent) (?:as|back|out)\b)/i, () => ''],
  [/\b(?:any|every)thing (?:under|below|beneath|inside|in) (?=\/)/gi, () => 'pages under '],
  [/\b(?:no|not) (?:earlier|sooner) than\b/gi, () => 'not before'],
  [/^(?:at the earliest after|at the earliest) (.+)$/i, (_, time) => `not before ${time}`],
  [/^(?:after )?(.+) at the (?:very )?earliest$/i, (_, time) => `not before ${time}`],
  [/^(?:only )?(?:for|in) (?:all )?baskets\b/i, () => 'with a basket'],
  [/\bwho (?:speak|read)s?\b/gi, () => 'speaking'],
  [/^(?:only )?(?:for |to )?(?:the )?guests(?: only)?$/i, () => 'for people not signed in'],
  [/^((?:only )?(?:for|to) )the (?=(?:signed|logged)[- ](?:in|out)$)/i, (_, to) => `${to}people `],
  [
    /^(?:do not|don[’']t|never) (?:bother|disturb|interrupt|annoy|pester|nag|target|ask|trouble|show (?:it )?to) /i,
    () => 'not for ',
  ],
  [
    /\b(?:give (?:it|them) a (?:rest|break|pause)|leave (?:them|people|visitors) (?:alone|in peace)|keep (?:it )?(?:quiet|away)) (?=for )/gi,
    () => 'stays away ',
  ],
  [/\bit (?:was|has been|gets) (?:closed|dismissed)\b/gi, () => 'it is closed'],
  [
    /^(?:on )?every (weekday|weekend|mon|tues|wednes|thurs|fri|satur|sun)(day)?(?= |,|$)/i,
    (_, day, rest) => `${day}${rest ?? ''}s`,
  ],
  [/[£€$](?=\d)|(?<=\d) ?(?:pounds|euros?|dollars|[£€$])/gi, () => ''],
  [/\b(?:the )?end of (?:the )?(month|year)\b/gi, (_, what) => `the end of the ${what}`],
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

/** The same in plainer words; what stands in quotation marks is somebody's own. */
export const plainly = (piece: string): string =>
  /[“"]/.test(piece)
    ? piece
    : SPOKEN.reduce(
        (said, [words, write]) => said.replace(words, (...found) => write(...(found as string[]))),
        piece,
      );

/** What begins a wish and says nothing of it: `show it`, `it should open`. */
const FILLER =
  '(?:please |it should |it |i want it to |we want it to )*(?:show|display|open|appear|come|present|pop up)(?:s|ing)?(?: (?:it|this|them|the (?:message|campaign|pop-?up|box)))?';
const ALL_FILLER = new RegExp(`^${FILLER}$`, 'i');
const BEGINS_AS_FILLER = new RegExp(`^${FILLER}(?: only)? (?=\\S)`, 'i');
export const isFiller = (piece: string): boolean => ALL_FILLER.test(piece);
export const withoutFiller = (piece: string): string =>
  piece.replace(BEGINS_AS_FILLER, '').replace(/ (?:only|alone|at (?:the )?most)$/i, '');
