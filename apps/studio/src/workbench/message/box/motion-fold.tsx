import type { Motion } from '@velarium/contract';
import { DIRECTIONS, EASINGS, MOTIONS } from '@velarium/contract/values';
import { Fold } from '../../../ui/fold.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { Select } from '../../../ui/select.tsx';
import { playEntrance } from '../../stage/play.ts';
import { useWorkbench } from '../../store.ts';
import { useEditMessage } from '../use-message.ts';

const MOTION_WORDS: Readonly<Record<Motion['kind'], string>> = {
  none: 'At once',
  fade: 'Fade',
  drift: 'Drift',
  sweep: 'Sweep in',
  grow: 'Grow',
  turn: 'Turn',
  swing: 'Swing',
  drop: 'Drop',
  unroll: 'Unroll',
  focus: 'Come into focus',
};
const DIRECTION_WORDS = { top: 'the top', bottom: 'the bottom', start: 'the start', end: 'the end' } as const;
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
      title="Motion"
      note={`${MOTION_WORDS[motion.enter.kind].toLowerCase()}, ${MOTION_WORDS[motion.leave.kind].toLowerCase()}`}
    >
      {(['enter', 'leave'] as const).map((part) => (
        <MotionPart
          key={part}
          label={part === 'enter' ? 'Comes' : 'Goes'}
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
  readonly label: string;
  readonly motion: Motion;
  readonly onChange: (motion: Motion) => void;
  readonly onPlay: () => void;
}

function MotionPart({ label, motion, onChange, onPlay }: MotionPartProps) {
  const set = (change: Partial<Motion>) => onChange({ ...motion, ...change });
  return (
    <fieldset className="grid gap-2">
      <legend className="sr-only">{label}</legend>
      <div className="grid grid-cols-[1fr_auto] items-end gap-2">
        <Select
          label={label}
          value={motion.kind}
          options={MOTIONS.map((value) => ({ value, label: MOTION_WORDS[value] }))}
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
              label={label === 'Comes' ? 'From' : 'Towards'}
              value={motion.from}
              options={DIRECTIONS.map((value) => ({ value, label: DIRECTION_WORDS[value] }))}
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
            label="Takes"
            unit="ms"
            step={20}
            value={motion.ms}
            min={0}
            max={4000}
            onChange={(ms) => set({ ms })}
          />
          <NumberField
            label="Waits"
            unit="ms"
            step={20}
            value={motion.delayMs}
            min={0}
            max={4000}
            onChange={(delayMs) => set({ delayMs })}
          />
          {TRAVELS.has(motion.kind) && (
            <NumberField
              label="Travels"
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
