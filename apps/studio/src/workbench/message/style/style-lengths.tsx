import type { Size } from '@velarium/contract';
import { NumberField } from '../../../ui/number-field.tsx';
import { Segments } from '../../../ui/segments.tsx';
import { Said } from './said.tsx';
import type { Styling } from './use-styling.ts';

type NumberKey =
  | 'offsetBlock'
  | 'offsetInline'
  | 'space'
  | 'paddingBlock'
  | 'paddingInline'
  | 'borderWidth'
  | 'corners'
  | 'textSize'
  | 'leastWidth'
  | 'mostWidth'
  | 'leastHeight'
  | 'mostHeight'
  | 'backdropStrength'
  | 'backdropBlur';
const MOST: Readonly<Record<NumberKey, number>> = {
  offsetBlock: 400,
  offsetInline: 400,
  space: 200,
  paddingBlock: 200,
  paddingInline: 200,
  borderWidth: 20,
  corners: 200,
  textSize: 96,
  leastWidth: 2000,
  mostWidth: 2000,
  leastHeight: 2000,
  mostHeight: 2000,
  backdropStrength: 100,
  backdropBlur: 40,
};

export function StyleNumber({
  styling,
  of,
  label,
  unit = 'px',
}: {
  styling: Styling;
  of: NumberKey;
  label: string;
  unit?: string;
}) {
  const below = styling.below[of];
  return (
    <Said styling={styling} of={[of]}>
      <NumberField
        label={label}
        unit={unit}
        value={styling.said[of]}
        // What bounds nothing is not a number worth showing.
        placeholder={below === undefined || below > MOST[of] ? '' : String(below)}
        min={of === 'textSize' ? 10 : 0}
        max={MOST[of]}
        onChange={(value) => styling.set(of, value)}
      />
    </Said>
  );
}

export function StyleSize({
  styling,
  of,
  label,
}: {
  styling: Styling;
  of: 'width' | 'height';
  label: string;
}) {
  const size: Size = styling.said[of] ?? styling.below[of] ?? { unit: 'content' };
  const begin = (unit: Size['unit']): Size =>
    unit === 'content' ? { unit } : unit === 'px' ? { unit, value: 400 } : { unit, value: 60 };
  return (
    <Said styling={styling} of={[of]}>
      <div className="grid grid-cols-[1fr_5.5rem] items-end gap-2">
        <Segments
          label={label}
          value={size.unit}
          onChange={(unit) => styling.set(of, begin(unit))}
          options={[
            { value: 'px', label: 'px' },
            { value: 'percent', label: '%' },
            { value: 'content', label: 'Content' },
          ]}
        />
        {size.unit !== 'content' && (
          <NumberField
            label={`${label} in ${size.unit === 'px' ? 'pixels' : 'per cent'}`}
            isLabelHidden
            unit={size.unit === 'px' ? 'px' : '%'}
            value={size.value}
            min={size.unit === 'px' ? 20 : 1}
            max={size.unit === 'px' ? 2000 : 100}
            step={size.unit === 'px' ? 10 : 1}
            onChange={(value) => styling.set(of, { ...size, value })}
          />
        )}
      </div>
    </Said>
  );
}
