import type { BlockOf } from '@velarium/contract';
import { FORM_WORDS } from '@velarium/core/message';
import type { BlockContext } from '../context.ts';
import { element } from '../dom.ts';
import { drawPlainField } from './field.ts';

/** Draws a form that checks its fields, names what is wrong beside each, and sends once. */
export function drawForm(block: BlockOf<'form'>, context: BlockContext): HTMLFormElement {
  const { document, further, onSend } = context;
  const fields = block.fields.map((field) => ({
    id: field.id,
    ...(further && !/^(email|name|phone|text)$/.test(field.kind)
      ? further.drawField(field, block.id, context)
      : drawPlainField(field, block.id, context)),
  }));
  if (block.takesFocus) fields[0]?.input.setAttribute('data-focus', '');
  const hasFiles = fields.some(({ file }) => file);
  const sum = block.asksSum ? further?.drawSum(block, context) : undefined;
  const agree = element(document, 'input', { type: 'checkbox', name: 'consent' });
  const agreeWrong = element(document, 'span', { class: 'wrong', id: `${block.id}-agree-wrong` });
  agree.setAttribute('aria-describedby', agreeWrong.id);
  // Nobody sees it or comes to it by keys; programs that fill in whatever there is give themselves away.
  const unseen = element(document, 'input', {
    class: 'quiet',
    name: 'homepage',
    tabindex: '-1',
    autocomplete: 'off',
    'aria-hidden': 'true',
  });
  const wrong = element(document, 'span', { class: 'wrong', role: 'alert' });
  const send = element(document, 'button', { class: 'act', type: 'submit', 'data-tone': 'main' }, [
    element(document, 'span', { 'data-words': '' }, [block.submitLabel]),
  ]);
  const form = element(
    document,
    'form',
    { novalidate: '' },
    fields.map(({ drawn }) => drawn),
  );
  if (sum) form.append(sum.drawn);
  if (block.consentText) {
    form.append(
      element(document, 'label', { class: 'agree' }, [
        agree,
        element(document, 'span', { 'data-consent': '' }, [block.consentText]),
      ]),
      agreeWrong,
    );
  }
  form.append(unseen, send, wrong);
  const written = new Set<string>();
  form.addEventListener('input', ({ target }) => {
    const { field } = (target as HTMLElement).closest<HTMLElement>('[data-field]')?.dataset ?? {};
    if (field && !written.has(field)) context.onWriting?.(field);
    written.add(field ?? '');
  });

  const check = (): HTMLElement | undefined => {
    const bad = [...fields, ...(sum ? [sum] : [])]
      .filter((field) => !field.check())
      .map(({ input }) => input);
    const isAgreed = !block.consentText || agree.checked;
    agreeWrong.textContent = isAgreed ? '' : (context.words?.agree ?? FORM_WORDS.agree);
    agree.setAttribute('aria-invalid', `${!isAgreed}`);
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
        form: block.id,
        fields: Object.fromEntries(fields.map(({ id, value }) => [id, value()])),
        consent: agree.checked,
        ...(unseen.value ? { unseen: unseen.value } : {}),
        ...(sum ? { sum: sum.value() } : {}),
        ...(hasFiles
          ? { files: Object.fromEntries(fields.flatMap(({ id, file }) => (file?.() ? [[id, file()]] : []))) }
          : {}),
      });
    } catch (error) {
      const { message } = error as Error;
      // What went wrong on the way is named; what the server found wrong, it says.
      wrong.textContent = context.words?.[message] ?? FORM_WORDS[message as 'unsent'] ?? message;
    } finally {
      send.disabled = false;
    }
  });
  return form;
}
