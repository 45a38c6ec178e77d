import { quantity } from '@velarium/core';
import { useState } from 'react';
import { Button } from '../ui/button.tsx';
import { inputClass } from '../ui/field.tsx';
import { Popover } from '../ui/popover.tsx';
import type { MassMove, Selection } from './use-selection.ts';

const MOVES: readonly { readonly name: MassMove; readonly label: string }[] = [
  { name: 'rest', label: 'Rest' },
  { name: 'run', label: 'Run again' },
  { name: 'archive', label: 'Archive' },
  { name: 'restore', label: 'Bring back from the archive' },
];

export interface SelectionBarProps {
  readonly selection: Selection;
  readonly labels: readonly string[];
  readonly onLaunch: () => void;
}

/** What can be done with the chosen campaigns, over the list they were chosen from. */
export function SelectionBar({ selection, labels, onLaunch }: SelectionBarProps) {
  const { chosen, isBusy, canMove, move, choose } = selection;
  return (
    <div
      role="toolbar"
      aria-label="Chosen campaigns"
      className="flex h-11 items-center gap-2 overflow-x-auto border-y border-ink bg-sheet px-3"
    >
      <p aria-live="polite" className="mr-2 font-medium">
        {quantity(chosen.length, 'campaign')} chosen
      </p>
      {MOVES.filter(({ name }) => canMove(name)).map(({ name, label }) => (
        <Button key={name} isBusy={isBusy} onClick={() => move(name)}>
          {label}
        </Button>
      ))}
      {!chosen.some(({ state }) => state === 'archived') && (
        <Button disabled={isBusy} onClick={onLaunch}>
          Launch together
        </Button>
      )}
      <Popover label="Labels" trigger={<Button disabled={isBusy}>Label</Button>}>
        <Labels selection={selection} labels={labels} />
      </Popover>
      <Button tone="quiet" className="ml-auto" onClick={() => choose([])}>
        Choose none
      </Button>
    </div>
  );
}

function Labels({ selection, labels }: Omit<SelectionBarProps, 'onLaunch'>) {
  const { chosen, label } = selection;
  const [word, setWord] = useState('');
  const typed = word.trim();
  return (
    <div className="grid gap-2">
      {labels.map((one) => {
        const count = chosen.filter((campaign) => campaign.labels.includes(one)).length;
        return (
          <label key={one} className="flex items-center gap-2">
            <input
              type="checkbox"
              className="accent-sail"
              checked={count === chosen.length}
              ref={(input) => {
                if (input) input.indeterminate = count > 0 && count < chosen.length;
              }}
              onChange={(event) => label({ word: one, isOn: event.target.checked })}
            />
            {one}
          </label>
        );
      })}
      <form
        className="flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (typed) label({ word: typed, isOn: true });
          setWord('');
        }}
      >
        <input
          aria-label="New label"
          placeholder="A new label"
          value={word}
          maxLength={40}
          onChange={(event) => setWord(event.target.value)}
          className={inputClass}
        />
        <Button type="submit" disabled={typed === ''}>
          Add
        </Button>
      </form>
    </div>
  );
}
