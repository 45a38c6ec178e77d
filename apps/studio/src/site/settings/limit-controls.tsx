import type { SiteLimits } from '@velarium/contract';
import { siteLimitsWords } from '@velarium/core';
import { NumberField } from '../../ui/number-field.tsx';
import { Switch } from '../../ui/switch.tsx';

type LimitKey = 'perPageView' | 'perSession' | 'perDay';
const LIMITS: readonly {
  readonly key: LimitKey;
  readonly label: string;
  readonly max: number;
  readonly plain: number;
}[] = [
  { key: 'perPageView', label: 'Per page view', max: 50, plain: 3 },
  { key: 'perSession', label: 'Per session', max: 200, plain: 8 },
  { key: 'perDay', label: 'Per day', max: 500, plain: 12 },
];

interface LimitControlsProps {
  readonly limits: SiteLimits;
  readonly onChange: (limits: SiteLimits) => void;
}

/** What all campaigns together may ask of a visitor, with what that comes to in words. */
export function LimitControls({ limits, onChange }: LimitControlsProps) {
  return (
    <>
      <div className="grid grid-cols-[repeat(auto-fit,minmax(10rem,1fr))] gap-3">
        {LIMITS.map(({ key, label, max, plain }) => (
          <div key={key} className="grid content-start gap-1.5">
            <Switch
              label={label}
              isOn={limits[key] !== null}
              onChange={(is) => onChange({ ...limits, [key]: is ? plain : null })}
            />
            {limits[key] !== null && (
              <NumberField
                label={`${label}, at most`}
                isLabelHidden
                value={limits[key] ?? undefined}
                min={1}
                max={max}
                onChange={(value) => onChange({ ...limits, [key]: value })}
              />
            )}
          </div>
        ))}
        <NumberField
          label="Seconds between two"
          unit="s"
          value={limits.gapSeconds}
          min={0}
          max={86_400}
          onChange={(gapSeconds) => onChange({ ...limits, gapSeconds })}
        />
      </div>
      <p aria-live="polite" className="text-soft">
        {siteLimitsWords(limits)} Whatever is set, there is never more than one interrupting message at a
        time, and boxes never lie on one another.
      </p>
    </>
  );
}
