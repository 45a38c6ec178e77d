import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { campaignQuery, leaveCampaign, presenceQuery } from '../api/queries.ts';
import { useWorkbench } from './store.ts';

const list = new Intl.ListFormat('en-GB');

/** Who else has this campaign open, so that nobody is surprised by another's change; what they save is fetched. */
export function WhoIsHere() {
  const id = useWorkbench((state) => state.id);
  const queryClient = useQueryClient();
  const revision = useWorkbench((state) => state.revision);
  const isSaved = useWorkbench((state) => state.status === 'saved');
  const { data: { others, revision: latest } = { others: [], revision } } = useQuery(presenceQuery(id));
  useEffect(() => {
    if (isSaved && latest > revision)
      void queryClient.invalidateQueries({ queryKey: campaignQuery(id).queryKey });
  }, [isSaved, latest, revision, id, queryClient]);
  useEffect(() => {
    // A closed tab sends nothing more; the server notices by itself a little later.
    const leave = () => void leaveCampaign(id).catch(() => {});
    return leave;
  }, [id]);
  if (others.length === 0) return null;
  const names = list.format(others.map(({ name }) => name));
  return (
    <p role="status" className="flex items-center gap-1.5 text-xs">
      <span aria-hidden className="size-2 rounded-full bg-sail forced-color-adjust-none" />
      {names} {others.length === 1 ? 'is' : 'are'} here too
    </p>
  );
}
