import { useQuery } from '@tanstack/react-query';
import { untoldOfGroups } from '@velarium/core';
import { Link } from 'react-router';
import { groupsQuery } from '../api/queries.ts';
import { useSite } from '../site/use-site.ts';

/** Which of the site's page groups its visitors cannot be told apart by, and why; nothing where all can. */
export function UntoldOfGroups({ siteId }: { readonly siteId: string }) {
  const site = useSite(siteId);
  // As they are by now: visitors were told apart by those.
  const { data: groups = [] } = useQuery({ ...groupsQuery(siteId), refetchOnMount: 'always' });
  const untold = site ? untoldOfGroups(groups, site) : [];
  if (untold.length === 0) return null;
  return (
    <div className="grid max-w-2xl gap-1 text-soft">
      <p>Some of the site’s groups say nothing of these visitors:</p>
      <ul aria-label="What cannot be told by page group" className="list-disc pl-5">
        {untold.map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
      </ul>
      <p>
        Parameters that tell pages apart are named under{' '}
        <Link to={`/sites/${siteId}/site?tab=settings`} className="underline underline-offset-4">
          Site, What holds here
        </Link>
        , and count from then on.
      </p>
    </div>
  );
}
