import type {
  AudienceItem,
  CampaignDocument,
  Cap,
  Device,
  Message,
  Moment,
  PageRule,
  Rule,
  Schedule,
  Trigger,
} from '@velarium/contract';
import { audienceSchema, capSchema, conditionSchema, triggerSchema } from '@velarium/contract';
import { DEVICES, LIMITS } from '@velarium/contract/values';
import type { Ids } from '../sentence/read-reach.ts';

/** What a site calls its pages and which day it has, for wishes that speak of them. */
export interface SiteWords {
  readonly pages: readonly { readonly path: string; readonly title: string }[];
  readonly groups: readonly { readonly id: string; readonly name: string }[];
  readonly campaigns: readonly { readonly id: string; readonly name: string }[];
  readonly kinds: readonly string[];
  /** Ids of the campaign's further variants; a sentence can share visitors out among them and make no new ones. */
  readonly variants: readonly string[];
  /** The day it is by the site's clock, `2026-12-24`. */
  readonly today: string;
  readonly design: {
    /** What wishes about its design begin from. */
    readonly message: Message;
    /** The block that is chosen. */
    readonly chosen: string | null;
    /** Of the Look, CSS pixels. */
    readonly textSize: number;
    /** A colour as people write it, as six digits; nothing where it is none. */
    readonly colour: (written: string) => string | undefined;
  };
}

export const idsOf = ({ campaigns, groups }: SiteWords): Ids => ({
  campaign: (name) => campaigns.find((one) => one.name === name)?.id,
  group: (name) => groups.find((one) => one.name === name)?.id,
});

type Change = (document: CampaignDocument) => CampaignDocument;

/** What has been understood so far. Whatever is wished for twice and differently is understood once. */
export interface Reading {
  readonly today: string;
  readonly triggers: Trigger[];
  readonly include: PageRule[];
  readonly exclude: PageRule[];
  readonly caps: Cap[];
  readonly conditions: AudienceItem[];
  /** Where in the list a condition is another way of meeting the one before it. */
  readonly alternatives: Set<number>;
  readonly devices: Device[];
  readonly withoutDevices: Device[];
  /** What becomes of the message's design, each said back in words. */
  readonly designs: { readonly said: string; readonly change: (message: Message) => Message }[];
  /** What there can be one of, by its name. */
  readonly settings: Map<string, { readonly value: string; readonly change: Change }>;
}
export const newReading = (today: string): Reading => ({
  today,
  triggers: [],
  include: [],
  exclude: [],
  caps: [],
  conditions: [],
  alternatives: new Set(),
  devices: [],
  withoutDevices: [],
  designs: [],
  settings: new Map(),
});

const LISTS = [
  'triggers',
  'include',
  'exclude',
  'caps',
  'conditions',
  'devices',
  'withoutDevices',
  'designs',
] as const;
/** How far a reading has come. */
export type State = Readonly<Record<(typeof LISTS)[number], number>> & {
  readonly settings: Reading['settings'];
};

export function keepState(reading: Reading): State {
  const lengths = Object.fromEntries(LISTS.map((name) => [name, reading[name].length]));
  return { ...(lengths as Record<(typeof LISTS)[number], number>), settings: new Map(reading.settings) };
}
export function restore(reading: Reading, state: State): void {
  for (const name of LISTS) reading[name].splice(state[name]);
  reading.settings.clear();
  for (const [name, setting] of state.settings) reading.settings.set(name, setting);
  for (const n of reading.alternatives) if (n >= state.conditions) reading.alternatives.delete(n);
}
export const isEmpty = (reading: Reading): boolean =>
  reading.settings.size === 0 && LISTS.every((name) => reading[name].length === 0);

/** Whether a piece was understood; or why it cannot be. */
export type Answer = boolean | string;

/** A way of saying something, and what it does to a reading. It takes one piece of what was typed, or leaves it whole. */
export type Way = readonly [
  RegExp,
  (found: readonly (string | undefined)[], reading: Reading, words: SiteWords) => Answer,
];

const onRule =
  (change: (rule: Rule) => Rule): Change =>
  (document) => ({ ...document, rule: change(document.rule) });
export const onMoment = (change: Partial<Moment>): Change =>
  onRule((rule) => ({ ...rule, moment: { ...rule.moment, ...change } }));
