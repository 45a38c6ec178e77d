import type { SiteSettings } from '@velarium/contract';
import { siteLimitsWords } from '@velarium/core';
import { NumberField } from '../../ui/number-field.tsx';
import { Switch } from '../../ui/switch.tsx';
import type { SettingFields } from './setting-fields.ts';

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

/** What all campaigns together may ask of a visitor. */
export function LimitFields({ settings, set }: SettingFields) {
  const setLimits = (change: Partial<SiteSettings['limits']>) =>
    set({ limits: { ...settings.limits, ...change } });
  return (
    <section className="grid gap-3">
      <h2 className="font-serif text-xl">How much a visitor meets</h2>
      <div className="grid grid-cols-4 gap-3">
        {LIMITS.map(({ key, label, max, plain }) => (
          <div key={key} className="grid content-start gap-1.5">
            <Switch
              label={label}
              isOn={settings.limits[key] !== null}
              onChange={(is) => setLimits({ [key]: is ? plain : null })}
            />
            {settings.limits[key] !== null && (
              <NumberField
                label={`${label}, at most`}
                isLabelHidden
                value={settings.limits[key] ?? undefined}
                min={1}
                max={max}
                onChange={(value) => setLimits({ [key]: value })}
              />
            )}
          </div>
        ))}
        <NumberField
          label="Seconds between two"
          unit="s"
          value={settings.limits.gapSeconds}
          min={0}
          max={86_400}
          onChange={(gapSeconds) => setLimits({ gapSeconds })}
        />
      </div>
      <p aria-live="polite" className="text-soft">
        {siteLimitsWords(settings.limits)} Whatever is set, there is never more than one interrupting message
        at a time, and boxes never lie on one another.
      </p>
    </section>
  );
}
