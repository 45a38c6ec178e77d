import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Campaign } from '@velarium/contract';
import { documentSentence, sentenceText } from '@velarium/core';
import { useDeferredValue, useId, useState } from 'react';
import { useNavigate } from 'react-router';
import { campaignQuery, saveDraft } from '../api/queries.ts';
import { earlierDraftQuery, earlierDraftsQuery } from '../api/versions.ts';
import { useCanEdit } from '../app/use-session.ts';
import { useNames } from '../board/use-names.ts';
import { Button } from '../ui/button.tsx';
import { ErrorState, Skeleton } from '../ui/states.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { when } from '../ui/when.ts';
import { WhatChanges } from './what-changes.tsx';

/** Every earlier draft, on a line; any of them held against what it says now, and brought back. */
export function EarlierDrafts({ campaign }: { readonly campaign: Campaign }) {
  const { id, siteId } = campaign;
  const canEdit = useCanEdit();
  const names = useNames(siteId);
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const sliderId = useId();
  const { data: drafts, error, refetch } = useQuery(earlierDraftsQuery(id));
  const [at, setAt] = useState<number>();
  const last = (drafts?.length ?? 1) - 1;
  // Begins one step back: what was there before the last change.
  const place = Math.min(at ?? Math.max(0, last - 1), last);
  const earlier = drafts?.[place];
  // The line follows the hand; what is shown follows the line.
  const revision = useDeferredValue(earlier?.revision ?? 0);
  const { data: document, isPlaceholderData } = useQuery({
    ...earlierDraftQuery(id, revision),
    enabled: earlier !== undefined,
    placeholderData: keepPreviousData,
  });
  const bringBack = useMutation({
    mutationFn: () => {
      if (!document) throw new Error('expected the draft to be there');
      return saveDraft(id, campaign.revision, document);
    },
    onError: tellProblem,
    onSuccess: (saved) => {
      queryClient.setQueryData(campaignQuery(id).queryKey, saved);
      tell(`The draft says what it said on ${when.format(new Date(earlier?.at ?? 0))}.`);
      navigate(`/sites/${siteId}/campaigns/${id}`);
    },
  });
  if (error && !drafts) return <ErrorState error={error} onRetry={() => void refetch()} />;
  if (!drafts || !earlier) return <Skeleton rows={4} label="Loading earlier drafts" />;
  const words = `${when.format(new Date(earlier.at))}${earlier.byName && `, ${earlier.byName}`}`;
  return (
    <section aria-label="Earlier drafts" className="grid content-start gap-5">
      <div>
        <label htmlFor={sliderId} className="flex flex-wrap items-baseline gap-x-3">
          <span className="font-medium">Saved {words}</span>
          <span className="text-xs text-soft">
            {place === last ? 'what it says now' : `${last - place} before what it says now`}
          </span>
        </label>
        <input
          id={sliderId}
          type="range"
          min={0}
          max={last}
          value={place}
          aria-valuetext={words}
          disabled={last === 0}
          onChange={(event) => setAt(event.target.valueAsNumber)}
          className="w-full accent-sail"
        />
        <p className="flex justify-between text-xs text-soft">
          <span>{when.format(new Date(drafts[0]?.at ?? 0))}</span>
          <span>now</span>
        </p>
        <p className="pt-1 text-xs text-soft">
          Every one of the last hour is kept, and ever fewer the older they are. What was published is kept
          for good, under its version.
        </p>
      </div>
      {document && (
        <>
          <p className="border-l-2 border-sail pl-4 font-serif text-lg leading-snug">
            {sentenceText(documentSentence(document, names))}
          </p>
          {canEdit && (
            <Button
              className="justify-self-end"
              disabled={place === last || isPlaceholderData}
              isBusy={bringBack.isPending}
              onClick={() => bringBack.mutate()}
            >
              Bring back as draft
            </Button>
          )}
          <WhatChanges
            siteId={siteId}
            before={{ name: 'Then', document }}
            after={{ name: 'The draft now', document: campaign.document }}
          />
        </>
      )}
    </section>
  );
}
