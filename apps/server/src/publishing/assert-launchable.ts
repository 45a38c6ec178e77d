import { type LaunchedInto, launchFindings, type Met } from '@velarium/core';
import { ProblemError } from '../infra/problem.ts';

/** @throws {ProblemError} Where a finding stops the launch, with what must be mended. */
export function assertLaunchable(launched: Met, into: LaunchedInto): void {
  const stops = launchFindings(launched, into).filter(({ severity }) => severity === 'stop');
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
