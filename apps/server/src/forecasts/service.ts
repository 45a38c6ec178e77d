import type {
  Browser,
  Device,
  Foreseen,
  RecordedPage,
  System,
  Traffic,
  TrafficQuestion,
  TrafficVisitor,
} from '@velarium/contract';
import { MOST_PAGES_OF_VISITOR } from '@velarium/contract/values';
import { reckonVisitors } from '@velarium/core';
import type { DataSource } from 'typeorm';
import type { Reader, Reads } from '../infra/reader.ts';
import { sourceOfVisit } from '../infra/referrer-kind.ts';
import { countEvents } from '../results/index.ts';
import type { SiteService } from '../sites/index.ts';

const DAY_MS = 86_400_000;
/** Launches that are held against what came, at most. */
const LAUNCHES_LISTED = 50;

interface ForecastServices {
  readonly db: DataSource;
  readonly reader: Reader;
  readonly sites: SiteService;
}
interface LaunchRow extends Pick<Foreseen, 'campaign' | 'name' | 'version' | 'forecast'> {
  readonly at: Date;
  /** When it ran no more as it was foreseen. */
  readonly until: Date;
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
export function createForecastService({ db, reader, sites }: ForecastServices) {
  return {
    /** Launches of a site with what was foreseen of them, the newest first, held against what came. */
    async foreseen(workspaceId: string, siteId: string): Promise<Foreseen[]> {
      await sites.get(workspaceId, siteId);
      await countEvents(db);
      const rows: LaunchRow[] = await db.query(
        `SELECT v.campaign_id AS campaign, c.name, v.version, v.published_at AS at, v.forecast, least(
                  (SELECT min(m.at) FROM campaign_move m WHERE m.campaign_id = c.id
                      AND (m.what = 'rested' OR m.what = 'published' AND m.version <> v.version) AND m.at > v.published_at),
                  v.published_at + jsonb_array_length(v.forecast -> 'byDay') * interval '1 day') AS until
           FROM campaign_version v JOIN campaign c ON c.id = v.campaign_id
          WHERE c.site_id = $1 AND v.forecast IS NOT NULL ORDER BY v.published_at DESC LIMIT ${LAUNCHES_LISTED}`,
        [siteId],
      );
      const met: { campaign: string; version: number; day: number; visitors: number }[] = await db.query(
        `SELECT campaign, version, day, count(*)::integer AS visitors FROM (
           SELECT launch.campaign, launch.version, d.visitor,
                  floor(extract(epoch FROM min(d.first_at) - launch.at) / 86400)::integer AS day
             FROM unnest($1::uuid[], $2::integer[], $3::timestamptz[], $4::timestamptz[])
               AS launch (campaign, version, at, until)
             JOIN visitor_day d ON d.campaign_id = launch.campaign AND d.kind = 'shown'
              -- A day of the site's own clock may be a day of another date here. That there is one at all opens the index over days.
              AND d.day >= launch.at::date - 1 AND d.day > '-infinity'
              AND d.first_at >= launch.at AND d.first_at < launch.until
            GROUP BY launch.campaign, launch.version, launch.at, d.visitor) AS first
          GROUP BY campaign, version, day`,
        [
          rows.map(({ campaign }) => campaign),
          rows.map(({ version }) => version),
          rows.map(({ at }) => at),
          rows.map(({ until }) => until),
        ],
      );
      const nowMs = Date.now();
      return rows.map(({ until, ...launch }) => {
        const untilMs = Math.min(nowMs, until.getTime());
        const ofLaunch = met.filter(
          ({ campaign, version }) => campaign === launch.campaign && version === launch.version,
        );
        return {
          ...launch,
          at: launch.at.toISOString(),
          came: Array.from({ length: Math.floor((untilMs - launch.at.getTime()) / DAY_MS) }, (_, day) =>
            ofLaunch.reduce((sum, one) => sum + (one.day <= day ? one.visitors : 0), 0),
          ),
          isOver: until.getTime() <= nowMs,
        };
      });
    },

    /** Ids of visitors are random, so those of the smallest ids are a fair sample. */
    async traffic(workspaceId: string, siteId: string, { days, most }: TrafficQuestion): Promise<Traffic> {
      await sites.get(workspaceId, siteId);
      const since = new Date(Date.now() - days * 86_400_000);
      const reads = await reader.current();
      const views: ViewRow[] = await reads.query(
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
      const begun = await firstVisits(reads, siteId, since, [...byVisitor.keys()].at(-1));
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
    reads: Reads,
    siteId: string,
    since: Date,
    last: string | undefined,
  ): Promise<ReadonlyMap<string, VisitRow>> {
    if (last === undefined) return new Map();
    const rows: VisitRow[] = await reads.query(
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
