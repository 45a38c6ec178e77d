import { formatHex, parse } from 'culori';
import { Field } from './field.tsx';
import { useFieldText } from './use-field-text.ts';

/** Whole as it stands; shorter forms may be the beginning of a longer one. */
const WHOLE = /^#[0-9a-f]{6}$/;

/**
 * A colour as people write it, as six digits: `8b0000`, `#800`, `rgb(139 0 0)`, `hsl(0 100% 27%)`, `darkred`. One that lets
 * something through, or lies beyond what screens show everywhere, is brought to the nearest that does not.
 */
export function readColour(text: string): string | undefined {
  const written = text.trim().toLowerCase();
  return formatHex(parse(written)) ?? formatHex(parse(`#${written}`));
}

interface ColourTextProps {
  readonly label: string;
  readonly colour: string;
  readonly onChange: (colour: string) => void;
}

/** A colour that is written; six digits hold as they are typed, everything else when the field is left. */
export function ColourText({ label, colour, onChange }: ColourTextProps) {
  const [text, setText] = useFieldText(colour);
  const read = readColour(text);
  const take = () => {
    if (!read) return;
    if (read !== colour) onChange(read);
    setText(read);
  };
  return (
    <Field
      label={`${label} as text`}
      value={text}
      maxLength={60}
      spellCheck={false}
      autoComplete="off"
      onChange={(event) => {
        const next = event.target.value.toLowerCase();
        setText(event.target.value);
        if (WHOLE.test(next)) onChange(next);
      }}
      onBlur={take}
      onKeyDown={(event) => event.key === 'Enter' && take()}
      error={read ? undefined : 'Write it like #1f3a5f, rgb(31 58 95) or navy.'}
    />
  );
}
