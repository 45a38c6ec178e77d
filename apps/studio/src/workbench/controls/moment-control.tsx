import { LIMITS } from '@velarium/contract/values';
import { useEffect, useState } from 'react';
import { Field } from '../../ui/field.tsx';
import { useWorkbench, useWorkbenchStore } from '../store.ts';

export const useSeconds = () => useWorkbench((state) => state.document.rule.moment.triggers[0]?.seconds ?? 0);

export function useSetSeconds(): (seconds: number) => void {
  const { editRule } = useWorkbenchStore().getState();
  return (seconds) =>
    editRule(
      (rule) => ({
        ...rule,
        moment: { triggers: rule.moment.triggers.map((trigger) => ({ ...trigger, seconds })) },
      }),
      'seconds',
    );
}

/** Reads what a person typed for a delay: empty is at once; `undefined` is no delay at all. */
export function readSeconds(text: string): number | undefined {
  if (text.trim() === '') return 0;
  const seconds = Number(text.replace(',', '.'));
  if (!Number.isFinite(seconds) || seconds < 0 || seconds > LIMITS.triggerSeconds) return undefined;
  return Math.round(seconds * 10) / 10;
}

/** Seconds on the page after which it opens. */
export function MomentControl() {
  const seconds = useSeconds();
  const setSeconds = useSetSeconds();
  const [text, setText] = useState(seconds === 0 ? '' : String(seconds));
  const isWrong = readSeconds(text) === undefined;
  // Follows the mark on the visit line, but never rewrites what is being typed when it means the same.
  useEffect(() => {
    setText((old) => (readSeconds(old) === seconds ? old : seconds === 0 ? '' : String(seconds)));
  }, [seconds]);
  return (
    <Field
      label="Seconds on the page"
      inputMode="decimal"
      value={text}
      placeholder="at once"
      onChange={(event) => {
        setText(event.target.value);
        const read = readSeconds(event.target.value);
        if (read !== undefined) setSeconds(read);
      }}
      error={
        isWrong ? `Write a number from 0 to ${LIMITS.triggerSeconds}, or nothing for at once.` : undefined
      }
      hint="Only time in which the page is in sight counts. 5 s is early for a reader; 10 to 15 s is usual."
    />
  );
}
