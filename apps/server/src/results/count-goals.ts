import type { GoalDeed, SiteSettings } from '@velarium/contract';
import { createAddressTrial, NO_SITE_PAGES } from '@velarium/core';
import type { EntityManager } from 'typeorm';

/** What only a page that is open could tell; goals name pages by their address. */
const NOTHING_TOLD = { kind: '', holds: () => false };

const UUID_LENGTH = 36;

/** What is known of events before they are looked at one by one. */
export interface ToldOfEvents {
  readonly sites: readonly string[];
  readonly kinds: readonly string[];
  /** Viewed on sites that have goals of pages: the site's id, and behind it the page's address. */
  readonly pages: readonly string[];
}

/** Sites of which it must be known which pages were viewed. */
export async function sitesWithPageGoals(manager: EntityManager): Promise<string[]> {
  const sites: { id: string }[] = await manager.query(
    `SELECT DISTINCT site_id AS id FROM goal WHERE deed ->> 'kind' = 'page'`,
  );
  return sites.map(({ id }) => id);
}

/**
 * Notes who reached which goal, among the events of transactions from one to before another, none older than `since`. Pages are
 * told apart by the very rules that say where campaigns appear.
 */
export async function countGoals(
  manager: EntityManager,
  { from, upTo, since }: { readonly from: string; readonly upTo: number; readonly since: string },
  { sites, kinds, pages: viewed }: ToldOfEvents,
): Promise<void> {
  const goals: {
    id: string;
    siteId: string;
    deed: GoalDeed;
    settings: SiteSettings;
    origins: string[];
  }[] = await manager.query(
    `SELECT goal.id, site_id AS "siteId", deed, settings, origins FROM goal JOIN site ON site.id = goal.site_id
      WHERE site_id = ANY($1)`,
    [sites],
  );
  if (goals.length === 0) return;
  // An answer's id is that of the event it converted with; a link that was followed is none.
  if (kinds.includes('converted'))
    await manager.query(
      `INSERT INTO goal_reached (goal_id, visitor, at)
       SELECT goal.id, e.visitor, e.at FROM event e JOIN goal ON goal.site_id = e.site_id AND goal.deed ->> 'kind' = 'answer'
         JOIN lead ON lead.id = e.id
        WHERE e.tx >= $1 AND e.tx < $2 AND e.at >= $3 AND e.kind = 'converted' ON CONFLICT DO NOTHING`,
      [from, upTo, since],
    );
  // A page may name any goal: only one of its own site, of events, is reached by it.
  if (kinds.includes('reached'))
    await manager.query(
      `INSERT INTO goal_reached (goal_id, visitor, at, worth)
       SELECT goal.id, e.visitor, e.at, e.worth FROM event e
         JOIN goal ON goal.id = e.goal AND goal.site_id = e.site_id AND goal.deed ->> 'kind' = 'event'
        WHERE e.tx >= $1 AND e.tx < $2 AND e.at >= $3 AND e.kind = 'reached' ON CONFLICT DO NOTHING`,
      [from, upTo, since],
    );
  const ofPages = goals.flatMap(({ deed, ...goal }) =>
    deed.kind === 'page' ? [{ ...goal, pages: deed.pages }] : [],
  );
  const seen = viewed.map((one) => ({ siteId: one.slice(0, UUID_LENGTH), page: one.slice(UUID_LENGTH) }));
  const reached = ofPages.flatMap(
    ({ id, siteId, pages, settings, origins: [origin = 'https://site.example'] }) => {
      const trial = createAddressTrial(
        { include: pages, exclude: [], follows: null },
        { settings, pages: NO_SITE_PAGES },
      );
      return seen.flatMap(({ siteId: of, page }) =>
        of === siteId && trial(origin + page, NOTHING_TOLD).fit === 'fits' ? [{ id, siteId, page }] : [],
      );
    },
  );
  if (reached.length === 0) return;
  await manager.query(
    `INSERT INTO goal_reached (goal_id, visitor, at)
     SELECT hit.id, e.visitor, e.at FROM unnest($4::uuid[], $5::uuid[], $6::text[]) AS hit (id, site_id, page)
       JOIN event e ON e.site_id = hit.site_id AND e.page = hit.page
      WHERE e.tx >= $1 AND e.tx < $2 AND e.at >= $3 AND e.kind = 'pageview' ON CONFLICT DO NOTHING`,
    [
      from,
      upTo,
      since,
      reached.map(({ id }) => id),
      reached.map(({ siteId }) => siteId),
      reached.map(({ page }) => page),
    ],
  );
}
