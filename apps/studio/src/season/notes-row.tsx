import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { SeasonNote } from '@velarium/contract';
import { type Interval, wholeDays } from '@velarium/core';
import { addSeasonNote, removeSeasonNote, seasonQuery } from '../api/season.ts';
import { Button } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { Popover } from '../ui/popover.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { barOf } from './place.ts';

const ROW = 24;
const day = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  timeZone: 'UTC',
});
const dayWords = (local: string): string => day.format(new Date(`${local}T00:00Z`));

interface NotesRowProps {
  readonly siteId: string;
  readonly notes: readonly SeasonNote[];
  readonly window: Interval;
  readonly zone: string;
  readonly canEdit: boolean;
}

/** What the team knows of the days, above the lanes: as many rows as it takes for none to lie on another. */
export function NotesRow({ siteId, notes, window, zone, canEdit }: NotesRowProps) {
  const seen = notes
    .map((note): { note: SeasonNote; stretch: Interval } => ({
      note,
      stretch: wholeDays(note, zone),
    }))
    .filter(({ stretch: [from, to] }) => from < window[1] && to > window[0]);
  const ends: number[] = [];
  const placed = seen.map((one) => {
    const free = ends.findIndex((end) => end <= one.stretch[0]);
    const row = free < 0 ? ends.length : free;
    ends[row] = one.stretch[1];
    return { ...one, row };
  });
  return (
    <div className="grid grid-cols-[var(--names)_minmax(0,1fr)] border-b border-line">
      <span className="sticky left-0 z-20 grid items-center bg-paper text-soft">Notes of the team</span>
      <ul className="relative" aria-label="Notes" style={{ height: Math.max(1, ends.length) * ROW + 4 }}>
        {placed.map(({ note, stretch, row }) => (
          <li
            key={note.id}
            className="absolute"
            style={{
              top: row * ROW + 2,
              ...barOf(stretch, window),
            }}
          >
            <Popover
              label={note.text}
              trigger={
                <button
                  type="button"
                  title={`${note.text}, ${dayWords(note.from)} to ${dayWords(note.to)}`}
                  className={cx(
                    'block h-6 w-full min-w-6 truncate border px-1 text-left text-xs hover:bg-sail-wash',
                    note.source === 'team' ? 'border-sail bg-sheet' : 'border-dashed border-soft bg-paper',
                  )}
                >
                  {note.text}
                </button>
              }
            >
              <Note siteId={siteId} note={note} canEdit={canEdit} />
            </Popover>
          </li>
        ))}
      </ul>
    </div>
  );
}

function Note({
  siteId,
  note,
  canEdit,
}: {
  readonly siteId: string;
  readonly note: SeasonNote;
  readonly canEdit: boolean;
}) {
  const queryClient = useQueryClient();
  const { queryKey } = seasonQuery(siteId);
  const remove = useMutation({
    mutationFn: () => removeSeasonNote(siteId, note.id),
    onError: tellProblem,
    onSuccess: (season) => {
      queryClient.setQueryData(queryKey, season);
      const { from, to, text } = note;
      tell(`“${text}” is taken out.`, () => {
        addSeasonNote(siteId, { from, to, text }).then(
          (again) => queryClient.setQueryData(queryKey, again),
          tellProblem,
        );
      });
    },
  });
  return (
    <div className="grid gap-2">
      <p className="font-semibold">{note.text}</p>
      <p className="text-soft">
        {note.from === note.to ? dayWords(note.from) : `${dayWords(note.from)} to ${dayWords(note.to)}`}
        {note.source === 'calendar' && ', from the calendar that was brought in'}
      </p>
      {canEdit && (
        <div>
          <Button isBusy={remove.isPending} onClick={() => remove.mutate()}>
            Take it out
          </Button>
        </div>
      )}
    </div>
  );
}
