import { useId } from 'react';
import { Field } from './field.tsx';
import { useFieldText } from './use-field-text.ts';

interface Suggestion {
  readonly value: string;
  /** What is said beside it. */
  readonly note: string;
}

export interface CheckedFieldProps {
  readonly label: string;
  readonly value: string;
  /** What is wrong with a text, `undefined` when it can be used. */
  readonly faultOf: (text: string) => string | undefined;
  readonly onChange: (text: string) => void;
  /** Texts to choose from; any other may be typed. */
  readonly suggestions?: readonly Suggestion[] | undefined;
  readonly className?: string;
}

/** A text that is checked as it is typed: what is wrong is said, and the last that was right holds. */
export function CheckedField({ value, faultOf, onChange, suggestions, ...rest }: CheckedFieldProps) {
  const [text, setText] = useFieldText(value);
  const listId = useId();
  const fault = faultOf(text);
  return (
    <>
      <Field
        {...rest}
        value={text}
        maxLength={300}
        spellCheck={false}
        autoComplete="off"
        list={suggestions ? listId : undefined}
        error={fault && `This cannot be used: ${fault}.`}
        onChange={(event) => {
          setText(event.target.value);
          if (faultOf(event.target.value) === undefined) onChange(event.target.value);
        }}
      />
      {suggestions && (
        <datalist id={listId}>
          {suggestions.map((one) => (
            <option key={one.value} value={one.value} label={one.note} />
          ))}
        </datalist>
      )}
    </>
  );
}
