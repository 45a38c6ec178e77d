import { LimitControls } from './limit-controls.tsx';
import type { SettingFields } from './setting-fields.ts';

/** What all campaigns together may ask of a visitor. */
export function LimitFields({ settings, set }: SettingFields) {
  return (
    <section className="grid gap-3">
      <h2 className="font-serif text-xl">How much a visitor meets</h2>
      <LimitControls limits={settings.limits} onChange={(limits) => set({ limits })} />
    </section>
  );
}
