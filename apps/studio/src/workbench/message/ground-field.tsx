import type { Ground } from '@velarium/contract';
import { NumberField } from '../../ui/number-field.tsx';
import { Segments } from '../../ui/segments.tsx';
import { ColourField } from './colour-field.tsx';
import { FocusField, PictureField } from './picture-field.tsx';

export interface GroundFieldProps {
  readonly value: Ground | undefined;
  readonly fallback: Ground;
  readonly onChange: (value: Ground) => void;
}

const BEGIN: Readonly<Record<Ground['kind'], (from: Ground) => Ground>> = {
  colour: (from) => ({ kind: 'colour', colour: from.kind === 'gradient' ? from.from : 'surface' }),
  gradient: (from) => ({
    kind: 'gradient',
    from: from.kind === 'colour' ? from.colour : 'surface',
    to: 'accent',
    degrees: 160,
  }),
  picture: () => ({
    kind: 'picture',
    picture: 'drawn:ridge',
    focus: [50, 50],
    tint: 'surface',
    strength: 55,
  }),
};

/** What lies behind the words: a colour, a gradient, or a picture under a tint. */
export function GroundField({ value, fallback, onChange }: GroundFieldProps) {
  const ground = value ?? fallback;
  return (
    <div className="grid gap-2">
      <Segments
        label="Background"
        value={ground.kind}
        onChange={(kind) => onChange(BEGIN[kind](ground))}
        options={[
          { value: 'colour', label: 'Colour' },
          { value: 'gradient', label: 'Gradient' },
          { value: 'picture', label: 'Picture' },
        ]}
      />
      {ground.kind === 'colour' && (
        <ColourField
          label="Background colour"
          value={value === undefined ? undefined : ground.colour}
          fallback={ground.colour}
          onChange={(colour) => onChange({ kind: 'colour', colour })}
        />
      )}
      {ground.kind === 'gradient' && (
        <>
          <ColourField
            label="From"
            value={ground.from}
            fallback={ground.from}
            onChange={(from) => onChange({ ...ground, from })}
          />
          <ColourField
            label="To"
            value={ground.to}
            fallback={ground.to}
            onChange={(to) => onChange({ ...ground, to })}
          />
          <NumberField
            label="Direction"
            unit="°"
            value={ground.degrees}
            min={0}
            max={359}
            step={5}
            onChange={(degrees) => onChange({ ...ground, degrees })}
          />
        </>
      )}
      {ground.kind === 'picture' && (
        <>
          <PictureField
            value={ground.picture}
            onChange={(picture) => picture && onChange({ ...ground, picture })}
          />
          <FocusField
            picture={ground.picture}
            value={ground.focus}
            onChange={(focus) => onChange({ ...ground, focus })}
          />
          <ColourField
            label="Tint over it"
            value={ground.tint}
            fallback={ground.tint}
            onChange={(tint) => onChange({ ...ground, tint })}
          />
          <NumberField
            label="Strength of the tint"
            unit="%"
            value={ground.strength}
            min={0}
            max={100}
            step={5}
            onChange={(strength) => onChange({ ...ground, strength })}
          />
        </>
      )}
    </div>
  );
}
