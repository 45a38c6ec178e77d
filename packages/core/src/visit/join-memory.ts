import type { CampaignMemory, Memory } from './memory.ts';

/**
 * What a page learned before the visitor agreed to be remembered, added to what is remembered from before. `stored`
 * must be in the session that goes on.
 */
export function joinMemory(stored: Memory, page: Memory): Memory {
  const { session } = stored;
  return {
    ...stored,
    session: {
      ...session,
      views: session.views + page.session.views,
      visibleMs: session.visibleMs + page.session.visibleMs,
      shown: session.shown + page.session.shown,
    },
    shownAtMs: [...stored.shownAtMs, ...page.shownAtMs].sort((a, b) => a - b),
    pages: { ...stored.pages, ...addUp(stored.pages, page.pages) },
    campaigns: {
      ...stored.campaigns,
      ...Object.fromEntries(
        Object.entries(page.campaigns).map(([id, here]) => [
          id,
          join(stored.campaigns[id], here, session.id),
        ]),
      ),
    },
  };
}

const addUp = (old: Memory['pages'], more: Memory['pages']) =>
  Object.fromEntries(Object.entries(more).map(([key, count]) => [key, count + (old[key] ?? 0)]));

function join(old: CampaignMemory | undefined, here: CampaignMemory, session: string): CampaignMemory {
  const mine: CampaignMemory = {
    ...here,
    ...(here.closedIn ? { closedIn: session } : {}),
    ...(here.refusedIn ? { refusedIn: session } : {}),
    ...(here.convertedIn ? { convertedIn: session } : {}),
    shownIn: session,
  };
  if (!old || old.epoch !== here.epoch) return mine;
  return {
    ...old,
    ...mine,
    firstAtMs: old.firstAtMs ?? here.firstAtMs,
    showings: old.showings + here.showings,
    shownAtMs: [...old.shownAtMs, ...here.shownAtMs].sort((a, b) => a - b),
    showingsInSession: (old.shownIn === session ? old.showingsInSession : 0) + here.showingsInSession,
    unanswered: old.unanswered + here.unanswered,
  };
}
