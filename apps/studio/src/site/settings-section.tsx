import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Site, SiteSettings } from '@velarium/contract';
import { siteSettingsSchema } from '@velarium/contract';
import { siteLimitsWords } from '@velarium/core';
import { useState } from 'react';
import { saveSettings, sitesQuery } from '../api/queries.ts';
import { useCanEdit } from '../app/use-session.ts';
import { Button } from '../ui/button.tsx';
import { NumberField } from '../ui/number-field.tsx';
import { Segments } from '../ui/segments.tsx';
import { Switch } from '../ui/switch.tsx';
import { TextArea } from '../ui/text-area.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { SiteForm } from './site-form.tsx';

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

/** What holds for every campaign of the site. */
export function SettingsSection({ site }: { readonly site: Site }) {
  const canEdit = useCanEdit();
  const queryClient = useQueryClient();
  const [settings, setSettings] = useState<SiteSettings>(site.settings);
  const set = (change: Partial<SiteSettings>) => setSettings((old) => ({ ...old, ...change }));
  const setLimits = (change: Partial<SiteSettings['limits']>) =>
    set({ limits: { ...settings.limits, ...change } });
  const save = useMutation({
    mutationFn: () => saveSettings(site.id, settings),
    onSuccess: () => {
      void queryClient.invalidateQueries({ queryKey: sitesQuery.queryKey });
      tell('Saved. Every page follows at its next load.');
    },
    onError: tellProblem,
  });
  const fault = siteSettingsSchema.safeParse(settings).error?.issues[0]?.message;
  const isChanged = JSON.stringify(settings) !== JSON.stringify(site.settings);
  return (
    <div className="grid max-w-2xl gap-8">
      <SiteForm site={site} />
      <form
        className="grid gap-6"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <fieldset disabled={!canEdit} className="grid gap-6">
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
              {siteLimitsWords(settings.limits)} Whatever is set, there is never more than one interrupting
              message at a time, and boxes never lie on one another.
            </p>
          </section>
          <section className="grid gap-3">
            <h2 className="font-serif text-xl">Visits and devices</h2>
            <div className="grid grid-cols-3 gap-3">
              <NumberField
                label="A session ends after"
                unit="min"
                value={settings.sessionMinutes}
                min={5}
                max={240}
                onChange={(sessionMinutes) => set({ sessionMinutes })}
              />
              <NumberField
                label="A phone is narrower than"
                unit="px"
                value={settings.breakpoints.mobile}
                min={320}
                max={2000}
                onChange={(mobile) => set({ breakpoints: { ...settings.breakpoints, mobile } })}
              />
              <NumberField
                label="A tablet is narrower than"
                unit="px"
                value={settings.breakpoints.tablet}
                min={320}
                max={2000}
                onChange={(tablet) => set({ breakpoints: { ...settings.breakpoints, tablet } })}
              />
            </div>
            <TextArea
              label="Parameters that never tell pages apart, one a line"
              value={settings.trackingParameters.join('\n')}
              onChange={(event) => set({ trackingParameters: event.target.value.split('\n') })}
              onBlur={() =>
                set({
                  trackingParameters: settings.trackingParameters.map((one) => one.trim()).filter(Boolean),
                })
              }
            />
            <Switch
              label="A fragment is a page of its own"
              hint="For sites that keep their pages behind a #."
              isOn={settings.hashRoutes}
              onChange={(hashRoutes) => set({ hashRoutes })}
            />
          </section>
          <section className="grid gap-3">
            <h2 className="font-serif text-xl">Privacy</h2>
            <Segments
              label="A visitor is remembered"
              value={settings.privacy.memory}
              onChange={(memory) => set({ privacy: { ...settings.privacy, memory } })}
              options={[
                { value: 'assumed', label: 'From the first page' },
                { value: 'asked', label: 'Once the page says they agreed' },
              ]}
            />
            <Switch
              label="Honours Global Privacy Control"
              hint="A browser that sends the signal is treated as one that refuses storage."
              isOn={settings.privacy.honoursSignal}
              onChange={(honoursSignal) => set({ privacy: { ...settings.privacy, honoursSignal } })}
            />
          </section>
        </fieldset>
        {canEdit && (
          <div className="sticky bottom-0 flex items-center gap-3 border-t border-line bg-paper py-3">
            <Button
              tone="main"
              type="submit"
              disabled={!isChanged || fault !== undefined}
              isBusy={save.isPending}
            >
              Save
            </Button>
            {isChanged && <Button onClick={() => setSettings(site.settings)}>Take the changes back</Button>}
            <p role="status" className="text-sm text-soft">
              {fault ?? (isChanged ? 'Not saved yet.' : 'All saved.')}
            </p>
          </div>
        )}
      </form>
    </div>
  );
}
