import type { CampaignDocument, Cap, Device, Moment, PageRule, Rule, Trigger } from '@velarium/contract';
import { capSchema, closeSchema, pageRuleSchema, ruleSchema, triggerSchema } from '@velarium/contract';
import { DEVICES, LIMITS } from '@velarium/contract/values';
import { withFormat } from '../message/placement.ts';
import { typedPage } from '../pages/typed-page.ts';
import { as, either, readWhole, said, words } from './parsers.ts';
import { cap, pause, priority, schedule, unanswered } from './read-limits.ts';
import { trigger } from './read-moment.ts';
import { audienceSaid, devicesSaid, type Ids, pageSaid } from './read-reach.ts';
import { place } from './read-sentence.ts';

/** What a site calls its pages, for wishes that speak of them. */
export interface PageNames {
  readonly pages: readonly { readonly path: string; readonly title: string }[];
  readonly groups: readonly { readonly id: string; readonly name: string }[];
  readonly campaigns: readonly { readonly id: string; readonly name: string }[];
  readonly kinds: readonly string[];
  /** Ids of the campaign's further versions; a sentence can share visitors out among them and make no new ones. */
  readonly versions: readonly string[];
}

export const idsOf = ({ campaigns, groups }: PageNames): Ids => ({
  campaign: (name) => campaigns.find((one) => one.name === name)?.id,
  group: (name) => groups.find((one) => one.name === name)?.id,
});

type Change = (document: CampaignDocument) => CampaignDocument;

/** What has been understood so far. Whatever is wished for twice and differently is understood once. */
export interface Reading {
  readonly triggers: Trigger[];
  readonly include: PageRule[];
  readonly exclude: PageRule[];
  readonly caps: Cap[];
  readonly devices: Device[];
  readonly withoutDevices: Device[];
  /** What there can be one of, by its name. */
  readonly settings: Map<string, { readonly value: string; readonly change: Change }>;
}

/** Whether a piece was understood; or why it cannot be. */
export type Answer = boolean | string;

const onRule =
  (change: (rule: Rule) => Rule): Change =>
  (document) => ({ ...document, rule: change(document.rule) });
const onMoment = (change: Partial<Moment>): Change =>
  onRule((rule) => ({ ...rule, moment: { ...rule.moment, ...change } }));
const onReach = (change: Partial<Rule['reach']>): Change =>
  onRule((rule) => ({ ...rule, reach: { ...rule.reach, ...change } }));
const onLimits = (change: Partial<Rule['limits']>): Change =>
  onRule((rule) => ({ ...rule, limits: { ...rule.limits, ...change } }));

/** Takes a setting of which there can be one. */
function setOnce({ settings }: Reading, name: string, value: unknown, change: Change): Answer {
  const written = JSON.stringify(value);
  const known = settings.get(name);
  if (known && known.value !== written) return 'something else was said before';
  settings.set(name, { value: written, change });
  return true;
}
export const setJoin = (reading: Reading, join: Moment['join']): Answer =>
  setOnce(reading, 'join', join, onMoment({ join }));

const MOST_TRIGGERS = 12;
const MOST_CAPS = 8;

/** Takes something into a list, if it is one that a rule may hold. */
function add<Value>(
  values: Value[],
  value: Value,
  schema: { safeParse(value: unknown): { success: boolean } },
  most: number,
): Answer {
  if (!schema.safeParse(value).success) return 'out of range';
  if (values.length === most) return `at most ${most}`;
  values.push(value);
  return true;
}
const addTrigger = ({ triggers }: Reading, one: Trigger): Answer =>
  'seconds' in one && one.seconds > LIMITS.triggerSeconds
    ? `at most ${LIMITS.triggerSeconds / 60} minutes`
    : one.kind === 'scroll' && one.unit === 'percent' && one.amount > 100
      ? 'a page has 100 %'
      : add(triggers, one, triggerSchema, MOST_TRIGGERS);
const addCap = ({ caps, settings }: Reading, one: Cap): Answer =>
  settings.has('uncapped') ? 'something else was said before' : add(caps, one, capSchema, MOST_CAPS);

const SECONDS: Readonly<Record<string, number>> = {
  s: 1,
  sec: 1,
  second: 1,
  min: 60,
  minute: 60,
  hour: 3600,
  h: 3600,
};
/** Tenths of a second are told apart; a binary fraction more is not meant. */
const secondsOf = (count: string, unit: string): number =>
  Math.round(Number(count) * (SECONDS[unit.toLowerCase().replace(/(?<=.)s$/, '')] ?? 1) * 1000) / 1000;

const DEVICE_NAMES: readonly [RegExp, Device][] = [
  [/^(?:mobile )?(?:phones?|mobiles?)$/i, 'mobile'],
  [/^tablets?$/i, 'tablet'],
  [/^(?:desktops?|laptops?|computers?)$/i, 'desktop'],
];
const deviceNamed = (name: string): Device | undefined =>
  DEVICE_NAMES.find(([names]) => names.test(name))?.[1];

