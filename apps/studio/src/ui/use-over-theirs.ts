import { type QueryKey, type UnusedSkipTokenOptions, useQueryClient } from '@tanstack/react-query';
import { isSame, mergeDocuments } from '@velarium/core';
import { useState } from 'react';
import { ToldError } from './told-error.ts';

const contested = (): ToldError =>
  new ToldError(
    'Somebody has changed the same meanwhile',
    'Nothing was saved. Saving again puts yours in its place.',
  );

/**
 * Puts what a dialog has made of something over what others have made of it since the dialog was opened, three ways: reads it
 * anew, and answers what is to be saved. `there` finds it in what was read.
 * @throws {ToldError} Where both changed the same; who is told of it and saves again puts theirs in its place.
 */
export function useOverTheirs<Kept>(
  opened: Kept,
): <Read, Key extends QueryKey>(
  mine: Kept,
  query: UnusedSkipTokenOptions<Read, Error, Read, Key>,
  there: (read: Read) => Kept,
) => Promise<Kept> {
  const queryClient = useQueryClient();
  const [base] = useState(opened);
  /** How it was there when the person was told that both have changed the same. */
  const [told, setTold] = useState<Kept>();
  return async (mine, query, there) => {
    const now = there(await queryClient.fetchQuery({ ...query, staleTime: 0 }));
    const { merged, conflicts } = mergeDocuments(base, mine, now);
    if (conflicts.length === 0 || isSame(told, now)) return merged;
    setTold(() => now);
    throw contested();
  };
}
