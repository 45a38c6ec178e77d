import { MOST_KEPT_DAYS } from '@velarium/contract/values';
import { capital, counted } from '@velarium/core';
import { useState } from 'react';
import { Button } from './button.tsx';
import { NumberField } from './number-field.tsx';
import { Switch } from './switch.tsx';

interface KeptForProps {
  /** What goes: "single events", "answers". */
  readonly what: string;
  readonly hint: string;
  /** `null` for ever; `undefined` while it is not known. */
  readonly days: number | null | undefined;
  /** Offered where it was kept for ever. */
  readonly first: number;
  readonly min: number;
  readonly isBusy: boolean;
  readonly onKeep: (days: number | null) => void;
}

/** How long something is kept. What goes does not come back, so days that are being typed are not yet said. */
export function KeptFor({ what, hint, days, first, min, isBusy, onKeep }: KeptForProps) {
  const [draft, setDraft] = useState<number | null>(null);
  const shown = draft ?? days;
  return (
    <div className="grid gap-2">
      <Switch
        label={`${capital(what)} go after a time`}
        hint={hint}
        isOn={shown != null}
        onChange={(is) => {
          setDraft(is ? first : null);
          if (!is && days != null) onKeep(null);
        }}
      />
      {shown != null && (
        <div className="flex flex-wrap items-end gap-3">
          <div className="w-32">
            <NumberField
              label="Kept for"
              unit="days"
              value={shown}
              min={min}
              max={MOST_KEPT_DAYS}
              onChange={setDraft}
            />
          </div>
          {draft !== null && draft !== days && (
            <Button tone="halt" isBusy={isBusy} onClick={() => onKeep(draft)}>
              Remove those older than {counted(draft, 'day')}
            </Button>
          )}
        </div>
      )}
    </div>
  );
}
