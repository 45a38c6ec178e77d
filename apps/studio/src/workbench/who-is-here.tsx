import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { leaveCampaign, presenceQuery } from '../api/queries.ts';
import { useWorkbench } from './store.ts';

const list = new Intl.ListFormat('en-GB');

/** Who else has this campaign open, so that nobody is surprised by another's change. */
export function WhoIsHere() {
  const id = useWorkbench((state) => state.id);
  const { data: others = [] } = useQuery(presenceQuery(id));
  useEffect(() => {
    // A closed tab sends nothing more; the server notices by itself a little later.
    const leave = () => void leaveCampaign(id).catch(() => {});
    return leave;
  }, [id]);
  if (others.length === 0) return null;
  const names = list.format(others.map(({ name }) => name));
  return (
    <p role="status" className="flex items-center gap-1.5 text-xs">
      <span aria-hidden className="size-2 rounded-full bg-sail" />
      {names} {others.length === 1 ? 'is' : 'are'} here too
    </p>
  );
}
