import { useQuery } from '@tanstack/react-query';
import type { Audience } from '@velarium/contract';
import { audienceShareWords, shareInside } from '@velarium/core';
import { audienceShareQuery } from '../../../api/queries.ts';
import { Button } from '../../../ui/button.tsx';
import { useWorkbench, useWorkbenchLater } from '../../store.ts';

/** How many of the last 30 days' visitors would have been in the audience. */
export function AudienceShare() {
  const audience = useWorkbenchLater((state) => state.document.rule.reach.audience);
  return audience && <Share audience={audience} />;
}

function Share({ audience }: { readonly audience: Audience }) {
  const siteId = useWorkbench((state) => state.siteId);
  const campaign = useWorkbench((state) => state.id);
  const { data, error, isPlaceholderData, refetch } = useQuery({
    ...audienceShareQuery(siteId, { audience, campaign }),
    placeholderData: (old) => old,
  });
  if (error) {
    return (
      <p role="alert">
        The visitors could not be counted.{' '}
        <Button className="h-7" onClick={() => void refetch()}>
          Try again
        </Button>
      </p>
    );
  }
  const share = data ? shareInside(data) : 0;
  return (
    <div className="grid gap-1.5">
      <div aria-hidden className="h-1.5 bg-line forced-color-adjust-none">
        <div className="h-full bg-sail" style={{ inlineSize: `${share * 100}%` }} />
      </div>
      <p role="status" className="text-soft tabular-nums">
        {data ? audienceShareWords(data) : 'Counting visitors …'}
        {isPlaceholderData && ' Counting anew …'}
      </p>
    </div>
  );
}
