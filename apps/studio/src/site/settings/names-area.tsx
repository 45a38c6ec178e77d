import { useState } from 'react';
import { TextArea } from '../../ui/text-area.tsx';

export interface NamesAreaProps {
  readonly label: string;
  readonly hint?: string;
  readonly value: readonly string[];
  readonly onChange: (names: string[]) => void;
}

/** Names, one a line; empty lines are no names. */
export function NamesArea({ value, onChange, ...words }: NamesAreaProps) {
  const [text, setText] = useState(value.join('\n'));
  const namesIn = (lines: string) =>
    lines
      .split('\n')
      .map((one) => one.trim())
      .filter(Boolean);
  // Taken back from outside: what is typed no longer says what holds.
  const said = namesIn(text).join('\n') === value.join('\n') ? text : value.join('\n');
  return (
    <TextArea
      {...words}
      value={said}
      onChange={(event) => {
        setText(event.target.value);
        onChange(namesIn(event.target.value));
      }}
      onBlur={() => setText(value.join('\n'))}
    />
  );
}
