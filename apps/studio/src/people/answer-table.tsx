import { useInfiniteQuery } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import type { Answer } from '@velarium/contract';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { type AskedAnswers, answersQuery } from '../api/people.ts';
import { Button } from '../ui/button.tsx';
import { keepChoice, keptChoice } from '../ui/kept-choice.ts';
import { Popover } from '../ui/popover.tsx';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';
import { COLUMNS, FIRST_COLUMNS } from './columns.tsx';

const ROW = 44;
const KEPT = 'velarium:answer-columns';

const keptColumns = (): string[] => {
  try {
    const kept = JSON.parse(keptChoice(KEPT) ?? '');
    return Array.isArray(kept) && kept.length > 0 ? kept : FIRST_COLUMNS;
  } catch {
    return FIRST_COLUMNS;
  }
};

export interface AnswerTableProps {
  readonly siteId: string;
  readonly filter: AskedAnswers;
  readonly isHeld: boolean;
  readonly onOpen: (answer: Answer) => void;
}

/** Answers, newest first. Only the rows in sight are drawn, and further ones asked for as one comes near. */
export function AnswerTable({ siteId, filter, isHeld, onOpen }: AnswerTableProps) {
  const [chosen, setChosen] = useState(keptColumns);
  const found = useInfiniteQuery({
    ...answersQuery(siteId, filter),
    refetchInterval: 10_000,
    placeholderData: (old) => old,
  });
  const { data, error, refetch, fetchNextPage, hasNextPage, isFetchingNextPage } = found;
  const answers = data?.pages.flatMap((page) => page.answers) ?? [];
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: answers.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 12,
  });
  const inSight = rows.getVirtualItems();
  const last = inSight.at(-1)?.index ?? 0;
  useEffect(() => {
    if (last >= answers.length - 20 && hasNextPage && !isFetchingNextPage) void fetchNextPage();
  }, [last, answers.length, hasNextPage, isFetchingNextPage, fetchNextPage]);
  const columns = COLUMNS.filter(({ id }) => chosen.includes(id) || (isHeld && id === 'answers'));
  const choose = (id: string) => {
    const next = chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id];
    if (next.length === 0) return;
    setChosen(next);
    keepChoice(KEPT, JSON.stringify(next));
  };

  if (error && !data) return <ErrorState error={error} onRetry={() => void refetch()} />;
  if (!data) return <Skeleton rows={6} label="Loading people" />;
  if (answers.length === 0) {
    const isAsked = Object.entries(filter).some(([key, value]) => value && key !== 'isHeld');
    return isAsked ? (
      <EmptyState title="Nobody like that" drawing="lens">
        No answer of this site fits what you look for.
      </EmptyState>
    ) : (
      <EmptyState
        title="Nobody has written yet"
        drawing="people"
        action={
          <Link
            to={`/sites/${siteId}/board?new`}
            className="font-medium text-sail underline underline-offset-4"
          >
            Make a message with a form
          </Link>
        }
      >
        Who answers a form in one of your messages is listed here, with the consent they gave.
      </EmptyState>
    );
  }
  const above = inSight[0]?.start ?? 0;
  const below = rows.getTotalSize() - (inSight.at(-1)?.end ?? 0);
  const whole = columns.reduce((sum, { share }) => sum + share, 0);
  return (
    <>
      <section
        ref={scroller}
        aria-label="Answers"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by keys
        tabIndex={0}
        className="max-h-[70vh] overflow-auto border-t border-line-strong"
      >
        <table
          aria-rowcount={answers.length}
          className="w-full min-w-5xl table-fixed border-collapse text-left"
        >
          <caption className="sr-only">People</caption>
          <thead className="sticky top-0 z-10 bg-paper">
            <tr className="border-b border-line-strong text-xs text-soft">
              {columns.map(({ id, head, share }) => (
                <th
                  key={id}
                  scope="col"
                  style={{ width: `${(share / whole) * 100}%` }}
                  className="py-2 pr-4 font-medium"
                >
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {above > 0 && <tr style={{ height: above }} />}
            {inSight.map(({ index }) => {
              const answer = answers[index];
              if (!answer) return null;
              return (
                <tr
                  key={answer.id}
                  aria-rowindex={index + 1}
                  style={{ height: ROW }}
                  className="relative border-b border-line hover:bg-sail-wash"
                >
                  {columns.map(({ id, cell }, at) => (
                    <td key={id} className="truncate pr-4">
                      {at === 0 ? (
                        <button
                          type="button"
                          // The whole row is the target.
                          className="block w-full truncate text-left outline-offset-[-2px] before:absolute before:inset-0"
                          aria-label={`Open the answer of ${answer.person?.address ?? 'somebody'}`}
                          onClick={() => onOpen(answer)}
                        >
                          {cell(answer)}
                        </button>
                      ) : (
                        cell(answer)
                      )}
                    </td>
                  ))}
                </tr>
              );
            })}
            {below > 0 && <tr style={{ height: below }} />}
          </tbody>
        </table>
      </section>
      <div className="flex items-center justify-between pt-2">
        <p role="status" className="text-xs text-soft">
          {isFetchingNextPage ? 'Loading more …' : ''}
        </p>
        <Popover label="Columns" trigger={<Button tone="quiet">Columns</Button>}>
          <fieldset className="grid gap-1.5">
            <legend className="mb-1 text-xs">Shown in the table</legend>
            {COLUMNS.map(({ id, head }) => (
              <label key={id} className="flex items-center gap-2">
                <input
                  type="checkbox"
                  className="accent-sail"
                  checked={chosen.includes(id)}
                  onChange={() => choose(id)}
                />
                {head}
              </label>
            ))}
          </fieldset>
        </Popover>
      </div>
    </>
  );
}
