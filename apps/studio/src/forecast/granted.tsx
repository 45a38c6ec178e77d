import type { Assumptions } from '@velarium/contract';
import { NumberField } from '../ui/number-field.tsx';

interface GrantedProps {
  readonly assumptions: Assumptions;
  readonly onChange: (assumptions: Assumptions) => void;
}

/** What no record tells, with its value and where that comes from. */
export function Granted({ assumptions, onChange }: GrantedProps) {
  const percent = (label: string, key: 'leavesByMouse' | 'leavesByTouch') => (
    <NumberField
      label={label}
      unit="%"
      min={0}
      max={100}
      step={5}
      value={Math.round(assumptions[key] * 100)}
      onChange={(value) => onChange({ ...assumptions, [key]: value / 100 })}
    />
  );
  return (
    <section aria-label="Taken for granted" className="grid content-start gap-3">
      <h2 className="font-semibold">Taken for granted</h2>
      <p className="text-soft">
        No record tells these; the values are common practice until you know better. Clicks, hovers and
        elements reached are not known either: campaigns that wait for them alone open for nobody here. Nobody
        is held back. Pages are read evenly down to where they were left; a view whose end was not told of
        lasts as long as another of the same page.
      </p>
      <div className="grid items-end gap-3 sm:grid-cols-3">
        {percent('Views at a desk left by the top edge', 'leavesByMouse')}
        {percent('Views on a phone left by a quick scroll up', 'leavesByTouch')}
        <NumberField
          label="A message is closed after"
          unit="s"
          min={1}
          max={600}
          value={assumptions.closesAfterSeconds}
          onChange={(closesAfterSeconds) => onChange({ ...assumptions, closesAfterSeconds })}
        />
      </div>
    </section>
  );
}
