import { type ConversionCounts, differenceWords, directionOf, rateDifference } from '@velarium/core';
import { cx } from '../ui/cx.ts';

const SIGNS = { up: '▲', down: '▼', unclear: '◇' } as const;
const TONES = { up: 'text-clear', down: 'text-halt', unclear: 'text-soft' } as const;
const WORDS = { up: 'surely more', down: 'surely less', unclear: 'not sure' } as const;

/** How a rate has changed, with its interval; coloured only where the interval leaves nought out. */
export function Change({
  before,
  now,
}: {
  readonly before: ConversionCounts;
  readonly now: ConversionCounts;
}) {
  const difference = rateDifference(before, now);
  if (difference.value === null) return <span className="text-soft">nothing to compare with</span>;
  const direction = directionOf(difference);
  return (
    <span className={cx('text-xs', TONES[direction])}>
      <span aria-hidden="true">{SIGNS[direction]}</span> {WORDS[direction]}
      <span className="block">{differenceWords(difference)}</span>
    </span>
  );
}
