import type { CampaignDocument, LookStyle } from '@velarium/contract';
import { launchFindings, scheduleFindings } from '@velarium/core';
import { ProblemError } from '../infra/problem.ts';

/** @throws {ProblemError} Where a finding stops the launch, with what must be mended. */
export function assertLaunchable(document: CampaignDocument, look: LookStyle, zone: string): void {
  const found = [...launchFindings(document, look), ...scheduleFindings(document.rule, Date.now(), zone)];
  const stops = found.filter((finding) => finding.severity === 'stop');
  const [first] = stops;
  if (!first) return;
  throw new ProblemError(
    422,
    'not-launchable',
    'Not ready to publish',
    first.text,
    stops.map(({ part, text }) => ({ path: part, message: text })),
  );
}
