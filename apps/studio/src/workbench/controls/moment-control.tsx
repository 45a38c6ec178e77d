import type { Trigger } from '@velarium/contract';
import { LIMITS } from '@velarium/contract/values';
import { type ChangeEvent, useEffect, useState } from 'react';
import { Button } from '../../ui/button.tsx';
import { Field } from '../../ui/field.tsx';
import { useWorkbench, useWorkbenchStore } from '../store.ts';

/** The delay of the campaign's first time mark; `null` when it opens by other signs only. */
export const useSeconds = (): number | null =>
  useWorkbench((state) => state.document.rule.moment.triggers.find(isTime)?.seconds ?? null);

const isTime = (trigger: Trigger) => trigger.kind === 'time';

/** Moves the first time mark, or adds one. */
export function useSetSeconds(): (seconds: number) => void {
  const { editRule } = useWorkbenchStore().getState();
  return (seconds) =>
    editRule((rule) => {
      const { triggers } = rule.moment;
      const at = triggers.findIndex(isTime);
      const mark = { kind: 'time' as const, seconds };
      const moved = at < 0 ? [...triggers, mark] : triggers.map((old, n) => (n === at ? mark : old));
      return { ...rule, moment: { ...rule.moment, triggers: moved } };
    }, 'seconds');
}

/** Reads what a person typed for a delay: empty is at once; `undefined` is no delay at all. */
export function readSeconds(text: string): number | undefined {
  if (text.trim() === '') return 0;
  const seconds = Number(text.replace(',', '.'));
  if (!Number.isFinite(seconds) || seconds < 0 || seconds > LIMITS.triggerSeconds) return undefined;
  return Math.round(seconds * 10) / 10;
}

const writeSeconds = (seconds: number | null): string => (seconds ? String(seconds) : '');

/** The delay as text being typed: follows the mark, but never rewrites what means the same. */
function useSecondsText() {
  const seconds = useSeconds();
  const setSeconds = useSetSeconds();
  const [text, setText] = useState(writeSeconds(seconds));
  useEffect(() => {
    setText((old) => (seconds !== null && readSeconds(old) === seconds ? old : writeSeconds(seconds)));
  }, [seconds]);
  const isWrong = readSeconds(text) === undefined;
  return {
    value: text,
    error: isWrong ? `Write a number from 0 to ${LIMITS.triggerSeconds}, or nothing for at once.` : undefined,
    onChange: (event: ChangeEvent<HTMLInputElement>) => {
      setText(event.target.value);
      const read = readSeconds(event.target.value);
      if (read !== undefined) setSeconds(read);
    },
  };
}

/** Seconds on the page after which it opens. */
export function MomentControl() {
  const seconds = useSeconds();
  const setSeconds = useSetSeconds();
  const typed = useSecondsText();
  if (seconds === null) {
    return (
      <div className="grid justify-items-start gap-2">
        <p className="text-soft">This campaign opens by other signs than time on the page.</p>
        <Button onClick={() => setSeconds(10)}>Add a time mark</Button>
      </div>
    );
  }
  return (
    <Field
      label="Seconds on the page"
      inputMode="decimal"
      placeholder="at once"
      {...typed}
      hint="Only time in which the page is in sight counts. 5 s is early for a reader; 10 to 15 s is usual."
    />
  );
}

/** The same on the visit line itself, in a word's room. */
export function SecondsOnLine() {
  const { value, error, onChange } = useSecondsText();
  if (useSeconds() === null)
    return <p className="text-sm text-soft">no time mark; it opens by other signs</p>;
  return (
    <label className="flex items-baseline gap-1.5 text-sm">
      opens after
      <input
        inputMode="decimal"
        placeholder="at once"
        aria-label="Seconds after which it opens"
        aria-invalid={error ? true : undefined}
        title={error ?? 'Seconds; nothing means at once'}
        value={value}
        onChange={onChange}
        className="h-6 w-16 rounded border border-line-strong bg-sheet px-1.5 placeholder:text-soft aria-invalid:border-2 aria-invalid:border-halt"
      />
      s
    </label>
  );
}