const UNITS = { day: 'days', week: 'weeks', month: 'months', hour: 'hours', minute: 'minutes' } as const;
const capPer = (max: number, count: number, unit: string): Cap => ({
  max,
  per: { count, unit: UNITS[unit.toLowerCase().replace(/s$/, '') as keyof typeof UNITS] },
});

/** The pages somebody means by a word: as the sentence says them, a group, a kind, a folder or a page, in this order. */
function pagesMeant(typed: string, names: PageNames): PageRule[] {
  const { pages, groups, kinds } = names;
  const told = readWhole(pageSaid(idsOf(names)), typed);
  // An address is read as somebody types it: a star or a last slash means something.
  if (told && told.kind !== 'exact') return pageRuleSchema.safeParse(told).success ? [told] : [];
  if (/^(\/|https?:)/.test(typed)) return [typedPage(typed)].filter((rule) => rule !== undefined);
  const wanted = typed
    .toLowerCase()
    .replace(/^(the|all|every|pages? of|everything under)\s+/, '')
    .replace(/\s+pages?$/, '');
  if (wanted === '') return [];
  const group = groups.find(({ name }) => name.toLowerCase() === wanted);
  if (group) return [{ kind: 'group', id: group.id }];
  const single = wanted.replace(/s$/, '');
  const kind = kinds.find((one) => one.toLowerCase() === wanted || one.toLowerCase() === single);
  if (kind !== undefined) return [{ kind: 'pageKind', name: kind }];
  const page = pages.find(({ title }) => title.toLowerCase() === wanted);
  if (page) return [{ kind: 'exact', address: page.path }];
  const folder = `/${wanted.replaceAll(' ', '-')}/`;
  if (pages.some(({ path }) => path.startsWith(folder))) return [{ kind: 'begins', address: folder }];
  const parts = pages.filter(({ title }) => title.toLowerCase().includes(wanted));
  return parts.length === 1 && parts[0] ? [{ kind: 'exact', address: parts[0].path }] : [];
}

const TIME = '(\\d+(?:\\.\\d+)?) ?(s|secs?|seconds?|mins?|minutes?|h|hours?)';
const timed = (before: string, after = ''): RegExp => new RegExp(`^${before}${TIME}${after}$`, 'i');

type Way = readonly [RegExp, (found: RegExpExecArray, reading: Reading, names: PageNames) => Answer];

