import type { Schedule } from '@velarium/contract';
import { spanEdits, type TimeSpan } from '@velarium/core';
import { cx } from '../ui/cx.ts';
import { Field } from '../ui/field.tsx';

interface SpanPanelProps {
  readonly schedule: Schedule | null;
  readonly span: TimeSpan;
  readonly onSpan: (span: TimeSpan) => void;
  readonly onChoose: (schedule: Schedule | null) => void;
}

/** What can be done about days of a campaign, or about hours of each day. */
export function SpanPanel({ schedule, span, onSpan, onChoose }: SpanPanelProps) {
  const isDays = span.of === 'days';
  const isBackwards = span.from > span.to || (!isDays && span.from === span.to);
  const edits = isBackwards ? [] : spanEdits(schedule, span);
  // A field of a time of day knows no end of it.
  const shownTo = span.to === '24:00' ? '00:00' : span.to;
  const field = (side: 'from' | 'to', label: string, value: string) => (
    <Field
      label={label}
      type={isDays ? 'date' : 'time'}
      value={value}
      onChange={({ target }) => {
        if (target.value === '') return;
        const isEnd = side === 'to' && !isDays && target.value === '00:00';
        onSpan({ ...span, [side]: isEnd ? '24:00' : target.value });
      }}
    />
  );
  return (
    <div className="grid gap-3">
      <div className={cx('grid gap-3', !isDays && 'grid-cols-2')}>
        {field('from', isDays ? 'First day' : 'From', span.from)}
        {field('to', isDays ? 'Last day' : 'Until', shownTo)}
      </div>
      <ul className="grid gap-1.5" aria-label="What to do">
        {edits.map(({ id, words, schedule: next }) => (
          <li key={id} className="grid">
            <button
              type="button"
              className="rounded border border-line-strong bg-sheet px-3 py-1.5 text-left font-medium hover:border-ink"
              onClick={() => onChoose(next)}
            >
              {words}
            </button>
          </li>
        ))}
      </ul>
      {edits.length === 0 && (
        <p className="text-soft">
          {isBackwards ? 'It ends before it begins.' : 'Nothing about this would change when it runs.'}
        </p>
      )}
    </div>
  );
}
