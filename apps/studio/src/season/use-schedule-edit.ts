import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Schedule } from '@velarium/contract';
import { campaignQuery, campaignsQuery, readCampaign, saveDraft } from '../api/queries.ts';
import { tell, tellProblem } from '../ui/toast.tsx';

interface Edit {
  readonly id: string;
  readonly name: string;
  readonly schedule: Schedule | null;
  /** What it was, to go back to. */
  readonly before: Schedule | null;
  /** Whether visitors meet the campaign: they meet the change with its next launch only. */
  readonly isLive: boolean;
}

/** Changes the schedule of a campaign's draft, says so, and can take it back. */
export function useScheduleEdit(siteId: string) {
  const queryClient = useQueryClient();
  const save = async (id: string, schedule: Schedule | null, isStill: (now: Schedule | null) => boolean) => {
    const { revision, document } = await readCampaign(id);
    if (!isStill(document.rule.limits.schedule)) return undefined;
    const limits = { ...document.rule.limits, schedule };
    return saveDraft(id, revision, { ...document, rule: { ...document.rule, limits } });
  };
  const refresh = (id: string) => {
    void queryClient.invalidateQueries({ queryKey: campaignQuery(id).queryKey });
    return queryClient.invalidateQueries({ queryKey: campaignsQuery(siteId).queryKey });
  };
  return useMutation({
    mutationFn: ({ id, schedule }: Edit) => save(id, schedule, () => true),
    onError: tellProblem,
    onSuccess: (saved, { id, name, before, isLive }) => {
      const made = JSON.stringify(saved?.document.rule.limits.schedule ?? null);
      const takeBack = async () => {
        const undone = await save(id, before, (now) => JSON.stringify(now) === made);
        if (!undone) tell(`The times of “${name}” have been changed since. They are left as they are now.`);
        await refresh(id);
      };
      tell(
        `The draft of “${name}” has the new times.${isLive ? ' Visitors meet them with its next launch.' : ''}`,
        () => void takeBack().catch(tellProblem),
        `schedule of ${id}`,
      );
    },
    // What was dragged stays where it was let go until the list says the same.
    onSettled: (_saved, _error, { id }) => refresh(id),
  });
}
