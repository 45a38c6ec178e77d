import { linkAddressSchema } from '@velarium/contract';
import { Field } from '../../../ui/field.tsx';
import { useFieldText } from '../../../ui/use-field-text.ts';

export interface AddressFieldProps {
  readonly label: string;
  readonly address: string;
  readonly hint?: string;
  readonly onChange: (address: string) => void;
}

/** An address that is taken once it is one. */
export function AddressField({ label, address, hint, onChange }: AddressFieldProps) {
  const [text, setText] = useFieldText(address);
  const isRight = linkAddressSchema.safeParse(text).success;
  return (
    <Field
      label={label}
      value={text}
      placeholder="/night-tours or https://…"
      hint={hint}
      onChange={(event) => {
        const next = event.target.value.trim();
        setText(next);
        if (linkAddressSchema.safeParse(next).success) onChange(next);
      }}
      error={isRight ? undefined : 'Start with https://, mailto:, tel: or /, without spaces.'}
    />
  );
}
