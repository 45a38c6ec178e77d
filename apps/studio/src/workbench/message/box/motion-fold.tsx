import type { Motion } from '@velarium/contract';
import { DIRECTIONS, EASINGS, MOTIONS } from '@velarium/contract/values';
import { Fold } from '../../../ui/fold.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { Select } from '../../../ui/select.tsx';
import { playEntrance } from '../../stage/play.ts';
import { useWorkbench } from '../../store.ts';
import { useEditMessage, useSides } from '../use-message.ts';

type Part = 'enter' | 'leave';
/** What leaves is named as leaving. */
const MOTION_WORDS: Readonly<Record<Part, Readonly<Record<Motion['kind'], string>>>> = {
  enter: {
    none: 'At once',
    fade: 'Fade in',
    drift: 'Drift in',
    sweep: 'Sweep in',
    grow: 'Grow',
    turn: 'Turn in',
    swing: 'Swing in',
    drop: 'Drop in',
    unroll: 'Unroll',
    focus: 'Come into focus',
  },
  leave: {
    none: 'At once',
    fade: 'Fade out',
    drift: 'Drift out',
    sweep: 'Sweep out',
    grow: 'Shrink',
    turn: 'Turn away',
    swing: 'Swing away',
    drop: 'Drop away',
    unroll: 'Roll up',
    focus: 'Go out of focus',
  },
};
const PART_WORDS = { enter: 'Coming in', leave: 'Going out' } as const;
const EASING_WORDS = { even: 'Even', soft: 'Soft', brisk: 'Brisk', springy: 'Springy' } as const;
const TRAVELS: ReadonlySet<Motion['kind']> = new Set(['drift', 'sweep', 'drop']);
const HAS_DIRECTION: ReadonlySet<Motion['kind']> = new Set([
  'drift',
  'sweep',
  'turn',
  'swing',
  'drop',
  'unroll',
]);

export function MotionFold() {
  const edit = useEditMessage();
  const motion = useWorkbench((state) => state.document.message.motion);
  return (
    <Fold
      title="Animation"
      note={(['enter', 'leave'] as const)
        .map((part) => MOTION_WORDS[part][motion[part].kind].toLowerCase())
        .join(', ')}
    >
      {(['enter', 'leave'] as const).map((part) => (
        <MotionPart
          key={part}
          part={part}
          motion={motion[part]}
          onChange={(next) => {
            edit({ motion: { ...motion, [part]: next } }, `motion.${part}`);
            // After the stage has drawn the new sheet.
            requestAnimationFrame(() => requestAnimationFrame(() => playEntrance(part)));
          }}
          onPlay={() => playEntrance(part)}
        />
      ))}
      <p className="text-xs text-soft">
        People who ask their device for less motion see a short fade instead.
      </p>
    </Fold>
  );
}

interface MotionPartProps {
  readonly part: Part;
  readonly motion: Motion;
  readonly onChange: (motion: Motion) => void;
  readonly onPlay: () => void;
}

function MotionPart({ part, motion, onChange, onPlay }: MotionPartProps) {
  const sides = useSides();
  const label = PART_WORDS[part];
  const set = (change: Partial<Motion>) => onChange({ ...motion, ...change });
  return (
    <fieldset className="grid gap-2">
      <legend className="sr-only">{label}</legend>
      <div className="grid grid-cols-[1fr_auto] items-end gap-2">
        <Select
          label={label}
          value={motion.kind}
          options={MOTIONS.map((value) => ({ value, label: MOTION_WORDS[part][value] }))}
          onChange={(kind) => set({ kind })}
        />
        <button
          type="button"
          onClick={onPlay}
          className="h-8 rounded px-2 underline-offset-4 hover:underline"
        >
          Play
        </button>
      </div>
      {motion.kind !== 'none' && (
        <div className="grid grid-cols-2 gap-2">
          {HAS_DIRECTION.has(motion.kind) && (
            <Select
              label={part === 'enter' ? 'Direction in: from' : 'Direction out: to'}
              value={motion.from}
              options={DIRECTIONS.map((value) => ({ value, label: `the ${sides[value]}` }))}
              onChange={(from) => set({ from })}
            />
          )}
          <Select
            label="Pace"
            value={motion.easing}
            options={EASINGS.map((value) => ({ value, label: EASING_WORDS[value] }))}
            onChange={(easing) => set({ easing })}
          />
          <NumberField
            label="Duration"
            unit="ms"
            step={20}
            value={motion.ms}
            min={0}
            max={4000}
            onChange={(ms) => set({ ms })}
          />
          <NumberField
            label="Delay"
            unit="ms"
            step={20}
            value={motion.delayMs}
            min={0}
            max={4000}
            onChange={(delayMs) => set({ delayMs })}
          />
          {TRAVELS.has(motion.kind) && (
            <NumberField
              label="Distance"
              unit="px"
              value={motion.distance ?? undefined}
              placeholder="from outside"
              min={0}
              max={1000}
              onChange={(distance) => set({ distance })}
              onClear={() => set({ distance: null })}
            />
          )}
        </div>
      )}
    </fieldset>
  );
}
