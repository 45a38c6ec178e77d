import type { Rule } from '@velarium/contract';
import { ruleSchema } from '@velarium/contract';
import { FORMATS } from '@velarium/contract/values';
import { FORMAT_ANCHORS, withFormat } from '../message/placement.ts';
import { as, either, readWhole, said, words } from '../sentence/parsers.ts';
import { cap, pause, priority, schedule, unanswered } from '../sentence/read-limits.ts';
import { trigger } from '../sentence/read-moment.ts';
import { audienceSaid, devicesSaid } from '../sentence/read-reach.ts';
import { ANCHOR_WORDS, FORMAT_WORDS } from '../sentence/words.ts';
import { BEHAVIOUR_WAYS } from './behaviour-ways.ts';
import { BLOCK_WAYS } from './block-ways.ts';
import { BOX_WAYS } from './box-ways.ts';
import { LIMITS_WAYS } from './limits-ways.ts';
import { MOMENT_WAYS } from './moment-ways.ts';
import { REACH_WAYS } from './reach-ways.ts';
import {
  type Answer,
  addCap,
  addTrigger,
  idsOf,
  onLimits,
  onReach,
  type Reading,
  type SiteWords,
  setOnce,
  type Way,
} from './reading.ts';
import { SCHEDULE_WAYS } from './schedule-ways.ts';

/** Ways of saying a thing, the more particular first. */
const WAYS: readonly Way[] = [
  ...MOMENT_WAYS,
  ...LIMITS_WAYS,
  ...SCHEDULE_WAYS,
  ...BEHAVIOUR_WAYS,
  ...BLOCK_WAYS,
  ...BOX_WAYS,
  ...REACH_WAYS,
];

/** Phrases of the limits as the sentence itself says them, one setting each. */
const limitsPhrase = either<Partial<Rule['limits']>>(
  as(said`after a close ${pause}`, ([afterClose]) => ({ afterClose })),
  as(said`after a no ${pause}`, ([afterNo]) => ({ afterNo })),
  as(said`after a conversion ${pause}`, ([afterConversion]) => ({ afterConversion })),
  as(schedule, (runs) => ({ schedule: runs })),
  as(priority, (rank) => ({ priority: rank })),
  as(unanswered, (stopAfterUnanswered) => ({ stopAfterUnanswered })),
  words('giving way when another message has the floor', { whenBusy: 'yield' }),
);

/** Phrases as the sentence itself says them. */
function phraseOf(piece: string, reading: Reading, site: SiteWords): Answer {
  const one = readWhole(trigger, piece);
  if (one) return addTrigger(reading, one);
  const often = readWhole(cap, piece);
  if (often) return addCap(reading, often);
  const devices = readWhole(devicesSaid, piece);
  if (devices) return reading.devices.push(...devices) > 0;
  const limits = readWhole(limitsPhrase, piece);
  if (limits)
    return ruleSchema.shape.limits.partial().safeParse(limits).success
      ? setOnce(reading, Object.keys(limits).join(), limits, onLimits(limits))
      : 'out of range';
  const audience = readWhole(audienceSaid(idsOf(site)), piece);
  if (audience && reading.conditions.length > 0) return 'something else was said before';
  if (audience)
    return ruleSchema.shape.reach.shape.audience.safeParse(audience).success
      ? setOnce(reading, 'audience', audience, onReach({ audience }))
      : 'out of range';
  return placeOf(piece, reading);
}

/** Where it stands: `a bar at the top`, `as a fly-in in the lower right corner`. */
function placeOf(piece: string, reading: Reading): Answer {
  const named = piece
    .replace(/ (?:of|on) (?:the|every|each) (?:page|window|screen|browser)$/i, '')
    .replace(/^(?:(?:show (?:it )?|it is )?(?:as )?)(?:an? )?/i, 'A ')
    .replace(
      /^A (?:small |little |corner )*(?:card|box)(?= (?:at|in|from|bottom|top|upper|lower|left|right))/i,
      'A fly-in',
    )
    .replace(
      /^A (?:(?:sticky|small|little|thin|narrow|big|large|simple|wide|full[- ]width|tiny|slim|plain|discreet) )+(?=[a-z])/i,
      'A ',
    )
    .replace(/^A ((?:top|bottom|left|right)(?:[ -](?:left|right))?) ([a-z-]+)$/i, 'A $2 at the $1')
    .replace(/^A (?:popup)\b/i, 'A pop-up')
    .replace(/^A (?:overlay|dialog(?:ue)?)\b/i, 'A modal')
    .replace(
      /^A (?:full[- ]screen|over the whole (?:window|screen)|whole[- ]screen)(?: message)?/i,
      'A full-screen message',
    )
    .replace(/^A (?:slide|slides|sliding)(?: it)? in\b/i, 'A slide-in')
    .replace(/^A (?:banner|strip)\b/i, 'A bar')
    .replace(/^(A [a-z-]+) (?=(?:bottom|top|upper|lower|left|right)\b)/i, '$1 at the ');
  const told = named.replace(
    / (?:at|in|from|on|to|along|across) (?:the )?(.+?)(?: (?:corner|edge|side))?$/i,
    (_, where: string) =>
      ` at the ${where
        .replace(/^bottom(?=.)/i, 'lower')
        .replace(/^top(?=.)/i, 'upper')
        .replace(/^(?:middle|center)$/i, 'centre')
        .toLowerCase()}`,
  );
  const format = FORMATS.find((one) => told.toLowerCase().startsWith(`a ${FORMAT_WORDS[one]}`));
  if (!format) return false;
  const where = told.slice(2 + FORMAT_WORDS[format].length).replace(/^ at the /, '');
  const anchor = where === '' ? undefined : FORMAT_ANCHORS[format].find((one) => ANCHOR_WORDS[one] === where);
  if (where !== '' && !anchor) return false;
  if (/ (?:every|each) page$/i.test(piece)) reading.include.push({ kind: 'every' });
  return setOnce(reading, 'place', [format, anchor], ({ message, ...rest }) => {
    const changed = withFormat(message, format);
    return { ...rest, message: anchor ? { ...changed, anchor } : changed };
  });
}

/** Takes one piece of what was typed into the reading, whole, or leaves the reading as it was. */
export function readPiece(piece: string, reading: Reading, site: SiteWords): Answer {
  // As the sentence itself says it, a thing means what the sentence means.
  const told = phraseOf(piece, reading, site);
  if (told !== false) return told;
  for (const [way, read] of WAYS) {
    const found = way.exec(piece);
    const answer = found ? read(found, reading, site) : false;
    if (answer !== false) return answer;
  }
  return false;
}
