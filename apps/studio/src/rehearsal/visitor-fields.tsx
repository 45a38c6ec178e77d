import type { RehearsedVisitor } from '@velarium/contract';
import { BROWSERS, DEVICES, SOURCES, SYSTEMS } from '@velarium/contract/values';
import { beginPage, beginRehearsal, DEVICE_WORDS, VISITOR_PRESETS } from '@velarium/core';
import { CheckedField } from '../ui/checked-field.tsx';
import { Field } from '../ui/field.tsx';
import { Fold } from '../ui/fold.tsx';
import { NumberField } from '../ui/number-field.tsx';
import { Segments } from '../ui/segments.tsx';
import { Select } from '../ui/select.tsx';

const SOURCE_NAMES: Readonly<Record<(typeof SOURCES)[number], string>> = {
  direct: 'Typed in, or not known',
  search: 'A search',
  social: 'A social network',
  mail: 'A mail',
  site: 'Another site',
};
const BROWSER_NAMES: Readonly<Record<(typeof BROWSERS)[number], string>> = {
  chromium: 'Chromium and its kin',
  gecko: 'Gecko',
  webkit: 'WebKit',
  other: 'Another',
};
const SYSTEM_NAMES: Readonly<Record<(typeof SYSTEMS)[number], string>> = {
  ios: 'iOS',
  android: 'Android',
  windows: 'Windows',
  macos: 'macOS',
  linux: 'Linux',
  other: 'Another',
};
const MET = [
  { value: 'nothing', label: 'never met it' },
  { value: 'seen', label: 'has seen it' },
  { value: 'closed', label: 'has closed it' },
  { value: 'refused', label: 'has said no' },
  { value: 'converted', label: 'has converted' },
] as const;
const A_DAY_HOURS = 24;
/** Stands while no preset is chosen: what is set below is what holds. */
const NOBODY = 'nobody';

interface VisitorFieldsProps {
  readonly visitor: RehearsedVisitor;
  readonly campaigns: readonly { readonly id: string; readonly name: string }[];
  readonly timeZone: string;
  readonly onChange: (change: Partial<RehearsedVisitor>, key: string) => void;
}

/** Who comes, when, and what they have met before. */
export function VisitorFields({ visitor, campaigns, timeZone, onChange }: VisitorFieldsProps) {
  const set = (change: Partial<RehearsedVisitor>) => onChange(change, Object.keys(change).join());
  const choose = (words: string) => {
    const preset = VISITOR_PRESETS.find((one) => one.words === words);
    const plain = beginRehearsal(beginPage('/'), visitor.begins).visitor;
    if (preset) set({ ...plain, met: visitor.met, ...preset.visitor });
  };
  const setMet = (campaign: string, what: (typeof MET)[number]['value'], hoursBefore: number) =>
    set({
      met: [
        ...visitor.met.filter((one) => one.campaign !== campaign),
        ...(what === 'nothing' ? [] : [{ campaign, what, hoursBefore }]),
      ],
    });
  return (
    <section aria-label="The visitor" className="grid content-start gap-3">
      <h2 className="font-serif text-xl">The visitor</h2>
      <Select
        label="Begin with"
        value={NOBODY}
        options={[
          { value: NOBODY, label: 'Somebody one often thinks of …' },
          ...VISITOR_PRESETS.map(({ words }) => ({ value: words, label: words })),
        ]}
        onChange={choose}
      />
      <Segments
        label="On"
        value={visitor.device}
        options={DEVICES.map((value) => ({ value, label: DEVICE_WORDS[value] }))}
        onChange={(device) => set({ device })}
      />
      <Field
        label={`Comes at (${timeZone})`}
        type="datetime-local"
        value={visitor.begins}
        onChange={(event) => event.target.value && set({ begins: event.target.value.slice(0, 16) })}
      />
      <NumberField
        label="In their session number"
        value={visitor.session}
        min={1}
        max={1000}
        onChange={(session) => set({ session })}
      />
      <Select
        label="From"
        value={visitor.source}
        options={SOURCES.map((value) => ({ value, label: SOURCE_NAMES[value] }))}
        onChange={(source) => set({ source })}
      />
      <Segments
        label="Signed in"
        value={visitor.signedIn === null ? 'unknown' : visitor.signedIn ? 'yes' : 'no'}
        options={[
          { value: 'unknown', label: 'not told' },
          { value: 'yes', label: 'yes' },
          { value: 'no', label: 'no' },
        ]}
        onChange={(is) => set({ signedIn: is === 'unknown' ? null : is === 'yes' })}
      />
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          label="In the basket"
          value={visitor.basket?.items}
          placeholder="not told"
          min={0}
          max={1000}
          onChange={(items) => set({ basket: { items, total: visitor.basket?.total ?? 0 } })}
          onClear={() => set({ basket: null })}
        />
        <NumberField
          label="Worth"
          value={visitor.basket?.total}
          placeholder="not told"
          min={0}
          max={1_000_000}
          onChange={(total) => set({ basket: { items: visitor.basket?.items ?? 1, total } })}
          onClear={() => set({ basket: null })}
        />
      </div>
      <div>
        <Fold
          title="Met before"
          note={visitor.met.length === 0 ? 'nothing' : `${visitor.met.length} of ${campaigns.length}`}
        >
          {campaigns.map(({ id, name }) => {
            const met = visitor.met.find(({ campaign }) => campaign === id);
            return (
              <div key={id} className="grid gap-1.5">
                <Select
                  label={name}
                  value={met?.what ?? 'nothing'}
                  options={MET}
                  onChange={(what) => setMet(id, what, met?.hoursBefore ?? A_DAY_HOURS)}
                />
                {met && (
                  <NumberField
                    label={`${name}: before this visit`}
                    unit="h"
                    value={met.hoursBefore}
                    min={0}
                    max={17_520}
                    onChange={(hoursBefore) => setMet(id, met.what, hoursBefore)}
                  />
                )}
              </div>
            );
          })}
        </Fold>
        <Fold title="Browser, language and country">
          <Select
            label="Browser"
            value={visitor.browser}
            options={BROWSERS.map((value) => ({ value, label: BROWSER_NAMES[value] }))}
            onChange={(browser) => set({ browser })}
          />
          <Select
            label="System"
            value={visitor.system}
            options={SYSTEMS.map((value) => ({ value, label: SYSTEM_NAMES[value] }))}
            onChange={(system) => set({ system })}
          />
          <CheckedField
            label="Language"
            value={visitor.language}
            faultOf={(text) =>
              /^[a-z]{2,3}(-[a-z0-9]{2,8})*$/.test(text) ? undefined : 'write a code like en or en-gb'
            }
            onChange={(language) => set({ language })}
          />
          <CheckedField
            label="Country, two letters"
            value={visitor.country ?? ''}
            faultOf={(text) => (/^([a-z]{2})?$/.test(text) ? undefined : 'write two small letters')}
            onChange={(country) => set({ country: country || null })}
          />
          <Field
            label="Host they come from"
            value={visitor.referrer}
            maxLength={253}
            onChange={(event) => set({ referrer: event.target.value.trim().toLowerCase() })}
          />
        </Fold>
      </div>
    </section>
  );
}