/** Ways of saying a thing, the more particular first. Each takes one piece of what was typed, or leaves it whole. */
const WAYS: readonly Way[] = [
  [
    timed('(?:after )?', ' of (?:stillness|inactivity)'),
    ([, count = '', unit = ''], reading) =>
      addTrigger(reading, { kind: 'inactivity', seconds: secondsOf(count, unit) }),
  ],
  [
    timed('(?:it )?closes? (?:by itself )?after '),
    ([, count = '', unit = ''], reading) => {
      const afterSeconds = secondsOf(count, unit);
      if (!closeSchema.shape.afterSeconds.safeParse(afterSeconds).success)
        return 'whole seconds, from 2 seconds to an hour';
      return setOnce(reading, 'closing', afterSeconds, ({ message, ...rest }) => ({
        ...rest,
        message: { ...message, close: { ...message.close, afterSeconds } },
      }));
    },
  ],
  [
    timed('(?:not )?before '),
    ([, count = '', unit = ''], reading) => {
      const notBeforeSeconds = secondsOf(count, unit);
      if (!ruleSchema.shape.moment.shape.notBeforeSeconds.safeParse(notBeforeSeconds).success)
        return 'from 0.1 seconds to an hour';
      return setOnce(reading, 'before', notBeforeSeconds, onMoment({ notBeforeSeconds }));
    },
  ],
  [
    timed('(?:after )?'),
    ([, count = '', unit = ''], reading) =>
      addTrigger(reading, { kind: 'time', seconds: secondsOf(count, unit) }),
  ],
  [
    /^(?:at once|immediately|right away)$/i,
    (_, reading) => addTrigger(reading, { kind: 'time', seconds: 0 }),
  ],
  [
    /^(?:after |at )?(\d+(?:\.\d+)?) ?(?:%|per ?cent)(?: of the page| scrolled| down)?$/i,
    ([, amount = ''], reading) =>
      addTrigger(reading, { kind: 'scroll', unit: 'percent', amount: Number(amount) }),
  ],
  [
    /^(?:on |when )?(?:leaving|exit|exit intent|they leave)$/i,
    (_, reading) => addTrigger(reading, { kind: 'exitMouse', certainty: 'likely' }),
  ],
  [/^at the end(?: of the article)?$/i, (_, reading) => addTrigger(reading, { kind: 'articleEnd' })],
  [/^(?:any|whichever is first|the first of them)$/i, (_, reading) => setJoin(reading, 'any')],
  [/^(?:all of them|all together|both)$/i, (_, reading) => setJoin(reading, 'all')],
  [
    /^(?:on )?(?:every|all|any) devices?$/i,
    (_, { devices }) => {
      devices.push(...DEVICES);
      return true;
    },
  ],
  [
    /^(not |never |only )?on ([a-z ]+?)( only)?$/i,
    ([, before = '', name = '', only], { devices, withoutDevices }) => {
      const device = deviceNamed(name);
      const isNot = /^n/i.test(before);
      if (!device || (isNot && only)) return false;
      (isNot ? withoutDevices : devices).push(device);
      return true;
    },
  ],
  [/^once per session$/i, (_, reading) => addCap(reading, { max: 1, per: 'session' })],
  [/^once(?: per visitor| ever| only)?$/i, (_, reading) => addCap(reading, { max: 1, per: 'ever' })],
  [
    /^(?:once|(?:at most )?(\d+) times) (?:an?|per|every|each) (?:(\d+) )?(minutes?|hours?|days?|weeks?|months?)$/i,
    ([, max = '1', count = '1', unit = ''], reading) =>
      addCap(reading, capPer(Number(max), Number(count), unit)),
  ],
  [
    /^(?:at most )?(\d+) times (?:a|per|every|each) (session|visitor)$/i,
    ([, max = '', per = ''], reading) =>
      addCap(reading, { max: Number(max), per: /^s/i.test(per) ? 'session' : 'ever' }),
  ],
  [
    /^(?:every time(?: a page is opened)?|always)$/i,
    (_, reading) =>
      reading.caps.length > 0
        ? 'something else was said before'
        : setOnce(reading, 'uncapped', true, onLimits({ caps: [] })),
  ],
  [/^(?:on )?(?:everywhere|every page|all pages)$/i, (_, { include }) => include.push({ kind: 'every' }) > 0],
  [
    /^(?:not|never) on (.+)$/i,
    ([, typed = ''], { exclude }, names) => {
      const meant = pagesMeant(typed, names);
      exclude.push(...meant);
      return meant.length > 0;
    },
  ],
  [
    /^(?:only )?on (.+)$/i,
    ([, typed = ''], { include }, names) => {
      const meant = pagesMeant(typed, names);
      include.push(...meant);
      return meant.length > 0;
    },
  ],
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
function phraseOf(piece: string, reading: Reading, names: PageNames): Answer {
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
  const audience = readWhole(audienceSaid(idsOf(names)), piece);
  if (audience)
    return ruleSchema.shape.reach.shape.audience.safeParse(audience).success
      ? setOnce(reading, 'audience', audience, onReach({ audience }))
      : 'out of range';
  const where = readWhole(place, piece.replace(/^a /, 'A '));
  return where
    ? setOnce(reading, 'place', where, ({ message, ...rest }) => ({
        ...rest,
        message: { ...withFormat(message, where.format), anchor: where.anchor },
      }))
    : false;
}

/** Takes one piece of what was typed into the reading, whole, or leaves the reading as it was. */
export function readPiece(piece: string, reading: Reading, names: PageNames): Answer {
  for (const [way, read] of WAYS) {
    const found = way.exec(piece);
    const answer = found ? read(found, reading, names) : false;
    if (answer !== false) return answer;
  }
  return phraseOf(piece, reading, names);
}

/** What all that was understood makes of a campaign. */
export function changeOf({
  triggers,
  include,
  exclude,
  caps,
  devices,
  withoutDevices,
  settings,
}: Reading): Change {
  return (document) => {
    const changes: Change[] = [...settings.values()].map(({ change }) => change);
    // A wish about the moment takes the place of what a new campaign began with.
    if (triggers.length > 0) changes.push(onMoment({ triggers }));
    if (caps.length > 0) changes.push(onLimits({ caps }));
    if (devices.length + withoutDevices.length > 0)
      changes.push(
        onRule(({ reach, ...rule }) => ({
          ...rule,
          reach: {
            ...reach,
            devices: DEVICES.filter(
              (one) =>
                (devices.length > 0 ? devices : reach.devices).includes(one) && !withoutDevices.includes(one),
            ),
          },
        })),
      );
    if (include.length + exclude.length > 0)
      changes.push(
        onRule(({ reach, ...rule }) => ({
          ...rule,
          reach: {
            ...reach,
            pages: {
              ...reach.pages,
              ...(include.length > 0 ? { include, follows: null } : {}),
              ...(exclude.length > 0 ? { exclude } : {}),
            },
          },
        })),
      );
    return changes.reduce((old, change) => change(old), document);
  };
}
