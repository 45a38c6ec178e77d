import type { Field, FormBlock } from '@velarium/contract';
import { element } from './dom.ts';

export interface Answers {
  readonly fields: Readonly<Record<string, string>>;
  readonly consent: boolean;
}
/** Sends the answers; resolves when they are stored and rejects with words for the visitor. */
export type SendForm = (answers: Answers) => Promise<void>;

const INPUT: Readonly<Record<Field['kind'], { type: string; autocomplete: string }>> = {
  email: { type: 'email', autocomplete: 'email' },
  name: { type: 'text', autocomplete: 'name' },
  phone: { type: 'tel', autocomplete: 'tel' },
  text: { type: 'text', autocomplete: 'off' },
};

/** Draws a form that checks its fields, names what is wrong beside each, and sends once. */
export function renderForm(block: FormBlock, document: Document, onSend: SendForm): HTMLFormElement {
  const fields = block.fields.map((field) => drawField(document, block.id, field));
  const agree = element(document, 'input', { type: 'checkbox', name: 'consent' });
  const agreeWrong = element(document, 'span', { class: 'wrong', id: `${block.id}-agree-wrong` });
  agree.setAttribute('aria-describedby', agreeWrong.id);
  const wrong = element(document, 'span', { class: 'wrong', role: 'alert' });
  const send = element(document, 'button', { class: 'act', type: 'submit' }, [
    element(document, 'span', { 'data-words': '' }, [block.submitLabel]),
  ]);
  const form = element(
    document,
    'form',
    { novalidate: '' },
    fields.map(({ label }) => label),
  );
  if (block.consentText) {
    form.append(
      element(document, 'label', { class: 'agree' }, [
        agree,
        element(document, 'span', { 'data-consent': '' }, [block.consentText]),
      ]),
      agreeWrong,
    );
  }
  form.append(send, wrong);

  const check = (): HTMLInputElement | undefined => {
    const bad = fields.filter((field) => !field.check()).map((field) => field.input);
    const isAgreed = !block.consentText || agree.checked;
    agreeWrong.textContent = isAgreed ? '' : 'Please tick this to go on.';
    agree.setAttribute('aria-invalid', String(!isAgreed));
    return bad[0] ?? (isAgreed ? undefined : agree);
  };

  form.addEventListener('submit', async (event) => {
    event.preventDefault();
    if (send.disabled) return;
    wrong.textContent = '';
    const firstBad = check();
    if (firstBad) {
      firstBad.focus();
      return;
    }
    send.disabled = true;
    try {
      await onSend({
        fields: Object.fromEntries(fields.map(({ input }) => [input.name, input.value.trim()])),
        consent: agree.checked,
      });
    } catch (error) {
      wrong.textContent = error instanceof Error ? error.message : String(error);
    } finally {
      send.disabled = false;
    }
  });
  return form;
}

function drawField(document: Document, formId: string, field: Field) {
  const wrong = element(document, 'span', { class: 'wrong', id: `${formId}-${field.id}-wrong` });
  const input = element(document, 'input', {
    ...INPUT[field.kind],
    name: field.id,
    placeholder: field.placeholder,
    'aria-describedby': wrong.id,
    ...(field.required ? { required: '' } : {}),
  });
  const label = element(document, 'label', { 'data-field': field.id }, [
    element(document, 'span', { 'data-label': '' }, [field.label]),
    input,
    wrong,
  ]);
  const check = (): boolean => {
    const isMissing = field.required && input.value.trim() === '';
    wrong.textContent = isMissing
      ? 'Please fill this in.'
      : input.validity.typeMismatch
        ? 'Please write it as name@example.org.'
        : '';
    input.setAttribute('aria-invalid', String(wrong.textContent !== ''));
    return wrong.textContent === '';
  };
  return { label, input, check };
}
