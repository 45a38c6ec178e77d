import type { Field } from '@velarium/contract';
import { faultWords } from '@velarium/core/message';
import type { BlockContext, DrawnField } from '../context.ts';
import { element } from '../dom.ts';

const TYPE: Readonly<Partial<Record<Field['kind'], string>>> = { email: 'email', phone: 'tel' };
/** Source: HTML standard, autofill field names. */
const AUTOFILL: Readonly<Partial<Record<Field['kind'], string>>> = {
  email: 'email',
  name: 'name',
  phone: 'tel',
};

/** What is wrong with an answer, in words; empty when nothing is. */
export const faultOf = (field: Field, value: string, words: BlockContext['words'], fits = true): string =>
  (value === '' ? !field.required : fits) ? '' : faultWords(field, value === '', words);

/** A field with its label before it and what is wrong with it after it. */
export function labelled(
  field: Field,
  formId: string,
  { document, words }: Pick<BlockContext, 'document' | 'words'>,
  input: HTMLElement & { value: string },
  fits: () => boolean = () => true,
): DrawnField {
  const wrong = element(document, 'span', { class: 'wrong', id: `${formId}-${field.id}-wrong` });
  input.setAttribute('aria-describedby', wrong.id);
  if (field.required) input.setAttribute('required', '');
  return {
    drawn: element(
      document,
      'label',
      { 'data-field': field.id, ...(field.beside ? { class: 'beside' } : {}) },
      [element(document, 'span', { 'data-label': '' }, [field.label]), input, wrong],
    ),
    input,
    value: () => input.value.trim(),
    check: () => {
      wrong.textContent = faultOf(field, input.value.trim(), words, fits());
      input.setAttribute('aria-invalid', `${wrong.textContent !== ''}`);
      return wrong.textContent === '';
    },
  };
}

/** A field for a mail address, a name, a telephone number or a line of text. */
export function drawPlainField(field: Field, formId: string, context: BlockContext): DrawnField {
  const input = element(context.document, 'input', {
    class: 'field',
    type: TYPE[field.kind] ?? 'text',
    autocomplete: AUTOFILL[field.kind] ?? 'off',
    name: field.id,
    placeholder: field.placeholder,
  });
  const { pattern } = field;
  return labelled(
    field,
    formId,
    context,
    input,
    () =>
      !input.validity.typeMismatch &&
      (!pattern || (context.further?.fits(pattern, input.value.trim()) ?? true)),
  );
}
