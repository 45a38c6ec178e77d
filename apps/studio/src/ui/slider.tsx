import { Slider as Radix } from 'radix-ui';

export interface SliderProps {
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly unit: string;
  readonly onChange: (value: number) => void;
}

export function Slider({ label, value, min, max, step, unit, onChange }: SliderProps) {
  return (
    <div className="grid gap-1">
      <div className="flex justify-between text-sm">
        <span className="font-medium">{label}</span>
        <span className="text-soft">
          {value} {unit}
        </span>
      </div>
      <Radix.Root
        value={[value]}
        min={min}
        max={max}
        step={step}
        onValueChange={([next]) => next !== undefined && onChange(next)}
        className="relative flex h-6 items-center"
      >
        <Radix.Track className="h-px w-full bg-line-strong">
          <Radix.Range className="absolute h-[3px] -translate-y-px bg-ink" />
        </Radix.Track>
        <Radix.Thumb
          aria-label={label}
          className="block size-4 cursor-grab rounded-full border-2 border-ink bg-sheet"
        />
      </Radix.Root>
    </div>
  );
}
