import type { Trigger } from '@velarium/contract';
import { EXIT_CERTAINTIES } from '@velarium/contract/values';
import { capital } from '@velarium/core';
import { EventFields } from '../../../site/event-fields.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { Segments } from '../../../ui/segments.tsx';
import { Select } from '../../../ui/select.tsx';
import { SecondsField } from './seconds-field.tsx';
import { SelectorField } from './selector-field.tsx';

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
          label="Seconds of inactivity"
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
      return <EventFields event={trigger} onChange={(change) => onChange({ ...trigger, ...change })} />;
    default:
      return null;
  }
}
