import type { Campaign, Moment, Pages, Rule, Trigger } from '@velarium/contract';
import { hasRoom, type Placed } from '../arbitration/arbitration.ts';
import { cellsOf } from '../arbitration/cells.ts';
import type { Finding } from './finding.ts';

/** A campaign as it is met on pages: the published document, or the one about to be. */
export type Met = Pick<Campaign, 'id' | 'name' | 'document'>;

/** Names the campaigns that are always open first where this one would be, and those before which this one always is. */
export function inTheWay(subject: Met, running: readonly Met[]): Finding[] {
  const others = running.filter(({ id }) => id !== subject.id);
  return [
    ...others.filter((other) => isAlwaysFirst(other, subject)).map(({ name }) => behind(subject, name)),
    ...others.filter((other) => isAlwaysFirst(subject, other)).map(before),
  ];
}

const givesWay = ({ document }: Met): boolean => document.rule.limits.whenBusy === 'yield';

const behind = (subject: Met, name: string): Finding =>
  givesWay(subject)
    ? {
        severity: 'stop',
        code: 'busy.never',
        part: 'busy',
        text: `It gives way to “${name}”, which is always open first on its pages: nobody would see it. Let it wait, or place it elsewhere.`,
      }
    : {
        severity: 'warn',
        code: 'busy.after',
        part: 'busy',
        text: `“${name}” is always open first on its pages and in its place: only who closes that one sees this one.`,
      };

const before = (other: Met): Finding => ({
  severity: 'warn',
  code: 'busy.hides',
  part: 'busy',
  text: givesWay(other)
    ? `It is always open first where “${other.name}” would be, which gives way: nobody would see that one any more.`
    : `It is always open first where “${other.name}” would be: only who closes this one sees that one.`,
});

/** Every message the campaign may show, and every moment it may show one at: those of its variants too. */
const messagesOf = ({ document: { message, variants } }: Met) => [
  message,
  ...variants.map((one) => one.message),
];
const momentsOf = ({ document: { rule, variants } }: Met): readonly Moment[] => [
  rule.moment,
  ...variants.map((one) => one.moment ?? rule.moment),
];

/**
 * Whether one is surely open whenever the other could open. Of a campaign with variants that lie in several places nobody can
 * say where it is.
 */
function isAlwaysFirst(first: Met, second: Met): boolean {
  const { reach, limits } = first.document.rule;
  const isForEverybody = reach.audience === null && limits.schedule === null && limits.holdout === 0;
  const comesEveryTime =
    limits.caps.length === 0 &&
    limits.stopAfterUnanswered === null &&
    limits.withoutMemory !== 'never' &&
    [limits.afterClose, limits.afterNo, limits.afterConversion].every((pause) => pause === 'none');
  const places: readonly Placed[] = messagesOf(second).map((message) => ({ cells: cellsOf([message]) }));
  const taken: readonly Placed[] = messagesOf(first).map((message) => ({ cells: cellsOf([message]) }));
  const { devices, pages } = second.document.rule.reach;
  return (
    isForEverybody &&
    comesEveryTime &&
    covers(reach.pages, pages) &&
    devices.every(
      (device) =>
        reach.devices.includes(device) &&
        places.every((place) => taken.every((other) => !hasRoom(place, [other], device))),
    ) &&
    opensFirst(first, second)
  );
}

/** Every page of `inner` is one of `outer`, as far as their words tell. */
function covers(outer: Pages, inner: Pages): boolean {
  const words = (rules: Pages['include']) => new Set(rules.map((rule) => JSON.stringify(rule)));
  const kept = words(inner.exclude);
  if (outer.exclude.some((rule) => !kept.has(JSON.stringify(rule)))) return false;
  if (outer.include.some(({ kind }) => kind === 'every')) return true;
  const included = words(outer.include);
  return inner.follows === null && inner.include.every((rule) => included.has(JSON.stringify(rule)));
}

function opensFirst(first: Met, second: Met): boolean {
  const latest = Math.max(...momentsOf(first).map(latestOf));
  const earliest = Math.min(...momentsOf(second).map(earliestOf));
  return (
    latest < earliest ||
    (latest === earliest && priorityOf(first.document.rule) > priorityOf(second.document.rule))
  );
}
const priorityOf = ({ limits }: Rule): number => limits.priority;

/** Seconds of visible time that a trigger surely has come by; `Infinity` where it takes something to happen. */
const surelyBy = (trigger: Trigger): number =>
  trigger.kind === 'time' ? trigger.seconds : Number.POSITIVE_INFINITY;
/** Seconds of visible time before which a trigger cannot come. */
const notBefore = (trigger: Trigger): number =>
  trigger.kind === 'time' || trigger.kind === 'inactivity' ? trigger.seconds : 0;

function latestOf({ triggers, join, notBeforeSeconds }: Moment): number {
  const times = triggers.map(surelyBy);
  return Math.max(notBeforeSeconds, join === 'any' ? Math.min(...times) : Math.max(...times));
}
/** Seconds of visible time before which a moment cannot come. */
export function earliestOf({
  triggers,
  join,
  notBeforeSeconds,
}: Pick<Moment, 'triggers' | 'join' | 'notBeforeSeconds'>): number {
  const times = triggers.map(notBefore);
  return Math.max(notBeforeSeconds, join === 'any' ? Math.min(...times) : Math.max(...times));
}
