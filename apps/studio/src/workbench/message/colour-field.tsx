import type { ColourValue } from '@velarium/contract';
import { COLOUR_ROLES, type ColourRole } from '@velarium/contract/values';
import { colourOf, contrastRatio, LEAST_TEXT_CONTRAST, nearestPassing } from '@velarium/core';
import { HexColorPicker } from 'react-colorful';
import { Button } from '../../ui/button.tsx';
import { ColourText } from '../../ui/colour-text.tsx';
import { cx } from '../../ui/cx.ts';
import { Popover } from '../../ui/popover.tsx';
import { usePalette } from './use-message.ts';

export const ROLE_WORDS: Readonly<Record<ColourRole, string>> = {
  surface: 'Background',
  ink: 'Text',
  soft: 'Quiet text',
  accent: 'Accent',
  accentText: 'Text on the accent',
  line: 'Lines',
  field: 'Fields',
  fieldText: 'Text in fields',
  backdrop: 'Backdrop',
};

export interface ColourFieldProps {
  readonly label: string;
  /** `undefined` while nothing is said. */
  readonly value: ColourValue | undefined;
  /** What holds while nothing is said. */
  readonly fallback: ColourValue;
  readonly onChange: (value: ColourValue) => void;
  /** The colour it must be read against. */
  readonly against?: ColourValue;
  readonly hasRoles?: boolean;
}

/** Picks a role of the Look or a colour of one's own, and says at once how well it can be read. */
export function ColourField({
  label,
  value,
  fallback,
  onChange,
  against,
  hasRoles = true,
}: ColourFieldProps) {
  const palette = usePalette();
  const shown = value ?? fallback;
  const colour = colourOf(shown, palette);
  const isRole = !shown.startsWith('#');
  const ground = against === undefined ? undefined : colourOf(against, palette);
  const ratio = ground === undefined ? undefined : contrastRatio(colour, ground);
  const isLow = ratio !== undefined && ratio < LEAST_TEXT_CONTRAST;
  const set = (next: string) => onChange(next.toLowerCase() as ColourValue);
  return (
    <Popover
      label={`${label} colour`}
      trigger={
        <button
          type="button"
          className="flex h-7 w-full min-w-0 items-center gap-2 rounded px-1 text-left hover:bg-sail-wash"
        >
          <Swatch colour={colour} />
          <span className="flex-1 truncate">{label}</span>
          {isLow && (
            <span className="text-xs font-medium text-halt" title="Hard to read">
              ▲ {ratio.toFixed(1)}
            </span>
          )}
          <span className="text-xs text-soft">
            {value === undefined ? 'as the Look' : isRole ? ROLE_WORDS[shown as ColourRole] : shown}
          </span>
        </button>
      }
    >
      <div className="grid gap-3">
        {hasRoles && (
          <fieldset>
            <legend className="mb-1 text-xs">Of the Look: follows it when it changes</legend>
            <div className="grid grid-cols-3 gap-1">
              {COLOUR_ROLES.map((role) => (
                <button
                  key={role}
                  type="button"
                  aria-pressed={value === role}
                  onClick={() => onChange(role)}
                  className="flex h-7 min-w-0 items-center gap-1.5 rounded px-1 text-xs hover:bg-sail-wash aria-pressed:bg-ink aria-pressed:text-sheet"
                >
                  <Swatch colour={palette[role]} />
                  <span className="truncate">{ROLE_WORDS[role]}</span>
                </button>
              ))}
            </div>
          </fieldset>
        )}
        <HexColorPicker color={colour} onChange={set} style={{ width: '100%', height: 140 }} />
        <ColourText label={label} colour={colour} onChange={set} />
        {ratio !== undefined && ground !== undefined && (
          <div className="flex items-center justify-between gap-2">
            <p className={isLow ? 'font-medium text-halt' : 'text-soft'}>
              {isLow ? '▲ ' : '✓ '}Contrast {ratio.toFixed(1)} to 1
              {isLow && `; ${LEAST_TEXT_CONTRAST} can be read`}
            </p>
            {isLow && (
              <Button onClick={() => set(nearestPassing(colour, ground))}>
                <Swatch colour={nearestPassing(colour, ground)} />
                Nearest that can
              </Button>
            )}
          </div>
        )}
      </div>
    </Popover>
  );
}

export const Swatch = ({ colour, className }: { readonly colour: string; readonly className?: string }) => (
  <span
    aria-hidden="true"
    className={cx('inline-block size-4 flex-none rounded-sm border border-line-strong', className)}
    style={{ background: colour }}
  />
);
