import type { Anchor, Format } from '@velarium/contract';
import { ANCHORS, FORMATS } from '@velarium/contract/values';
import { ANCHOR_WORDS, capital, FORMAT_ANCHORS, FORMAT_WORDS, withFormat } from '@velarium/core';
import { useId } from 'react';
import { cx } from '../../ui/cx.ts';
import { useIsReadOnly } from '../../ui/read-only.ts';
import { Select } from '../../ui/select.tsx';
import { useWorkbench, useWorkbenchStore } from '../store.ts';

const FORMAT_OPTIONS = FORMATS.map((value) => ({ value, label: capital(FORMAT_WORDS[value]) }));

/** What kind of box, and where in the window. */
export function PlaceControl() {
  const { editMessage } = useWorkbenchStore().getState();
  const format = useWorkbench((state) => state.document.message.format);
  const anchor = useWorkbench((state) => state.document.message.anchor);
  const setFormat = (next: Format) => editMessage((message) => withFormat(message, next), 'format');
  return (
    <div className="grid grid-cols-[1fr_auto] items-start gap-4">
      <Select label="Format" value={format} options={FORMAT_OPTIONS} onChange={setFormat} />
      <AnchorGrid
        legend="Place"
        format={format}
        value={anchor}
        onChange={(next) => editMessage((message) => ({ ...message, anchor: next }), 'anchor')}
      />
    </div>
  );
}

export interface AnchorGridProps {
  readonly legend: string;
  readonly format: Format;
  readonly value: Anchor;
  readonly onChange: (anchor: Anchor) => void;
}

/** The window in nine places; those the format can hold on to can be chosen. */
export function AnchorGrid({ legend, format, value, onChange }: AnchorGridProps) {
  const isReadOnly = useIsReadOnly();
  const name = useId();
  return (
    <fieldset>
      <legend className="mb-1 text-xs">{legend}</legend>
      <div className="grid h-[72px] w-[112px] grid-cols-3 grid-rows-3 border border-line-strong bg-sheet">
        {ANCHORS.map((one) => {
          const isPossible = FORMAT_ANCHORS[format].includes(one);
          return (
            <label
              key={one}
              title={ANCHOR_WORDS[one]}
              className={cx(
                'relative grid place-items-center has-focus-visible:outline-2 has-focus-visible:outline-ink',
                isPossible ? 'cursor-pointer hover:bg-sail-wash' : 'cursor-not-allowed opacity-30',
              )}
            >
              <input
                type="radio"
                name={name}
                aria-label={ANCHOR_WORDS[one]}
                checked={value === one}
                disabled={!isPossible || isReadOnly}
                onChange={() => onChange(one)}
                className="peer absolute inset-0 m-0 cursor-[inherit] opacity-0"
              />
              <span className="block h-2.5 w-5 border forced-color-adjust-none border-line-strong peer-checked:border-sail peer-checked:bg-sail" />
            </label>
          );
        })}
      </div>
    </fieldset>
  );
}
