import type { BlockOf } from '@velarium/contract';
import { sumOf } from '@velarium/core/message';
import type { BlockContext, DrawnField } from '../context.ts';
import { element } from '../dom.ts';
import { labelled } from '../form/field.ts';
import { said } from './said.ts';

/** A sum in words that keeps simple robots out. Its answer goes with the form, for the server to check again. */
export function drawSum(block: BlockOf<'form'>, context: BlockContext): DrawnField {
  const input = element(context.document, 'input', {
    class: 'field',
    type: 'text',
    autocomplete: 'off',
    name: 'sum',
  });
  // Another sum each day, so that one answer does not open every form for ever.
  const sum = sumOf(block.id + new Date(context.clock.nowMs()).toISOString().slice(0, 10), {
    sum: said('sum', context.words),
    numbers: said('numbers', context.words),
  });
  const field = {
    id: 'sum',
    kind: 'text',
    label: sum.question,
    placeholder: '',
    required: true,
    errorText: said('sumWrong', context.words),
  } as const;
  const drawn = labelled(field, block.id, context, input, () => sum.isRight(input.value));
  return { ...drawn, value: () => sum.sent(input.value) };
}
