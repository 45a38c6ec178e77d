import { useState } from 'react';
import { PictureDialog } from '../../library/picture-dialog.tsx';
import { Button } from '../../ui/button.tsx';
import { useWorkbench } from '../store.ts';
import { useWorkbenchDesign } from './use-message.ts';

/** Where a picture of the library is loaded from, about this wide. */
function pictureSource(
  file: { path: string; widths: number[] } | undefined,
  width: number,
): string | undefined {
  if (!file) return undefined;
  const fitting = file.widths.find((one) => one >= width) ?? file.widths.at(-1);
  return fitting === undefined ? file.path : `${file.path}/${fitting}`;
}

export interface PictureFieldProps {
  readonly value: string | null;
  readonly onChange: (picture: string | null, alt?: string) => void;
  readonly canBeNone?: boolean;
}

export function PictureField({ value, onChange, canBeNone = false }: PictureFieldProps) {
  const { pictures } = useWorkbenchDesign();
  const siteId = useWorkbench((state) => state.siteId);
  const [isChoosing, setChoosing] = useState(false);
  const source = value === null ? undefined : pictureSource(pictures[value], 320);
  return (
    <div className="flex items-center gap-2">
      <div className="grid h-14 w-20 flex-none place-items-center overflow-hidden rounded border border-line-strong bg-sheet text-xs text-soft">
        {source ? (
          <img src={source} alt="" className="size-full object-cover" />
        ) : value === null ? (
          'None yet'
        ) : (
          'Gone'
        )}
      </div>
      <Button onClick={() => setChoosing(true)}>
        {value === null ? 'Choose a picture' : 'Choose another'}
      </Button>
      {canBeNone && value !== null && (
        <Button tone="quiet" onClick={() => onChange(null)}>
          Remove
        </Button>
      )}
      {isChoosing && (
        <PictureDialog
          siteId={siteId}
          onClose={() => setChoosing(false)}
          onChoose={(picture, alt) => {
            onChange(picture, alt);
            setChoosing(false);
          }}
        />
      )}
    </div>
  );
}

export interface FocusFieldProps {
  readonly picture: string;
  readonly value: readonly [number, number];
  readonly onChange: (value: [number, number]) => void;
}

/** The point that stays in sight when a picture is cropped: clicked, or moved by the arrow keys. */
export function FocusField({ picture, value: [x, y], onChange }: FocusFieldProps) {
  const { pictures } = useWorkbenchDesign();
  const source = pictureSource(pictures[picture], 320);
  if (!source) return null;
  const clamp = (n: number) => Math.min(100, Math.max(0, Math.round(n)));
  return (
    <div className="grid gap-1">
      <span className="text-xs">Kept in sight when cropped</span>
      <button
        type="button"
        aria-label={`Point kept in sight: ${x} % from the left, ${y} % from the top. Arrow keys move it.`}
        className="relative block aspect-3/2 w-full cursor-crosshair overflow-hidden rounded border border-line-strong"
        onClick={(event) => {
          if (event.detail === 0) return;
          const box = event.currentTarget.getBoundingClientRect();
          onChange([
            clamp(((event.clientX - box.left) / box.width) * 100),
            clamp(((event.clientY - box.top) / box.height) * 100),
          ]);
        }}
        onKeyDown={(event) => {
          const by = { ArrowLeft: [-5, 0], ArrowRight: [5, 0], ArrowUp: [0, -5], ArrowDown: [0, 5] }[
            event.key
          ];
          if (!by) return;
          event.preventDefault();
          onChange([clamp(x + (by[0] ?? 0)), clamp(y + (by[1] ?? 0))]);
        }}
      >
        <img src={source} alt="" className="size-full object-cover" />
        <span
          className="absolute size-4 -translate-x-1/2 -translate-y-1/2 rounded-full border-2 border-white shadow-[0_0_0_2px_#1b2130]"
          style={{ left: `${x}%`, top: `${y}%` }}
        />
      </button>
    </div>
  );
}
