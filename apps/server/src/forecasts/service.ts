import type {
  Browser,
  Device,
  RecordedPage,
  System,
  Traffic,
  TrafficQuestion,
  TrafficVisitor,
} from '@velarium/contract';
import { MOST_PAGES_OF_VISITOR } from '@velarium/contract/values';
import { reckonVisitors } from '@velarium/core';
import type { DataSource } from 'typeorm';
import { sourceOfVisit } from '../infra/referrer-kind.ts';
import type { SiteService } from '../sites/index.ts';

interface ForecastServices {
  readonly db: DataSource;
  readonly sites: SiteService;
}
interface ViewRow {
  readonly visitor: string;
  readonly atMs: string;
  readonly page: string;
  readonly device: Device;
  readonly seconds: number | null;
  readonly depth: number | null;
}
interface VisitRow {
  readonly visitor: string;
  readonly number: number | null;
  readonly landing: string | null;
  readonly referrer: string | null;
  readonly country: string | null;
  readonly languages: string | null;
  readonly browser: Browser | null;
  readonly system: System | null;
  readonly signedIn: boolean | null;
  readonly items: number | null;
  readonly total: number | null;
}

/** What was recorded of a site's visitors, so that core can replay it. Nobody's id leaves the server. */
export function createForecastService({ db, sites }: ForecastServices) {
  return {
    /** Ids of visitors are random, so those of the smallest ids are a fair sample. */
    async traffic(workspaceId: string, siteId: string, { days, most }: TrafficQuestion): Promise<Traffic> {
      await sites.get(workspaceId, siteId);
      const since = new Date(Date.now() - days * 86_400_000);
      const views: ViewRow[] = await db.query(
        `SELECT e.visitor, (extract(epoch FROM e.at) * 1000)::bigint AS "atMs", e.page, e.device, s.seconds, s.depth
           FROM event e LEFT JOIN page_stay s ON s.site_id = e.site_id AND s.view = e.id
          WHERE e.site_id = $1 AND e.kind = 'pageview' AND e.at >= $2
          ORDER BY e.visitor, e.at LIMIT $3`,
        [siteId, since, most + 1],
      );
      const byVisitor = new Map<string, ViewRow[]>();
      for (const view of views) byVisitor.set(view.visitor, [...(byVisitor.get(view.visitor) ?? []), view]);
      const isSample = views.length > most;
      // Of the last one there may be more pages than were read.
      const boundary = isSample ? (views.at(-1)?.visitor ?? '') : '';
      byVisitor.delete(boundary);
      const begun = await firstVisits(siteId, since, [...byVisitor.keys()].at(-1));
      return {
        days,
        visitors: isSample ? reckonVisitors(byVisitor.size, boundary) : byVisitor.size,
        isSample,
        list: [...byVisitor].map(([visitor, pages]) =>
          visitorOf(pages.slice(0, MOST_PAGES_OF_VISITOR), begun.get(visitor)),
        ),
      };
    },
  };

  /** The first visit of each visitor up to `last`, as they came. */
  async function firstVisits(
    siteId: string,
    since: Date,
    last: string | undefined,
  ): Promise<ReadonlyMap<string, VisitRow>> {
    if (last === undefined) return new Map();
    const rows: VisitRow[] = await db.query(
      `SELECT DISTINCT ON (visitor) visitor, number, landing, referrer, country, languages, browser, system,
              signed_in AS "signedIn", basket_items AS items, basket_total AS total
         FROM visit WHERE site_id = $1 AND started_at >= $2::timestamptz - interval '1 day' AND visitor <= $3
        ORDER BY visitor, started_at`,
      [siteId, since, last],
    );
    return new Map(rows.map((row) => [row.visitor, row]));
  }
}
export type ForecastService = ReturnType<typeof createForecastService>;

function visitorOf(views: readonly ViewRow[], visit: VisitRow | undefined): TrafficVisitor {
  const query = Object.fromEntries(new URLSearchParams(visit?.landing?.split('?')[1] ?? ''));
  const referrer = visit?.referrer ?? '';
  return {
    device: views[0]?.device ?? 'desktop',
    browser: visit?.browser ?? 'other',
    system: visit?.system ?? 'other',
    source: sourceOfVisit(referrer, query),
    referrer,
    session: visit?.number ?? 1,
    signedIn: visit?.signedIn ?? null,
    basket: visit && visit.items !== null ? { items: visit.items, total: visit.total ?? 0 } : null,
    country: visit?.country ?? null,
    language: visit?.languages?.split(',')[0] || 'en',
    pages: views.map(
      ({ page, atMs, seconds, depth }): RecordedPage => ({ path: page, atMs: Number(atMs), seconds, depth }),
    ),
  };
}
