import { useQuery } from '@tanstack/react-query';
import type { CampaignSummary } from '@velarium/contract';
import { counted, outcomeOf } from '@velarium/core';
import { Link } from 'react-router';
import { playedQuery } from '../api/rehearsals.ts';
import { cx } from '../ui/cx.ts';
import { useAtRest } from './use-at-rest.ts';

interface RehearsalsHoldProps {
  readonly siteId: string;
  readonly campaigns: readonly CampaignSummary[];
}

/** Whether what the kept rehearsals expect holds of what runs; nothing where nothing is expected. */
export function RehearsalsHold({ siteId, campaigns }: RehearsalsHoldProps) {
  const isAtRest = useAtRest();
  // Whatever becomes of a campaign is played anew.
  const stand = Math.max(0, ...campaigns.map(({ updatedAt }) => Date.parse(updatedAt)));
  const { data = [] } = useQuery({
    ...playedQuery(siteId, 'live', stand),
    enabled: isAtRest,
    // What was found stands until it is found anew.
    placeholderData: (old) => old,
  });
  const { asked, failing } = outcomeOf(data);
  const [first] = failing.length > 0 ? failing : asked;
  if (!first) return null;
  return (
    <Link
      to={`/sites/${siteId}/rehearsal?of=live&kept=${first.id}`}
      title={failing.map(({ name }) => name).join(', ')}
      className={cx(
        'whitespace-nowrap underline-offset-4 hover:underline',
        failing.length > 0 ? 'font-medium text-halt' : 'text-clear',
      )}
    >
      {failing.length > 0
        ? `■ ${failing.length} of ${counted(asked.length, 'rehearsal')} no longer ${failing.length === 1 ? 'holds' : 'hold'}`
        : `✓ ${counted(asked.length, 'rehearsal')} ${asked.length === 1 ? 'holds' : 'hold'}`}
    </Link>
  );
}