export const onReach = (change: Partial<Rule['reach']>): Change =>
  onRule((rule) => ({ ...rule, reach: { ...rule.reach, ...change } }));
export const onLimits = (change: Partial<Rule['limits']>): Change =>
  onRule((rule) => ({ ...rule, limits: { ...rule.limits, ...change } }));
const NO_SCHEDULE: Schedule = { zone: 'site', start: null, end: null, days: [], hours: [], blackouts: [] };
/** Changes a part of the schedule and leaves its others. */
export const onSchedule = (change: Partial<Schedule>): Change =>
  onRule((rule) => ({
    ...rule,
    limits: { ...rule.limits, schedule: { ...(rule.limits.schedule ?? NO_SCHEDULE), ...change } },
  }));

/** Takes a setting of which there can be one. */
export function setOnce({ settings }: Reading, name: string, value: unknown, change: Change): Answer {
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
const MOST_CONDITIONS = 12;

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
export const addTrigger = ({ triggers }: Reading, one: Trigger): Answer =>
  'seconds' in one && one.seconds > LIMITS.triggerSeconds
    ? `at most ${LIMITS.triggerSeconds / 60} minutes`
    : one.kind === 'scroll' && one.unit === 'percent' && one.amount > 100
      ? 'a page has 100 %'
      : add(triggers, one, triggerSchema, MOST_TRIGGERS);
export const addCap = ({ caps, settings }: Reading, one: Cap): Answer =>
  settings.has('uncapped') ? 'something else was said before' : add(caps, one, capSchema, MOST_CAPS);
export function addCondition(reading: Reading, condition: AudienceItem['condition'], not = false): Answer {
  if (!conditionSchema.safeParse(condition).success) return 'out of range';
  if (reading.settings.has('audience')) return 'something else was said before';
  if (reading.conditions.length === MOST_CONDITIONS) return `at most ${MOST_CONDITIONS}`;
  reading.conditions.push({ not, condition });
  return true;
}

export const addDesign = (
  { designs }: Reading,
  said: string,
  change: (message: Message) => Message,
): Answer => designs.push({ said, change }) > 0;

const ofDevices = ({ devices, withoutDevices }: Reading): Change =>
  onRule(({ reach, ...rule }) => ({
    ...rule,
    reach: {
      ...reach,
      devices: DEVICES.filter(
        (one) =>
          (devices.length > 0 ? devices : reach.devices).includes(one) && !withoutDevices.includes(one),
      ),
    },
  }));
const ofPages = ({ include, exclude }: Reading): Change =>
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
  }));
/** Alternatives are groups of their own; whatever must hold by itself stands together. */
function ofConditions({ conditions, alternatives }: Reading): Change {
  const runs: AudienceItem[][] = [];
  for (const [n, one] of conditions.entries())
    if (alternatives.has(n)) runs.at(-1)?.push(one);
    else runs.push([one]);
  const alone = runs.filter(({ length }) => length === 1).flat();
  const group = (match: 'all' | 'any', items: AudienceItem[]) => ({ not: false, match, items });
  return onReach({
    audience: audienceSchema.parse({
      match: 'all',
      groups: [
        ...(alone.length > 0 ? [group('all', alone)] : []),
        ...runs.filter(({ length }) => length > 1).map((items) => group('any', items)),
      ],
    }),
  });
}

/** What all that was understood makes of a campaign. */
export function changeOf(reading: Reading): Change {
  const { triggers, caps, settings, conditions, devices, withoutDevices, include, exclude, designs } =
    reading;
  // A wish about the moment takes the place of what a new campaign began with.
  const changes: Change[] = [
    ...[...settings.values()].map(({ change }) => change),
    ...(triggers.length > 0 ? [onMoment({ triggers })] : []),
    ...(caps.length > 0 ? [onLimits({ caps })] : []),
    ...(devices.length + withoutDevices.length > 0 ? [ofDevices(reading)] : []),
    ...(include.length + exclude.length > 0 ? [ofPages(reading)] : []),
    ...(conditions.length > 0 ? [ofConditions(reading)] : []),
    ...designs.map(
      ({ change }): Change =>
        ({ message, ...rest }) => ({ ...rest, message: change(message) }),
    ),
  ];
  return (document) => changes.reduce((old, change) => change(old), document);
}
