import type { ResultAgainst, ResultPeriod } from '@velarium/contract';
import { RESULT_AGAINST, RESULT_PERIODS } from '@velarium/contract/values';
import { AGAINST_WORDS, PERIOD_WORDS } from '@velarium/core';
import type { ReactNode } from 'react';
import { Select } from '../ui/select.tsx';
import type { Question } from './use-question.ts';

/** Which days, and against which. */
export function PeriodBar({
  question: { asked, set },
  children,
}: {
  readonly question: Question;
  readonly children?: ReactNode;
}) {
  return (
    <div className="flex flex-wrap items-end gap-2">
      <Select<ResultPeriod>
        label="Days"
        isLabelHidden
        className="w-44"
        value={asked.period}
        options={RESULT_PERIODS.map((value) => ({ value, label: PERIOD_WORDS[value] }))}
        onChange={(period) => set({ period, from: undefined, until: undefined })}
      />
      {asked.period === 'own' && <Days of="The days" from="from" until="until" asked={asked} set={set} />}
      <Select<ResultAgainst>
        label="Against"
        isLabelHidden
        className="w-72"
        value={asked.against}
        options={RESULT_AGAINST.map((value) => ({ value, label: `against ${AGAINST_WORDS[value]}` }))}
        onChange={(against) => set({ against, againstFrom: undefined, againstUntil: undefined })}
      />
      {asked.against === 'own' && (
        <Days of="Compared with" from="againstFrom" until="againstUntil" asked={asked} set={set} />
      )}
      {children}
    </div>
  );
}

interface DaysProps extends Pick<Question, 'asked' | 'set'> {
  readonly of: string;
  readonly from: 'from' | 'againstFrom';
  readonly until: 'until' | 'againstUntil';
}

function Days({ of, from, until, asked, set }: DaysProps) {
  return (
    <fieldset className="flex items-center gap-1">
      <legend className="sr-only">{of}</legend>
      {([from, until] as const).map((key, at) => (
        <input
          key={key}
          type="date"
          aria-label={`${of}: ${at === 0 ? 'from' : 'until'}`}
          value={asked[key] ?? ''}
          onChange={(event) => set({ [key]: event.target.value || undefined })}
          className="h-8 rounded border border-line-strong bg-sheet px-2 hover:border-ink"
        />
      ))}
    </fieldset>
  );
}
