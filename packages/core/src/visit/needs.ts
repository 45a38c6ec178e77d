import type { Manifest, TriggerKind } from '@velarium/contract';

/** Triggers that need no fact: the clocks and the counts are enough. */
const BY_THEMSELVES: ReadonlySet<TriggerKind> = new Set(['time', 'sessionTime', 'count', 'inactivity']);

/** Whether a manifest uses any of the laws that are kept apart. */
export const needsExtras = ({ campaigns }: Manifest): boolean =>
  campaigns.some(
    ({ audience, schedule, include, exclude, moment }) =>
      audience !== null ||
      schedule !== null ||
      [...include, ...exclude].some(({ kind }) => kind !== 'every') ||
      moment.triggers.some(({ kind }) => !BY_THEMSELVES.has(kind)),
  );
