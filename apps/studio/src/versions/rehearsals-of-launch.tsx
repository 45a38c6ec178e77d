import { useQuery } from '@tanstack/react-query';
import { counted, outcomeOf } from '@velarium/core';
import { Link } from 'react-router';
import { playedQuery } from '../api/rehearsals.ts';
import { SinceHeld } from '../rehearsal/since-held.tsx';

interface RehearsalsOfLaunchProps {
  readonly siteId: string;
  readonly campaignId: string;
  /** Of the draft that is launched. */
  readonly revision: number;
}

/** What becomes of the kept rehearsals once this draft is published: what must hold, and what would not. */
export function RehearsalsOfLaunch({ siteId, campaignId, revision }: RehearsalsOfLaunchProps) {
  const { data, isPending, error } = useQuery(playedQuery(siteId, campaignId, revision));
  if (error) return <p className="text-halt">The rehearsals could not be played: {error.message}</p>;
  if (isPending) return <p className="text-soft">Playing the kept rehearsals …</p>;
  const { asked, failing } = outcomeOf(data);
  if (asked.length === 0) return null;
  return (
    <section aria-label="Rehearsals" className="grid gap-1">
      {failing.length === 0 ? (
        <p className="text-clear">✓ {counted(asked.length, 'rehearsal')} held.</p>
      ) : (
        <>
          <p className="font-semibold text-hold">
            ◇ Of {counted(asked.length, 'rehearsal')}, {failing.length} would not hold
          </p>
          <ul className="grid gap-1">
            {failing.map(({ id, name, expectations, since }) => (
              <li key={id} className="border-b border-line pb-1">
                <Link
                  to={`/sites/${siteId}/rehearsal?of=${campaignId}&kept=${id}`}
                  className="font-medium underline underline-offset-4"
                >
                  {name}
                </Link>
                {expectations
                  .filter(({ holds }) => !holds)
                  .map(({ words, why }) => (
                    <span key={words} className="block">
                      {words}: <span className="text-soft">{why}</span>
                    </span>
                  ))}
                <SinceHeld since={since} />
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
