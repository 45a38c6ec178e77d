import type { CampaignSummary, Pages, Rule, Trigger } from '@velarium/contract';
import { hasRoom } from '../arbitration/arbitration.ts';
import { cellsOf, type PlacedMessage } from '../arbitration/cells.ts';
import { PLAIN_STYLE } from '../message/plain.ts';
import type { Finding } from './finding.ts';

/** A campaign as far as its neighbours are concerned. */
export type Neighbour = Pick<CampaignSummary, 'id' | 'name' | 'state' | 'format' | 'anchor' | 'rule'>;

interface Subject {
  readonly id: string;
  readonly rule: Rule;
  /** Its messages, all of its variants'. */
  readonly messages: readonly PlacedMessage[];
}

/** Names the running campaigns that are always open first where this one would be. */
export function inTheWay(subject: Subject, neighbours: readonly Neighbour[]): Finding[] {
  return neighbours
    .filter((other) => other.id !== subject.id && other.state === 'running' && isAlwaysFirst(other, subject))
    .map(({ name }) =>
      subject.rule.limits.whenBusy === 'yield'
        ? {
            severity: 'warn',
            code: 'busy.never',
            part: 'busy',
            text: `It gives way to “${name}”, which is always open first on its pages: nobody would see it. Let it wait, or place it elsewhere.`,
          }
        : {
            severity: 'warn',
            code: 'busy.after',
            part: 'busy',
            text: `“${name}” is always open first on its pages and in its place: only who closes that one sees this one.`,
          },
    );
}

function isAlwaysFirst(other: Neighbour, subject: Subject): boolean {
  const { reach, limits } = other.rule;
  const isForEverybody = reach.audience === null && limits.schedule === null && limits.holdout === 0;
  const comesEveryTime =
    limits.caps.length === 0 &&
    limits.stopAfterUnanswered === null &&
    [limits.afterClose, limits.afterNo, limits.afterConversion].every((pause) => pause === 'none');
  // A place of its neighbour's own on a narrower device is not known here.
  const { format, anchor } = other;
  const [mine, theirs] = [
    { cells: cellsOf(subject.messages) },
    { cells: cellsOf([{ format, anchor, style: PLAIN_STYLE }]) },
  ];
  return (
    isForEverybody &&
    comesEveryTime &&
    covers(reach.pages, subject.rule.reach.pages) &&
    subject.rule.reach.devices.every(
      (device) => reach.devices.includes(device) && !hasRoom(mine, [theirs], device),
    ) &&
    opensFirst(other.rule, subject.rule)
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

function opensFirst(other: Rule, subject: Rule): boolean {
  const latest = latestOf(other);
  const earliest = earliestOf(subject);
  return latest < earliest || (latest === earliest && other.limits.priority > subject.limits.priority);
}

/** Seconds of visible time that a trigger surely has come by; `Infinity` where it takes something to happen. */
const surelyBy = (trigger: Trigger): number =>
  trigger.kind === 'time' ? trigger.seconds : Number.POSITIVE_INFINITY;
/** Seconds of visible time before which a trigger cannot come. */
const notBefore = (trigger: Trigger): number =>
  trigger.kind === 'time' || trigger.kind === 'inactivity' ? trigger.seconds : 0;

function latestOf({ moment }: Rule): number {
  const times = moment.triggers.map(surelyBy);
  return Math.max(moment.notBeforeSeconds, moment.join === 'any' ? Math.min(...times) : Math.max(...times));
}
function earliestOf({ moment }: Rule): number {
  const times = moment.triggers.map(notBefore);
  return Math.max(moment.notBeforeSeconds, moment.join === 'any' ? Math.min(...times) : Math.max(...times));
}
