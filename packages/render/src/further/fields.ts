import type { Field } from '@velarium/contract';
import { LIMITS } from '@velarium/contract/values';
import { FILE_TYPES, fitsPattern } from '@velarium/core/message';
import type { BlockContext, DrawnField } from '../context.ts';
import { element } from '../dom.ts';
import { faultOf, labelled } from '../form/field.ts';
import { said } from './said.ts';

/** The fields that most forms do not ask for. */
export function drawField(field: Field, formId: string, context: BlockContext): DrawnField {
  const { document } = context;
  const name = { class: 'field', name: field.id };
  switch (field.kind) {
    case 'long': {
      const input = element(document, 'textarea', { ...name, placeholder: field.placeholder, rows: '4' });
      return labelled(
        field,
        formId,
        context,
        input,
        () => !field.pattern || fitsPattern(field.pattern, input.value.trim()),
      );
    }
    case 'select': {
      const options = ['', ...(field.options ?? [])].map((value) =>
        element(document, 'option', { value }, [value || field.placeholder || said('choose', context.words)]),
      );
      return labelled(field, formId, context, element(document, 'select', name, options));
    }
    case 'date':
      return labelled(field, formId, context, element(document, 'input', { ...name, type: 'date' }));
    case 'file':
      return drawFile(field, formId, context);
    case 'ticks':
      return drawTicks(field, formId, context);
    default: {
      const input = element(document, 'input', { type: 'hidden', name: field.id });
      return { drawn: input, input, value: () => field.value ?? '', check: () => true };
    }
  }
}

/** A picture that goes with the answers. It is read when it is chosen, so that sending need not wait for it. */
function drawFile(field: Field, formId: string, context: BlockContext): DrawnField {
  const input = element(context.document, 'input', {
    class: 'field',
    type: 'file',
    name: field.id,
    accept: FILE_TYPES.join(','),
  });
  let base64 = '';
  let isTooLarge = false;
  input.addEventListener('change', () => {
    const [file] = input.files ?? [];
    base64 = '';
    isTooLarge = (file?.size ?? 0) > LIMITS.fileBytes;
    if (!file || isTooLarge) return;
    const reader = new FileReader();
    reader.addEventListener('load', () => {
      base64 = `${reader.result}`.replace(/^.*?,/, '');
    });
    reader.readAsDataURL(file);
  });
  const megabytes = LIMITS.fileBytes / 1024 / 1024;
  const drawn = labelled(
    {
      ...field,
      errorText: field.errorText || said('picture', context.words).replace('{n}', `${megabytes}`),
    },
    formId,
    context,
    input,
    () => !isTooLarge && base64 !== '',
  );
  return { ...drawn, value: () => input.files?.[0]?.name.slice(0, 200) ?? '', file: () => base64 };
}

function drawTicks(field: Field, formId: string, { document, words }: BlockContext): DrawnField {
  const boxes = (field.options ?? []).map((value) =>
    element(document, 'input', { type: 'checkbox', name: field.id, value }),
  );
  const wrong = element(document, 'span', { class: 'wrong', id: `${formId}-${field.id}-wrong` });
  const drawn = element(
    document,
    'fieldset',
    { class: 'ticks', 'data-field': field.id, 'aria-describedby': wrong.id },
    [
      element(document, 'legend', { 'data-label': '' }, [field.label]),
      ...boxes.map((box) => element(document, 'label', {}, [box, box.value])),
      wrong,
    ],
  );
  const value = () =>
    boxes
      .filter(({ checked }) => checked)
      .map((box) => box.value)
      .join(', ');
  return {
    drawn,
    input: boxes[0] ?? drawn,
    value,
    check: () => {
      wrong.textContent = faultOf(field, value(), words);
      return wrong.textContent === '';
    },
  };
}
