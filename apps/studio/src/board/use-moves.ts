import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Campaign } from '@velarium/contract';
import { campaignQuery, campaignsQuery, type Move, moveCampaign } from '../api/queries.ts';
import { tell, tellProblem } from '../ui/toast.tsx';

type Subject = Pick<Campaign, 'id' | 'name' | 'siteId'>;

/** What undoes a move, where something does. A duplicate is undone by archiving the copy. */
const UNDO: Readonly<Partial<Record<Move, Move>>> = {
  rest: 'run',
  run: 'rest',
  archive: 'restore',
  restore: 'archive',
  duplicate: 'archive',
};

const DONE: Readonly<Record<Move, (name: string) => string>> = {
  rest: (name) => `“${name}” is resting. It is gone at the next load of a page.`,
  run: (name) => `“${name}” is running again.`,
  archive: (name) => `“${name}” is in the archive.`,
  restore: (name) => `“${name}” is back from the archive.`,
  duplicate: (name) => `“${name}” was made as a draft.`,
};

/** Moves a campaign between states, says so, and offers the undo. */
export function useMoves() {
  const queryClient = useQueryClient();
  const mutation = useMutation({
    mutationFn: ({ subject, move }: { subject: Subject; move: Move; isUndo?: boolean }) =>
      moveCampaign(subject.id, move),
    onSuccess: (campaign, { move, isUndo }) => {
      queryClient.setQueryData(campaignQuery(campaign.id).queryKey, campaign);
      void queryClient.invalidateQueries({ queryKey: campaignsQuery(campaign.siteId).queryKey });
      const undo = UNDO[move];
      tell(
        DONE[move](campaign.name),
        undo && !isUndo ? () => mutation.mutate({ subject: campaign, move: undo, isUndo: true }) : undefined,
        `state of ${campaign.id}`,
      );
    },
    onError: tellProblem,
  });
  return {
    isBusy: mutation.isPending,
    move: (subject: Subject, move: Move) => mutation.mutate({ subject, move }),
    moveAndWait: (subject: Subject, move: Move) => mutation.mutateAsync({ subject, move }),
  };
}
