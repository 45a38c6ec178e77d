import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { CampaignSummary } from '@velarium/contract';
import { quantity } from '@velarium/core';
import { useCallback, useMemo, useState } from 'react';
import { campaignsQuery, changeCampaign, type Move, moveCampaign } from '../api/queries.ts';
import { tell, tellProblem } from '../ui/toast.tsx';
import { isLive } from './state-mark.tsx';

export type MassMove = 'rest' | 'run' | 'archive' | 'restore';

const FITS: Readonly<Record<MassMove, (campaign: CampaignSummary) => boolean>> = {
  rest: ({ state }) => isLive(state),
  run: ({ state }) => state === 'resting',
  archive: ({ state }) => state !== 'archived',
  restore: ({ state }) => state === 'archived',
};
const UNDO: Readonly<Record<MassMove, Move>> = {
  rest: 'run',
  run: 'rest',
  archive: 'restore',
  restore: 'archive',
};
const DONE: Readonly<Record<MassMove, string>> = {
  rest: 'put to rest',
  run: 'running again',
  archive: 'in the archive',
  restore: 'back from the archive',
};

/** Which campaigns are chosen, and what is done with all of them at once. */
export function useSelection(siteId: string, campaigns: readonly CampaignSummary[]) {
  const queryClient = useQueryClient();
  const [ids, setIds] = useState<ReadonlySet<string>>(new Set());
  const chosen = useMemo(() => campaigns.filter(({ id }) => ids.has(id)), [campaigns, ids]);
  const listed = () => queryClient.getQueryData(campaignsQuery(siteId).queryKey) ?? campaigns;
  const refresh = () => queryClient.invalidateQueries({ queryKey: campaignsQuery(siteId).queryKey });

  /** One after the other: each is a publish of the site. Those that fail are left as they are, and said. */
  const each = async (list: readonly string[], act: (id: string) => Promise<unknown>): Promise<string[]> => {
    const done: string[] = [];
    let problem: unknown;
    for (const id of list) {
      await act(id).then(
        () => done.push(id),
        (error) => {
          problem = error;
        },
      );
    }
    await refresh();
    if (problem !== undefined) tellProblem(problem);
    return done;
  };
  const move = useMutation({
    mutationFn: async (name: MassMove) => {
      const done = await each(
        chosen.filter(FITS[name]).map(({ id }) => id),
        (id) => moveCampaign(id, name),
      );
      if (done.length === 0) return;
      tell(
        `${quantity(done.length, 'campaign')}: ${DONE[name]}.`,
        () => void each(done, (id) => moveCampaign(id, UNDO[name])),
      );
      setIds(new Set());
    },
  });
  const label = useMutation({
    mutationFn: async ({ word, isOn }: { word: string; isOn: boolean }) => {
      /** By what the list says now, which the undo may find changed. */
      const put = (id: string, has: boolean) => {
        const old = listed().find((one) => one.id === id)?.labels ?? [];
        return changeCampaign(id, {
          labels: has ? [...new Set([...old, word])] : old.filter((one) => one !== word),
        });
      };
      const others = chosen.filter(({ labels }) => labels.includes(word) !== isOn);
      const done = await each(
        others.map(({ id }) => id),
        (id) => put(id, isOn),
      );
      if (done.length === 0) return;
      tell(
        `${quantity(done.length, 'campaign')}: ${isOn ? 'labelled' : 'no longer labelled'} “${word}”.`,
        () => void each(done, (id) => put(id, !isOn)),
        `label ${word}`,
      );
    },
  });
  const toggle = useCallback(
    (id: string) =>
      setIds((old) => {
        const next = new Set(old);
        if (!next.delete(id)) next.add(id);
        return next;
      }),
    [],
  );
  return {
    ids,
    chosen,
    isBusy: move.isPending || label.isPending,
    canMove: (name: MassMove) => chosen.some(FITS[name]),
    move: move.mutate,
    label: label.mutate,
    toggle,
    choose: (list: readonly string[]) => setIds(new Set(list)),
  };
}
export type Selection = ReturnType<typeof useSelection>;
