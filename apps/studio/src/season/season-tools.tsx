import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Season } from '@velarium/contract';
import { counted } from '@velarium/core';
import { useState } from 'react';
import { addSeasonNote, bringCalendar, giveOutSeason, seasonQuery } from '../api/season.ts';
import { Button } from '../ui/button.tsx';
import { copy } from '../ui/copy.ts';
import { Dialog } from '../ui/dialog.tsx';
import { Field } from '../ui/field.tsx';
import { Menu } from '../ui/menu.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { useTextFile } from '../ui/use-text-file.tsx';

interface SeasonToolsProps {
  readonly siteId: string;
  readonly season: Season;
}

/** Notes down days, brings a calendar in and gives the season out as one. */
export function SeasonTools({ siteId, season }: SeasonToolsProps) {
  const queryClient = useQueryClient();
  const { queryKey } = seasonQuery(siteId);
  const [isAdding, setAdding] = useState(false);
  const [isGiving, setGiving] = useState(false);
  const bring = useMutation({
    mutationFn: (text: string) => bringCalendar(siteId, text),
    onError: tellProblem,
    onSuccess: ({ season: next, brought, left }) => {
      queryClient.setQueryData(queryKey, next);
      const without =
        left.length > 0 ? ` Left out: ${left.slice(0, 3).join('; ')}${left.length > 3 ? ' …' : ''}.` : '';
      tell(
        `${counted(brought, 'entry', 'entries')} brought in, in place of what a calendar said before.${without}`,
      );
    },
  });
  const file = useTextFile({
    label: 'A calendar file',
    accept: 'text/calendar,.ics',
    onRead: (text) => bring.mutate(text),
  });
  return (
    <span className="flex gap-2">
      {file.node}
      <Menu
        items={[
          { label: 'Bring in a calendar file …', onSelect: () => file.choose() },
          { label: 'Give it out as a calendar …', onSelect: () => setGiving(true) },
        ]}
      >
        <Button isBusy={bring.isPending}>Calendar</Button>
      </Menu>
      <Button tone="main" onClick={() => setAdding(true)}>
        Note down days
      </Button>
      {isAdding && <NoteDialog siteId={siteId} onClose={() => setAdding(false)} />}
      {isGiving && <AddressDialog siteId={siteId} season={season} onClose={() => setGiving(false)} />}
    </span>
  );
}

function NoteDialog({ siteId, onClose }: { readonly siteId: string; readonly onClose: () => void }) {
  const queryClient = useQueryClient();
  const [text, setText] = useState('');
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const add = useMutation({
    mutationFn: () => addSeasonNote(siteId, { from, to: to || from, text }),
    onError: tellProblem,
    onSuccess: (season) => {
      queryClient.setQueryData(seasonQuery(siteId).queryKey, season);
      onClose();
    },
  });
  const isBackwards = to !== '' && to < from;
  return (
    <Dialog
      isOpen
      onClose={onClose}
      title="Note down days"
      description="For the team; visitors never see it."
    >
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate();
        }}
      >
        <Field
          label="What is then"
          placeholder="Winter sale"
          value={text}
          maxLength={120}
          required
          onChange={(event) => setText(event.target.value)}
        />
        <div className="grid grid-cols-2 gap-4">
          <Field
            label="From"
            type="date"
            value={from}
            required
            onChange={(event) => setFrom(event.target.value)}
          />
          <Field
            label="Last day"
            type="date"
            value={to}
            error={isBackwards ? 'It lies before the first day.' : undefined}
            onChange={(event) => setTo(event.target.value)}
          />
        </div>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Not now</Button>
          <Button
            type="submit"
            tone="main"
            disabled={text.trim() === '' || from === '' || isBackwards}
            isBusy={add.isPending}
          >
            Note it down
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

interface AddressDialogProps extends SeasonToolsProps {
  readonly onClose: () => void;
}

function AddressDialog({ siteId, season, onClose }: AddressDialogProps) {
  const queryClient = useQueryClient();
  const give = useMutation({
    mutationFn: (isGiven: boolean) => giveOutSeason(siteId, isGiven),
    onError: tellProblem,
    onSuccess: (next) => queryClient.setQueryData(seasonQuery(siteId).queryKey, next),
  });
  const { address } = season;
  return (
    <Dialog
      isOpen
      onClose={onClose}
      title="The season as a calendar"
      description="A calendar program that is given this address shows what runs when, and the team’s notes. Whoever knows the address can read it."
    >
      {address ? (
        <code className="block rounded border border-line-strong bg-sheet p-3 break-all select-all">
          {address}
        </code>
      ) : (
        <p className="text-soft">It is not given out now.</p>
      )}
      <div className="flex flex-wrap justify-end gap-2 pt-4">
        {address ? (
          <>
            <Button isBusy={give.isPending} onClick={() => give.mutate(false)}>
              Stop giving it out
            </Button>
            <Button isBusy={give.isPending} onClick={() => give.mutate(true)}>
              Make another address
            </Button>
            <Button tone="main" onClick={() => copy(address)}>
              Copy
            </Button>
          </>
        ) : (
          <Button tone="main" isBusy={give.isPending} onClick={() => give.mutate(true)}>
            Make an address
          </Button>
        )}
      </div>
    </Dialog>
  );
}
