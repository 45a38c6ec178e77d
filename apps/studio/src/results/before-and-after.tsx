import { useQuery } from '@tanstack/react-query';
import {
  aroundDay,
  beforeAfterWords,
  compareStretches,
  counted,
  readDayCounts,
  unevennessWords,
} from '@velarium/core';
import { useState } from 'react';
import { dayCountsQuery } from '../api/results.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { Segments } from '../ui/segments.tsx';
import { ErrorState } from '../ui/states.tsx';
import { TextArea } from '../ui/text-area.tsx';
import { useTextFile } from '../ui/use-text-file.tsx';

type Source = 'own' | 'file';
/** A day takes some fifteen, and what was read is shown to be looked through. */
const MOST_COUNT_BYTES = 200_000;
const WHOLE = { period: 'launch', against: 'none' } as const;

/** Two stretches of days around a date: this campaign's conversions, or counts of any days brought along. */
export function BeforeAndAfter({ campaignId }: { readonly campaignId: string }) {
  const [source, setSource] = useState<Source>('own');
  const [day, setDay] = useState('');
  const [text, setText] = useState('');
  const {
    data: own = [],
    isLoadingError,
    error,
    refetch,
  } = useQuery({
    ...dayCountsQuery(campaignId, WHOLE),
    enabled: source === 'own' && day !== '',
  });
  const file = useTextFile({
    label: 'Days and counts',
    accept: '.csv,text/csv,text/plain',
    mostBytes: MOST_COUNT_BYTES,
    onRead: setText,
  });
  const { days, faults } = source === 'own' ? { days: own, faults: [] } : readDayCounts(text);
  const { before, after } = aroundDay(days, day);
  const found = day !== '' && days.length > 0 && faults.length === 0 ? compareStretches(before, after) : null;
  return (
    <section className="grid max-w-3xl gap-3">
      <h2 className="font-serif text-xl">Before and after a day</h2>
      <p className="text-soft">
        Days with something new on one side, days without on the other; weekdays are matched, and uneven days
        widen what can be said.
      </p>
      <div className="flex flex-wrap items-end gap-4">
        <Field
          label="The first day after"
          type="date"
          value={day}
          onChange={(event) => setDay(event.target.value)}
          className="w-44"
        />
        <Segments<Source>
          label="Of what"
          value={source}
          options={[
            { value: 'own', label: 'Its conversions' },
            { value: 'file', label: 'Counts of mine' },
          ]}
          onChange={setSource}
        />
      </div>
      {source === 'file' && (
        <>
          <TextArea
            label="A day and a count on each line"
            rows={5}
            value={text}
            placeholder={'2026-11-01,14\n2026-11-02,9'}
            onChange={(event) => setText(event.target.value)}
          />
          {file.node}
          <Button className="w-fit" onClick={file.choose}>
            From a file
          </Button>
          {faults.length > 0 && (
            <ul role="alert" className="text-halt">
              {faults.slice(0, 8).map(({ line, words }) => (
                <li key={line}>
                  Line {line}: {words}
                </li>
              ))}
              {faults.length > 8 && <li>And {counted(faults.length - 8, 'line')} more.</li>}
            </ul>
          )}
        </>
      )}
      {isLoadingError && <ErrorState error={error} onRetry={() => void refetch()} />}
      {found && (
        <div role="status" className="grid gap-1 border-l-2 border-sail pl-3">
          <p className="font-serif text-lg leading-snug">{beforeAfterWords(found)}</p>
          <p className="text-xs text-soft">{unevennessWords(found)}</p>
        </div>
      )}
    </section>
  );
}
