import { Crosshair } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../../../ui/button.tsx';
import { Field } from '../../../ui/field.tsx';
import { useFieldText } from '../../../ui/use-field-text.ts';
import { ElementPicker } from './element-picker.tsx';

export interface SelectorFieldProps {
  readonly value: string;
  /** Whether a click on it is waited for. */
  readonly isForClick?: boolean;
  readonly onChange: (selector: string) => void;
}

/** Whether a browser can read it; a mark that is never reached would be a silent mistake. */
function isReadable(selector: string): boolean {
  try {
    document.createDocumentFragment().querySelector(selector);
    return true;
  } catch {
    return false;
  }
}

/** An element of the page: picked on the page itself, or typed as a selector. */
export function SelectorField({ value, isForClick = false, onChange }: SelectorFieldProps) {
  const [text, setText] = useFieldText(value);
  const [isPicking, setPicking] = useState(false);
  const isWrong = text.trim() === '' || !isReadable(text);
  return (
    <div className="grid gap-2">
      <Field
        label="Element"
        value={text}
        maxLength={300}
        spellCheck={false}
        error={isWrong ? 'A browser cannot read this. Write it like .price or #footer.' : undefined}
        onChange={(event) => {
          setText(event.target.value);
          if (event.target.value.trim() !== '' && isReadable(event.target.value))
            onChange(event.target.value);
        }}
      />
      <Button className="h-7 justify-self-start" onClick={() => setPicking(true)}>
        <Crosshair size={13} aria-hidden /> Pick it on the page
      </Button>
      {isPicking && (
        <ElementPicker
          isForClick={isForClick}
          onClose={() => setPicking(false)}
          onPick={(selector) => {
            onChange(selector);
            setPicking(false);
          }}
        />
      )}
    </div>
  );
}
