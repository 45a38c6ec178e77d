import { useQuery } from '@tanstack/react-query';
import type { Cast, Rehearsal } from '@velarium/contract';
import { counted, recordedWords, rehearsalOfRecorded } from '@velarium/core';
import { useMemo, useState } from 'react';
import { trafficQuery } from '../api/forecasts.ts';
import { Dialog } from '../ui/dialog.tsx';
import { SearchField } from '../ui/search-field.tsx';
import { ErrorState, Skeleton } from '../ui/states.tsx';

/** As long as what was recorded of a visit is kept. */
const DAYS = 31;
/** Page views that are enough to choose from. */
const SAMPLE = 5000;
const LISTED = 40;

interface RecordedVisitsProps {
  readonly siteId: string;
  readonly cast: Cast;
  readonly write: (atMs: number) => string;
  readonly onChoose: (rehearsal: Rehearsal) => void;
  readonly onClose: () => void;
}

/** Visits somebody really made, told of no name, to put one of them on the line. */
export function RecordedVisits({ siteId, cast, write, onChoose, onClose }: RecordedVisitsProps) {
  const { data: traffic, error, refetch } = useQuery(trafficQuery(siteId, DAYS, SAMPLE));
  const [words, setWords] = useState('');
  const asked = words.toLowerCase().split(/\s+/).filter(Boolean);
  const all = useMemo(
    () =>
      (traffic?.list ?? [])
        .map((visitor, nth) => ({
          nth,
          told: recordedWords(visitor, write),
          paths: visitor.pages.map(({ path }) => path),
          atMs: visitor.pages[0]?.atMs ?? 0,
        }))
        .sort((a, b) => b.atMs - a.atMs),
    [traffic, write],
  );
  const found = all.filter(({ told, paths }) => {
    const text = `${told} ${paths.join(' ')}`.toLowerCase();
    return asked.every((word) => text.includes(word));
  });
  return (
    <Dialog
      isOpen
      onClose={onClose}
      title="A recorded visit"
      description={`What visitors of the last ${DAYS} days did, told of no name. One of them comes onto the line in the place of what is there; Undo brings that back.`}
      className="w-[min(94vw,46rem)]"
    >
      {error && !traffic ? (
        <ErrorState error={error} onRetry={() => void refetch()} />
      ) : !traffic ? (
        <Skeleton rows={5} label="Loading the visits" />
      ) : traffic.list.length === 0 ? (
        <p className="text-soft">Nothing has been recorded on this site yet.</p>
      ) : (
        <div className="grid gap-3">
          <SearchField
            label="Find a visit"
            placeholder="phone search /shop"
            value={words}
            onChange={setWords}
          />
          <p role="status" className="text-soft">
            {counted(found.length, 'visitor')}
            {found.length > LISTED && `, the first ${LISTED} of them below`}
          </p>
          <ul className="border-t border-line-strong">
            {found.slice(0, LISTED).map(({ nth, told, paths }) => (
              <li key={nth} className="border-b border-line">
                <button
                  type="button"
                  className="grid w-full gap-0.5 px-2 py-2 text-left hover:bg-sail-wash"
                  onClick={() => {
                    const made = rehearsalOfRecorded(traffic, nth, cast.manifest);
                    if (made) onChoose(made);
                  }}
                >
                  <span>{told}</span>
                  <span className="text-xs text-soft [overflow-wrap:anywhere]">{paths.join(' → ')}</span>
                </button>
              </li>
            ))}
          </ul>
        </div>
      )}
    </Dialog>
  );
}
