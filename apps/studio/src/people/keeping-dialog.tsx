import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { DoNotWriteResult, PeopleNote } from '@velarium/contract';
import { counted } from '@velarium/core';
import { useId, useState } from 'react';
import { importDoNotWrite, keepAnswers, keptAnswersQuery, peopleNotesQuery } from '../api/people.ts';
import { Dialog } from '../ui/dialog.tsx';
import { Fold } from '../ui/fold.tsx';
import { KeptFor } from '../ui/kept-for.tsx';
import { textOfFile } from '../ui/text-of-file.ts';
import { tell, tellProblem } from '../ui/toast.tsx';
import { when } from '../ui/when.ts';

const WHAT: Readonly<Record<PeopleNote['what'], (count: number) => string>> = {
  exported: (count) => `took a file of ${counted(count, 'answer')}`,
  erased: (count) => `erased a person with ${counted(count, 'answer')}`,
  corrected: () => 'put an answer right',
  told: () => 'took everything about one person as a file',
  imported: (count) => `added ${counted(count, 'address', 'addresses')} that are not written to`,
  letThrough: (count) => `let ${counted(count, 'answer')} through`,
  thrownAway: (count) => `threw ${counted(count, 'answer')} away`,
};
const YEAR = 365;

/** How long answers are kept, whom nothing is ever sent to, and who did what with people's answers. */
export function KeepingDialog({
  siteId,
  onClose,
}: {
  readonly siteId: string;
  readonly onClose: () => void;
}) {
  const queryClient = useQueryClient();
  const { data: kept } = useQuery(keptAnswersQuery(siteId));
  const { data: notes = [] } = useQuery(peopleNotesQuery(siteId));
  const keep = useMutation({
    mutationFn: (days: number | null) => keepAnswers(siteId, { days }),
    onSuccess: (_nothing, days) => {
      queryClient.setQueryData(keptAnswersQuery(siteId).queryKey, { days });
      tell(days === null ? 'Answers are kept for ever.' : `Answers are kept for ${counted(days, 'day')}.`);
    },
    onError: tellProblem,
  });
  return (
    <Dialog isOpen onClose={onClose} title="Keeping" className="w-[min(92vw,38rem)]">
      <div className="grid gap-2">
        <KeptFor
          what="answers"
          hint="Older ones are forgotten within the hour, with their pictures and the people of whom none is left. Numbers stay."
          days={kept?.days}
          first={YEAR}
          min={1}
          isBusy={keep.isPending}
          onKeep={(days) => keep.mutate(days)}
        />
        <Fold title="Never written to" isOpen>
          <DoNotWrite siteId={siteId} />
        </Fold>
        <Fold title="Who did what" note={notes.length === 0 ? 'nothing yet' : undefined}>
          <ol className="grid gap-1">
            {notes.map(({ id, at, by, what, count }) => (
              <li key={id}>
                <span className="text-soft">{when.format(new Date(at))}</span> {by} {WHAT[what](count)}.
              </li>
            ))}
          </ol>
        </Fold>
      </div>
    </Dialog>
  );
}

function DoNotWrite({ siteId }: { readonly siteId: string }) {
  const queryClient = useQueryClient();
  const id = useId();
  const [result, setResult] = useState<DoNotWriteResult | null>(null);
  const take = useMutation({
    mutationFn: async (file: File) => importDoNotWrite(siteId, await textOfFile(file)),
    onSuccess: (taken) => {
      setResult(taken);
      void queryClient.invalidateQueries({ queryKey: peopleNotesQuery(siteId).queryKey });
    },
    onError: tellProblem,
  });
  return (
    <div className="grid gap-2">
      <label htmlFor={id}>A file of addresses, one a line or in the first column of a table</label>
      <input
        id={id}
        type="file"
        accept=".csv,.txt,text/csv,text/plain"
        disabled={take.isPending}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) take.mutate(file);
          event.target.value = '';
        }}
        className="file:mr-3 file:h-8 file:rounded file:border file:border-line-strong file:bg-sheet file:px-3"
      />
      <p className="text-xs text-soft">
        They are kept in a form that nobody can read back; to write to one of them again is not possible.
      </p>
      {result && (
        <div role="status">
          <p>
            {counted(result.added, 'address', 'addresses')} added
            {result.known > 0 ? `, ${result.known} known already` : ''}.
          </p>
          {result.faults.length > 0 && (
            <ul className="mt-1 text-halt">
              {result.faults.slice(0, 8).map(({ line, text }) => (
                <li key={line}>
                  Line {line}: “{text}” is no mail address; it was left out.
                </li>
              ))}
              {result.faults.length > 8 && <li>and {result.faults.length - 8} more</li>}
            </ul>
          )}
        </div>
      )}
    </div>
  );
}
