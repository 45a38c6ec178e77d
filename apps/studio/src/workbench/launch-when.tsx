import { MOST_NOTE } from '@velarium/contract/values';
import { wallClock } from '@velarium/core';
import { cx } from '../ui/cx.ts';
import { Field } from '../ui/field.tsx';
import { Segments } from '../ui/segments.tsx';

const DAY_MS = 86_400_000;
/** Nine in the morning of the next day, by this zone's clock: where a plan begins from. */
const tomorrowAt = (zone: string): string =>
  `${new Date(wallClock(Date.now(), zone) + DAY_MS).toISOString().slice(0, 10)}T09:00`;

interface LaunchWhenProps {
  readonly zone: string;
  /** A date and time by the site's clock; now where `null`. */
  readonly at: string | null;
  readonly onAt: (at: string | null) => void;
  readonly note: string;
  readonly onNote: (note: string) => void;
}

/** When a launch is to be, and what the history is to say of it. */
export function LaunchWhen({ zone, at, onAt, note, onNote }: LaunchWhenProps) {
  return (
    <div className="grid items-end gap-3 sm:grid-cols-2">
      <Segments
        label="When"
        value={at === null ? 'now' : 'later'}
        onChange={(next) => onAt(next === 'now' ? null : tomorrowAt(zone))}
        options={[
          { value: 'now', label: 'Now' },
          { value: 'later', label: 'At a set time' },
        ]}
      />
      {at !== null && (
        <Field
          label={`By the clock of the site (${zone})`}
          type="datetime-local"
          value={at}
          onChange={(event) => onAt(event.target.value || tomorrowAt(zone))}
          hint="As it is now: what is edited later does not slip in. It can be called off under Versions."
        />
      )}
      <Field
        className={cx(at !== null && 'sm:col-span-2')}
        label="What and why, for the history"
        value={note}
        maxLength={MOST_NOTE}
        onChange={(event) => onNote(event.target.value)}
      />
    </div>
  );
}
