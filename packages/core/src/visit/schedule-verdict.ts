import type { ManifestCampaign } from '@velarium/contract';
import { nextChange, scheduleState } from '../schedule/schedule.ts';
import type { Verdict } from '../verdict/verdict.ts';

/** What its schedule has against a campaign at an instant, if anything. `zone` is the one its schedule asks for. */
export function scheduleVerdict(
  { schedule }: Pick<ManifestCampaign, 'schedule'>,
  atMs: number,
  zone: string,
): Verdict | undefined {
  const state = scheduleState(schedule, atMs, zone);
  if (state === 'open' || !schedule) return undefined;
  if (state === 'after') return { code: 'blocked:schedule.after' };
  return { code: `blocked:schedule.${state}`, retryAtMs: nextChange(schedule, atMs, zone) };
}
