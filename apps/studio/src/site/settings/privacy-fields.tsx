import { siteSettingsSchema } from '@velarium/contract';
import { CheckedField } from '../../ui/checked-field.tsx';
import { Segments } from '../../ui/segments.tsx';
import { Switch } from '../../ui/switch.tsx';
import { NamesArea } from './names-area.tsx';
import type { SettingFields } from './setting-fields.ts';

/** What is remembered of visitors, and what is recorded. */
export function PrivacyFields({ settings, set }: SettingFields) {
  return (
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
      <Switch
        label="Records what pages tell of a visitor"
        hint="Whether they are signed in and what their basket holds, so that audiences can be counted. Nothing is recorded while this is off."
        isOn={settings.recordedFacts !== null}
        onChange={(is) => set({ recordedFacts: is ? [] : null })}
      />
      <Switch
        label="Tells the page what messages do"
        hint="A DOM event on document for each (velarium:shown, viewable, clicked, answering, closed, converted, refused), so that whatever measures on the page can count it. Only for visitors who agreed to be remembered."
        isOn={settings.measuring !== undefined}
        onChange={(is) => set({ measuring: is ? { array: null } : undefined })}
      />
      {settings.measuring && (
        <CheckedField
          label="And puts it into the page’s array of this name"
          value={settings.measuring.array ?? ''}
          faultOf={(text) =>
            text === ''
              ? undefined
              : siteSettingsSchema.shape.measuring.safeParse({ array: text }).error?.issues[0]?.message
          }
          onChange={(text) => set({ measuring: { array: text === '' ? null : text } })}
        />
      )}
      {settings.recordedFacts !== null && (
        <NamesArea
          label="Attributes to record as well, one a line"
          hint="Name only what says nothing of who somebody is: plan, not firstName."
          value={settings.recordedFacts}
          onChange={(recordedFacts) => set({ recordedFacts })}
        />
      )}
    </section>
  );
}
