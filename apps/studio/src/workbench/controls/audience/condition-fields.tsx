import { useQuery } from '@tanstack/react-query';
import { type Condition, conditionSchema, type SeenValues } from '@velarium/contract';
import { BROWSERS, COMPARISONS, SOURCES, SYSTEMS } from '@velarium/contract/values';
import { COMPARISON_WORDS, figure } from '@velarium/core';
import { campaignsQuery, seenValuesQuery } from '../../../api/queries.ts';
import { CheckedField } from '../../../ui/checked-field.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { Segments } from '../../../ui/segments.tsx';
import { Select } from '../../../ui/select.tsx';
import { useWorkbench } from '../../store.ts';
import { countryOptions, languageOptions } from './places.ts';

const SOURCE_WORDS = {
  direct: 'Nowhere: typed or kept',
  search: 'A search',
  social: 'A social network',
  mail: 'A mail',
  site: 'Another site',
} as const;
const BROWSER_WORDS = {
  chromium: 'Chromium family',
  gecko: 'Gecko family',
  webkit: 'WebKit family',
  other: 'Another',
} as const;
const SYSTEM_WORDS = {
  ios: 'iOS',
  android: 'Android',
  windows: 'Windows',
  macos: 'macOS',
  linux: 'Linux',
  other: 'Another',
} as const;
const THIS = 'this';

export interface ConditionFieldsProps {
  readonly condition: Condition;
  readonly onChange: (condition: Condition) => void;
}

/** What can be set on one condition. */
export function ConditionFields({ condition, onChange }: ConditionFieldsProps) {
  const { data: seen } = useQuery(seenValuesQuery(useWorkbench((state) => state.siteId)));
  switch (condition.kind) {
    case 'visitor':
      return (
        <Segments
          label="The visitor is"
          value={condition.is}
          onChange={(is) => onChange({ ...condition, is })}
          options={[
            { value: 'new', label: 'New' },
            { value: 'returning', label: 'Returning' },
          ]}
        />
      );
    case 'signedIn':
      return (
        <Segments
          label="As the page tells"
          value={condition.is ? 'in' : 'out'}
          onChange={(is) => onChange({ ...condition, is: is === 'in' })}
          options={[
            { value: 'in', label: 'Signed in' },
            { value: 'out', label: 'Not signed in' },
          ]}
        />
      );
    case 'source':
      return (
        <Select
          label="From"
          value={condition.is}
          options={SOURCES.map((value) => ({ value, label: SOURCE_WORDS[value] }))}
          onChange={(is) => onChange({ ...condition, is })}
        />
      );
    case 'browser':
      return (
        <Select
          label="Browser"
          value={condition.is}
          options={BROWSERS.map((value) => ({ value, label: BROWSER_WORDS[value] }))}
          onChange={(is) => onChange({ ...condition, is })}
        />
      );
    case 'system':
      return (
        <Select
          label="System"
          value={condition.is}
          options={SYSTEMS.map((value) => ({ value, label: SYSTEM_WORDS[value] }))}
          onChange={(is) => onChange({ ...condition, is })}
        />
      );
    case 'sessions':
    case 'views':
    case 'basketItems':
    case 'basketTotal': {
      const isMoney = condition.kind === 'basketTotal';
      return (
        <div className="grid grid-cols-[1fr_6rem] items-end gap-2">
          <Select
            label="How many"
            value={condition.comparison}
            options={COMPARISONS.map((value) => ({ value, label: COMPARISON_WORDS[value] }))}
            onChange={(comparison) => onChange({ ...condition, comparison } as Condition)}
          />
          <NumberField
            label={isMoney ? 'Worth' : 'Number'}
            value={isMoney ? condition.amount : condition.count}
            min={0}
            max={1_000_000}
            onChange={(count) =>
              onChange((isMoney ? { ...condition, amount: count } : { ...condition, count }) as Condition)
            }
          />
        </div>
      );
    }
    case 'country':
      return (
        <Select
          label="Country"
          value={condition.code}
          options={countryOptions(condition.code, seen?.countries)}
          onChange={(code) => onChange({ ...condition, code })}
        />
      );
    case 'language':
      return (
        <Select
          label="Language"
          value={condition.code}
          options={languageOptions(condition.code, seen?.languages)}
          onChange={(code) => onChange({ ...condition, code })}
        />
      );
    case 'referrer':
      return (
        <Typed
          label="Site"
          seen={seen?.referrers}
          value={condition.host}
          of={(host) => ({ ...condition, host })}
          onChange={onChange}
        />
      );
    case 'landing':
      return (
        <Typed
          label="Path"
          seen={seen?.landings}
          value={condition.path}
          of={(path) => ({ ...condition, path })}
          onChange={onChange}
        />
      );
    case 'arrival':
      return (
        <div className="grid grid-cols-2 gap-2">
          <Typed
            label="Parameter"
            seen={namesOf(seen?.parameters)}
            value={condition.parameter}
            of={(parameter) => ({ ...condition, parameter })}
            onChange={onChange}
          />
          <Typed
            label="Being"
            seen={valuesOf(seen?.parameters, condition.parameter)}
            value={condition.value}
            of={(value) => ({ ...condition, value })}
            onChange={onChange}
          />
        </div>
      );
    case 'attribute':
      return (
        <div className="grid grid-cols-2 gap-2">
          <Typed
            label="Name"
            seen={namesOf(seen?.attributes)}
            value={condition.name}
            of={(name) => ({ ...condition, name })}
            onChange={onChange}
          />
          <Typed
            label="Being"
            seen={valuesOf(seen?.attributes, condition.name)}
            value={condition.value}
            of={(value) => ({ ...condition, value })}
            onChange={onChange}
          />
        </div>
      );
    case 'campaign':
      return <CampaignFields condition={condition} onChange={onChange} />;
  }
}

