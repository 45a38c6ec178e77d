import type { Stretch } from '@velarium/contract';
import { periodWords } from '@velarium/core';
import type { ReactNode } from 'react';
import { ErrorState, Skeleton } from '../ui/states.tsx';
import { PeriodBar } from './period-bar.tsx';
import { isWhole, type Question } from './use-question.ts';

interface ResultsFrameProps {
  readonly title: string;
  /** Where it is found from. */
  readonly above?: ReactNode;
  readonly question: Question;
  readonly actions: ReactNode;
  /** Nothing before the first have come. */
  readonly results:
    | { readonly period: Stretch; readonly against: Stretch | null; readonly timeZone: string }
    | undefined;
  readonly error: unknown;
  readonly onRetry: () => void;
  readonly children: ReactNode;
}

/** What all Results have: whose they are, of which days, and what is said while there are none. */
export function ResultsFrame(props: ResultsFrameProps) {
  const { title, above, question, actions, results, error, onRetry, children } = props;
  return (
    <div className="mx-auto max-w-[1360px] px-6 pb-16 max-sm:px-4">
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3 pt-7 pb-4">
        <div className="mr-auto">
          {above && <p className="text-xs text-soft">{above}</p>}
          <h1 className="font-serif text-3xl">{title}</h1>
          <p aria-live="polite" className="text-soft">
            {results ? `${periodWords(results)}, by the clocks of ${results.timeZone}` : ' '}
          </p>
        </div>
        <PeriodBar question={question}>{actions}</PeriodBar>
      </div>
      {!isWhole(question.asked) ? (
        <p className="py-10 text-center text-soft">Choose the first and the last day.</p>
      ) : error && !results ? (
        <ErrorState error={error} onRetry={onRetry} />
      ) : results ? (
        children
      ) : (
        <Skeleton rows={6} label="Loading the results" />
      )}
    </div>
  );
}
