import type { CampaignSummary } from '@velarium/contract';
import { type Attention, attentionOf } from '@velarium/core';
import { lazy, type ReactNode, Suspense, useMemo, useState } from 'react';
import { useAtRest } from './use-at-rest.ts';

const Collisions = lazy(async () => ({ default: (await import('./collisions.tsx')).Collisions }));

export interface BoardAttention {
  /** What wants a look, by campaign. */
  readonly of: ReadonlyMap<string, readonly Attention[]>;
  /** The campaigns of which the list itself says so. */
  readonly pressing: ReadonlySet<string>;
}

/** What of the campaigns wants a look; `node` is to be drawn somewhere. */
export function useAttention(
  siteId: string,
  campaigns: readonly CampaignSummary[] | undefined,
): { readonly attention: BoardAttention; readonly node: ReactNode } {
  const [nowMs] = useState(Date.now);
  const [collisions, setCollisions] = useState<ReadonlyMap<string, string>>(new Map());
  const isAtRest = useAtRest();
  // Who else runs, or was changed, is looked at anew.
  const running = (campaigns ?? [])
    .filter(({ state }) => state === 'running')
    .map(({ id, publishedAt }) => `${id} ${publishedAt}`);
  const attention = useMemo(() => {
    const of = new Map<string, readonly Attention[]>();
    const pressing = new Set<string>();
    for (const campaign of campaigns ?? []) {
      const text = collisions.get(campaign.id);
      const told = attentionOf(campaign, nowMs);
      if (told.length > 0) pressing.add(campaign.id);
      const all: Attention[] = [...told, ...(text ? [{ kind: 'colliding' as const, text }] : [])];
      if (all.length > 0) of.set(campaign.id, all);
    }
    return { of, pressing };
  }, [campaigns, collisions, nowMs]);
  const node = isAtRest && running.length > 1 && (
    <Suspense>
      <Collisions key={running.join()} siteId={siteId} onFound={setCollisions} />
    </Suspense>
  );
  return { attention, node };
}
