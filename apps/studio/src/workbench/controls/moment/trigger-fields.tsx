import type { DataCondition, Trigger } from '@velarium/contract';
import { COMPARISONS, EXIT_CERTAINTIES } from '@velarium/contract/values';
import { COMPARISON_WORDS } from '@velarium/core';
import { Field } from '../../../ui/field.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { Segments } from '../../../ui/segments.tsx';
import { Select } from '../../../ui/select.tsx';
import { Switch } from '../../../ui/switch.tsx';
import { SecondsField } from './seconds-field.tsx';
import { SelectorField } from './selector-field.tsx';

const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);
const COUNTED = [
  { value: 'viewsInSession', label: 'Page views of the session' },
  { value: 'viewsOfPage', label: 'Views of this page' },
  { value: 'sessions', label: 'Sessions so far' },
] as const;

export interface TriggerFieldsProps {
  readonly trigger: Trigger;
  readonly onChange: (trigger: Trigger) => void;
}

/** What can be set on one trigger. */
export function TriggerFields({ trigger, onChange }: TriggerFieldsProps) {
  switch (trigger.kind) {
    case 'load':
      return (
        <Segments
          label="When"
          value={trigger.when}
          onChange={(when) => onChange({ ...trigger, when })}
          options={[
            { value: 'ready', label: 'It can be read' },
            { value: 'loaded', label: 'All is there' },
          ]}
        />
      );
    case 'time':
      return (
        <SecondsField
          label="Seconds on the page"
          value={trigger.seconds}
          placeholder="at once"
          onChange={(seconds) => onChange({ ...trigger, seconds })}
        />
      );
    case 'sessionTime':
      return (
        <SecondsField
          label="Seconds in the session"
          value={trigger.seconds}
          placeholder="at once"
          onChange={(seconds) => onChange({ ...trigger, seconds })}
        />
      );
    case 'inactivity':
      return (
        <SecondsField
          label="Seconds of stillness"
          least={1}
          value={trigger.seconds}
          placeholder=""
          onChange={(seconds) => onChange({ ...trigger, seconds })}
        />
      );
    case 'scroll':
      return (
        <div className="grid grid-cols-[1fr_6rem] items-end gap-2">
          <Segments
            label="Measured in"
            value={trigger.unit}
            onChange={(unit) => onChange({ kind: 'scroll', unit, amount: unit === 'percent' ? 50 : 1200 })}
            options={[
              { value: 'percent', label: '% of the page' },
              { value: 'pixels', label: 'Pixels' },
            ]}
          />
          <NumberField
            label="Depth"
            unit={trigger.unit === 'percent' ? '%' : 'px'}
            value={trigger.amount}
            min={0}
            max={trigger.unit === 'percent' ? 100 : 100_000}
            step={trigger.unit === 'percent' ? 1 : 10}
            onChange={(amount) => onChange({ ...trigger, amount })}
          />
        </div>
      );
    case 'element':
      return (
        <SelectorField value={trigger.selector} onChange={(selector) => onChange({ ...trigger, selector })} />
      );
    case 'interact':
      return (
        <>
          <Segments
            label="It is"
            value={trigger.what}
            onChange={(what) => onChange({ ...trigger, what })}
            options={[
              { value: 'click', label: 'Clicked' },
              { value: 'hover', label: 'Hovered over' },
              { value: 'focus', label: 'Focused' },
            ]}
          />
          <SelectorField
            isForClick={trigger.what === 'click'}
            value={trigger.selector}
            onChange={(selector) => onChange({ ...trigger, selector })}
          />
        </>
      );
    case 'exitMouse':
      return (
        <Segments
          label="Reacts to a sign that is"
          value={trigger.certainty}
          onChange={(certainty) => onChange({ ...trigger, certainty })}
          options={EXIT_CERTAINTIES.map((value) => ({ value, label: capital(value) }))}
        />
      );
    case 'exitTouch':
      return (
        <Segments
          label="By"
          value={trigger.by}
          onChange={(by) => onChange({ ...trigger, by })}
          options={[
            { value: 'scrollUp', label: 'Quick scroll up' },
            { value: 'back', label: 'Back gesture' },
          ]}
        />
      );
    case 'count':
      return (
        <div className="grid grid-cols-[1fr_6rem] items-end gap-2">
          <Select
            label="What is counted"
            value={trigger.of}
            options={COUNTED}
            onChange={(of) => onChange({ ...trigger, of })}
          />
          <NumberField
            label="From the … th"
            value={trigger.atLeast}
            min={1}
            max={1000}
            onChange={(atLeast) => onChange({ ...trigger, atLeast })}
          />
        </div>
      );
    case 'event':
      return <EventFields trigger={trigger} onChange={onChange} />;
    default:
      return null;
  }
}

type EventTrigger = Extract<Trigger, { kind: 'event' }>;

/** A value as the page would send it: numbers and truths are told from words. */
const readValue = (text: string): DataCondition['value'] =>
  text === 'true' || text === 'false'
    ? text === 'true'
    : text.trim() !== '' && Number.isFinite(Number(text))
      ? Number(text)
      : text.slice(0, 300);

function EventFields({
  trigger,
  onChange,
}: {
  readonly trigger: EventTrigger;
  readonly onChange: (trigger: Trigger) => void;
}) {
  const { condition } = trigger;
  const set = (change: Partial<DataCondition>) =>
    condition && onChange({ ...trigger, condition: { ...condition, ...change } });
  return (
    <>
      <Field
        label="Name of the event"
        value={trigger.name}
        maxLength={80}
        list="velarium-events"
        onChange={(event) => event.target.value.trim() && onChange({ ...trigger, name: event.target.value })}
        hint="basket and signIn are told by themselves; others as velarium.event(name, data)."
      />
      <datalist id="velarium-events">
        <option value="basket" />
        <option value="signIn" />
      </datalist>
      <Switch
        label="Only with certain data"
        isOn={condition !== null}
        onChange={(is) =>
          onChange({
            ...trigger,
            condition: is ? { path: 'total', comparison: 'atLeast', value: 60 } : null,
          })
        }
      />
      {condition && (
        <div className="grid grid-cols-[1fr_6.5rem_1fr] items-end gap-2">
          <Field
            label="Value"
            value={condition.path}
            maxLength={120}
            onChange={(event) => event.target.value && set({ path: event.target.value })}
          />
          <Select
            label="Is"
            value={condition.comparison}
            options={COMPARISONS.map((value) => ({ value, label: COMPARISON_WORDS[value] }))}
            onChange={(comparison) => set({ comparison })}
          />
          <Field
            label="This"
            value={String(condition.value)}
            maxLength={300}
            onChange={(event) => set({ value: readValue(event.target.value) })}
          />
        </div>
      )}
    </>
  );
}
