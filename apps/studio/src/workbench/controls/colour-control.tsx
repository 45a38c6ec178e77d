import type { Palette } from '@velarium/contract';
import { colourSchema } from '@velarium/contract';
import { contrastRatio, LEAST_TEXT_CONTRAST } from '@velarium/core';
import { useEffect, useState } from 'react';
import { HexColorPicker } from 'react-colorful';
import { Field } from '../../ui/field.tsx';
import { Popover } from '../../ui/popover.tsx';
import { useWorkbench, useWorkbenchStore } from '../store.ts';

const ROLES: readonly {
  readonly role: keyof Palette;
  readonly label: string;
  readonly against?: keyof Palette;
}[] = [
  { role: 'surface', label: 'Ground', against: 'ink' },
  { role: 'ink', label: 'Text', against: 'surface' },
  { role: 'accent', label: 'Button', against: 'onAccent' },
  { role: 'onAccent', label: 'Button words', against: 'accent' },
  { role: 'backdrop', label: 'Backdrop' },
];

/** The message's colours by role, each with the contrast it makes. */
export function ColoursControl() {
  return (
    <fieldset className="grid gap-1">
      <legend className="mb-1 text-sm font-medium">Colours</legend>
      {ROLES.map((one) => (
        <ColourRow key={one.role} {...one} />
      ))}
    </fieldset>
  );
}

function ColourRow({ role, label, against }: (typeof ROLES)[number]) {
  const { editMessage } = useWorkbenchStore().getState();
  const palette = useWorkbench((state) => state.document.message.palette);
  const colour = palette[role];
  const set = (next: string) =>
    editMessage(
      (message) => ({ ...message, palette: { ...message.palette, [role]: next.toLowerCase() } }),
      `colour.${role}`,
    );
  const ratio = against ? contrastRatio(colour, palette[against]) : undefined;
  const isLow = ratio !== undefined && ratio < LEAST_TEXT_CONTRAST;
  return (
    <Popover
      label={`${label} colour`}
      trigger={
        <button
          type="button"
          className="flex h-8 items-center gap-2.5 rounded px-1.5 text-left hover:bg-sail-wash"
        >
          <span
            aria-hidden="true"
            className="size-5 rounded-sm border border-line-strong"
            style={{ background: colour }}
          />
          <span className="flex-1">{label}</span>
          <span className="text-xs text-soft">{colour}</span>
        </button>
      }
    >
      <div className="grid gap-3">
        <HexColorPicker color={colour} onChange={set} style={{ width: '100%' }} />
        <HexField label={label} colour={colour} onChange={set} />
        {ratio !== undefined && (
          <p className={isLow ? 'text-sm font-medium text-halt' : 'text-sm text-soft'}>
            {isLow ? '▲ ' : '✓ '}Contrast {ratio.toFixed(1)} to 1
            {isLow && `; ${LEAST_TEXT_CONTRAST} is the least people can read well`}
          </p>
        )}
      </div>
    </Popover>
  );
}

function HexField({
  label,
  colour,
  onChange,
}: {
  label: string;
  colour: string;
  onChange: (next: string) => void;
}) {
  const [text, setText] = useState(colour);
  useEffect(() => setText(colour), [colour]);
  const isRight = colourSchema.safeParse(text.toLowerCase()).success;
  return (
    <Field
      label={`${label} as six hex digits`}
      value={text}
      onChange={(event) => {
        setText(event.target.value);
        if (colourSchema.safeParse(event.target.value.toLowerCase()).success) onChange(event.target.value);
      }}
      error={isRight ? undefined : 'Write it like #1f3a5f.'}
    />
  );
}