function CampaignFields({
  condition,
  onChange,
}: {
  readonly condition: Extract<Condition, { kind: 'campaign' }>;
  readonly onChange: (condition: Condition) => void;
}) {
  const id = useWorkbench((state) => state.id);
  const { data: campaigns } = useQuery(campaignsQuery(useWorkbench((state) => state.siteId)));
  return (
    <>
      <Select
        label="Has"
        value={condition.what}
        options={[
          { value: 'seen', label: 'Seen' },
          { value: 'closed', label: 'Closed' },
          { value: 'converted', label: 'Converted on' },
        ]}
        onChange={(what) => onChange({ ...condition, what })}
      />
      <Select
        label="The campaign"
        value={condition.id ?? THIS}
        options={[
          { value: THIS, label: 'This one' },
          ...(campaigns ?? [])
            .filter((one) => one.id !== id)
            .map((one) => ({ value: one.id, label: one.name })),
        ]}
        onChange={(next) => onChange({ ...condition, id: next === THIS ? null : next })}
      />
    </>
  );
}

interface TypedProps {
  readonly label: string;
  readonly value: string;
  readonly of: (text: string) => Condition;
  readonly onChange: (condition: Condition) => void;
  /** What visitors of the last 30 days came with, with how many of them. */
  readonly seen: SeenValues[keyof SeenValues] | undefined;
}

/** A text of a condition, typed or chosen from what was seen. */
const Typed = ({ label, value, of, onChange, seen }: TypedProps) => (
  <CheckedField
    label={label}
    value={value}
    faultOf={(text) => {
      const { error } = conditionSchema.safeParse(of(text));
      return error && (error.issues[0]?.message ?? 'write it anew');
    }}
    onChange={(text) => onChange(conditionSchema.parse(of(text)))}
    suggestions={seen?.map((one) => ({ value: one.value, note: `${figure(one.visitors)} seen` }))}
  />
);

/** Names seen, each once, with the visitors of its most frequent value. */
const namesOf = (pairs: SeenValues['parameters'] | undefined) =>
  pairs &&
  [...new Map([...pairs].reverse().map((pair) => [pair.name, pair])).values()]
    .reverse()
    .map(({ name, visitors }) => ({ value: name, visitors }));
const valuesOf = (pairs: SeenValues['parameters'] | undefined, name: string) =>
  pairs?.filter((pair) => pair.name === name);
