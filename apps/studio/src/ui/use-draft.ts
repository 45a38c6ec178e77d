import { isSame, mergeDocuments } from '@velarium/core';
import { useEffect, useState } from 'react';
import { forgetForTab, keepForTab, keptForTab } from './tab-memory.ts';

export interface Changes<Kept> {
  /** How it was there when the last of them was made. */
  readonly base: Kept;
  readonly mine: Kept;
}

interface Draft<Kept> {
  readonly value: Kept;
  /** What of it is changed here, by which what was sent is known again. */
  readonly changes: Changes<Kept> | null;
  readonly isChanged: boolean;
  /** Somebody else has changed the same meanwhile, in another way. */
  readonly isContested: boolean;
  readonly set: (value: Kept) => void;
  readonly takeBack: () => void;
  /** What is changed here, put over how it is there by now; nothing where that is contested and nobody was told yet. */
  readonly over: (there: Kept) => Kept | undefined;
  /** These are saved; what has been typed since is still to be. */
  readonly settle: (sent: Changes<Kept> | null) => void;
}

export const notSavedWords = (isContested: boolean): string =>
  isContested
    ? 'Not saved yet. Somebody has changed the same meanwhile: saving puts yours in its place.'
    : 'Not saved yet.';
export const CONTESTED = 'Somebody has changed the same meanwhile. Nothing was saved: look at it again.';

/** Of another Velarium, which knew other parts, nothing is taken. */
function changesOf<Kept extends object>(name: string, kept: Kept): Changes<Kept> | null {
  const read = keptForTab(name) as Partial<Changes<Kept>> | undefined;
  const hasParts = (one: unknown): boolean =>
    typeof one === 'object' && one !== null && isSame(Object.keys(one).sort(), Object.keys(kept).sort());
  return hasParts(read?.base) && hasParts(read?.mine) ? (read as Changes<Kept>) : null;
}

/**
 * What is being changed of something the server has. What others save meanwhile comes in, but where it is the same that is changed
 * here; and it outlives leaving the place and a reload, until it is saved or taken back. `name` is of that one thing.
 */
export function useDraft<Kept extends object>(name: string, kept: Kept): Draft<Kept> {
  const place = `velarium.draft.${name}`;
  const [changes, setChanges] = useState(() => changesOf(place, kept));
  useEffect(() => {
    if (changes) keepForTab(place, changes);
    else forgetForTab(place);
  }, [place, changes]);
  const merge = (there: Kept) =>
    changes ? mergeDocuments(changes.base, changes.mine, there) : { merged: there, conflicts: [] };
  const { merged: value, conflicts } = merge(kept);
  return {
    value,
    changes,
    isChanged: !isSame(value, kept),
    isContested: conflicts.length > 0,
    set: (mine) =>
      setChanges(
        isSame(mine, kept) ? null : { base: conflicts.length > 0 && changes ? changes.base : kept, mine },
      ),
    takeBack: () => setChanges(null),
    over: (there) => {
      const now = merge(there);
      return now.conflicts.length > 0 && conflicts.length === 0 ? undefined : now.merged;
    },
    settle: (sent) => setChanges((now) => (isSame(now, sent) ? null : now)),
  };
}
