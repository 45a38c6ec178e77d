import type { Audience, Condition, Device, Pages, Rule, Trigger } from '@velarium/contract';
import { DEVICES } from '@velarium/contract';
import { compare } from '../audience/compare.ts';
import { nextChange, scheduleState } from '../schedule/schedule.ts';
import { A_DEVICE_WORDS } from '../sentence/words.ts';
import type { Finding } from './finding.ts';

/** Whether it can happen on this device at all: touch leaves no mouse trace, and a mouse makes no touch. */
function canHappen(trigger: Trigger, device: Device): boolean {
  const isTouched = device !== 'desktop';
  if (trigger.kind === 'exitMouse') return !isTouched;
  if (trigger.kind === 'interact' && trigger.what === 'hover') return !isTouched;
  if (trigger.kind === 'exitTouch') return isTouched;
  return true;
}

/** What of a rule can never come true by itself, whatever a visitor does. */
export function neverFindings({ moment, reach }: Rule): Finding[] {
  const findings: Finding[] = [];
  const stop = (code: string, part: Finding['part'], text: string) =>
    findings.push({ severity: 'stop', code, part, text });
  const warn = (code: string, part: Finding['part'], text: string) =>
    findings.push({ severity: 'warn', code, part, text });

  const opensOn = (device: Device) =>
    moment.join === 'any'
      ? moment.triggers.some((trigger) => canHappen(trigger, device))
      : moment.triggers.every((trigger) => canHappen(trigger, device));
  const devices = DEVICES.filter((device) => reach.devices.includes(device));
  const deaf = devices.filter((device) => !opensOn(device)).map((device) => A_DEVICE_WORDS[device]);
  if (deaf.length > 0)
    (deaf.length === devices.length ? stop : warn)(
      'moment.device',
      'moment',
      `Nothing of its moment can happen on ${deaf.join(' or ')}: add a trigger that can, or leave ${deaf.length === 1 ? 'it' : 'them'} out under Reach.`,
    );

  if (areTakenBack(reach.pages))
    stop('pages.taken-back', 'pages', 'All of its pages are among those it keeps away from.');
  const clash = reach.audience && contradiction(reach.audience);
  if (clash) stop('audience.nobody', 'audience', `Nobody is in its audience: ${clash}.`);
  return findings;
}

/** The zone in which a day ends last: what is over there is over for every visitor. */
const LAST_ZONE = 'Etc/GMT+12';

/** What of a rule can never come true any more, at this instant (epoch milliseconds) on a site in this time zone. */
export function scheduleFindings({ limits: { schedule } }: Rule, nowMs: number, siteZone: string): Finding[] {
  const zone = schedule?.zone === 'visitor' ? LAST_ZONE : siteZone;
  if (!schedule || scheduleState(schedule, nowMs, zone) === 'open') return [];
  if (nextChange(schedule, nowMs, zone) !== null) return [];
  const text =
    scheduleState(schedule, nowMs, zone) === 'after'
      ? 'Its schedule is over. Choose a later end, or none.'
      : 'Its schedule never opens: its days, hours and blackouts leave nothing.';
  return [{ severity: 'stop', code: 'schedule.never', part: 'schedule', text }];
}

/** Every page it includes is excluded in the same words, or lies under a beginning that is. */
function areTakenBack({ include, exclude, follows }: Pages): boolean {
  if (include.length === 0 || follows !== null || exclude.some(({ kind }) => kind === 'every')) return false;
  const taken = new Set(exclude.map((rule) => JSON.stringify(rule)));
  return include.every((rule) => {
    if (taken.has(JSON.stringify(rule))) return true;
    const address = rule.kind === 'exact' || rule.kind === 'begins' ? rule.address : undefined;
    return exclude.some(
      (other) => other.kind === 'begins' && address !== undefined && address.startsWith(other.address),
    );
  });
}

/** Of these a visitor has one at a time. */
const SINGLE: Readonly<Partial<Record<Condition['kind'], string>>> = {
  visitor: 'new and returning at once',
  signedIn: 'signed in and signed out at once',
  source: 'come from two kinds of place at once',
  landing: 'landed on two pages at once',
  country: 'in two countries at once',
  browser: 'using two browsers at once',
  system: 'using two systems at once',
};
/** Compared with a count of things. */
const COUNTED = ['sessions', 'views', 'basketItems'] as const;
type Counted = Extract<Condition, { kind: (typeof COUNTED)[number] }>;

/** Why nobody can be in an audience, if its conditions contradict one another. */
function contradiction({ match, groups }: Audience): string | undefined {
  if (match !== 'all') return undefined;
  // What every visitor of the audience must meet, and must not.
  const all = groups.flatMap((group) => (!group.not && group.match === 'all' ? group.items : []));
  const must = all.filter(({ not }) => !not).map(({ condition }) => condition);
  const mustNot = new Set(all.filter(({ not }) => not).map(({ condition }) => JSON.stringify(condition)));
  if (must.some((condition) => mustNot.has(JSON.stringify(condition))))
    return 'one condition is asked for and its opposite as well';
  for (const [kind, words] of Object.entries(SINGLE)) {
    const said = must.filter((condition) => condition.kind === kind).map((one) => JSON.stringify(one));
    if (new Set(said).size > 1) return `nobody is ${words}`;
  }
  for (const kind of COUNTED) {
    const asked = must.filter((condition): condition is Counted => condition.kind === kind);
    if (asked.length < 2) continue;
    const isMet = (count: number) =>
      asked.every((condition) => compare(count, condition.comparison, condition.count));
    // Where any count is met by all, one of those that are named is.
    if (!asked.some(({ count }) => isMet(count))) return 'no count is as many and as few as is asked for';
  }
  return undefined;
}
