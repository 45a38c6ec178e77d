import { randomInt } from 'node:crypto';
import type {
  AudienceQuestion,
  AudienceShare,
  ElementQuestion,
  ElementSeen,
  ManifestsRun,
  PageReading,
  ParameterSeen,
  SaveSite,
  SeenPage,
  SeenValues,
  Site,
  SitePage,
  SiteSettings,
  StayHistograms,
  StayQuestion,
} from '@velarium/contract';
import { TRACKING_PARAMETERS } from '@velarium/contract/values';
import { countedPath } from '@velarium/core';
import type { DataSource, EntityManager } from 'typeorm';
import type { JobData, Jobs } from '../infra/jobs.ts';
import type { ReadOutside } from '../infra/outside.ts';
import { notFound } from '../infra/problem.ts';
import { readAudienceShare, readParameters, readSeenValues, readStays } from '../results/index.ts';
import { type CataloguePage, cataloguePath, readCatalogue } from './catalogue.ts';
import { SiteEntity, SitePageEntity, type SiteRow } from './entities.ts';
import { findElements } from './find-elements.ts';
import { createPageGroups } from './page-groups.ts';
import { createPageReadings } from './page-readings.ts';
import { createPageSights, type Sight } from './page-sights.ts';
import { readPolicies } from './read-policy.ts';

const DEFAULT_SETTINGS: SiteSettings = {
  sessionMinutes: 30,
  breakpoints: { mobile: 768, tablet: 1024 },
  trackingParameters: [...TRACKING_PARAMETERS],
  pageParameters: [],
  // Gentle from the first day; the marketer may allow more.
  limits: { perPageView: 3, perSession: 8, perDay: 12, gapSeconds: 0 },
  privacy: { memory: 'assumed', honoursSignal: true },
  hashRoutes: false,
  sharedDomain: null,
  recordedFacts: null,
};

/** Rows in one statement. */
const PAGES_AT_ONCE = 1000;

const KEY_LETTERS = 'abcdefghijkmnpqrstuvwxyz23456789';
const newKey = () => Array.from({ length: 12 }, () => KEY_LETTERS[randomInt(KEY_LETTERS.length)]).join('');

const siteOf = (row: SiteRow): Site => ({
  id: row.id,
  key: row.key,
  name: row.name,
  origins: row.origins,
  timeZone: row.timeZone,
  settings: row.settings,
  lastSeenAt: row.lastSeenAt?.toISOString() ?? null,
});

export interface NewSite {
  readonly name: string;
  readonly origins: string[];
  readonly timeZone: string;
  readonly key?: string;
}

export function createSiteService(db: DataSource, jobs: Jobs, outside: ReadOutside) {
  const readings = createPageReadings(db, jobs, outside, async (siteId, { pages }) => {
    await db.getRepository(SitePageEntity).delete({ siteId, source: 'sitemap' });
    await addPages(siteId, pages);
  });
  const sights = createPageSights(db);
  const sites = db.getRepository(SiteEntity);
  const find = async (workspaceId: string, siteId: string): Promise<SiteRow> => {
    const row = await sites.findOneBy({ id: siteId, workspaceId });
    if (!row) throw notFound('site');
    return row;
  };
  async function addPages(siteId: string, pages: readonly CataloguePage[]): Promise<void> {
    for (let at = 0; at < pages.length; at += PAGES_AT_ONCE) {
      await db.getRepository(SitePageEntity).upsert(
        pages.slice(at, at + PAGES_AT_ONCE).map((page) => ({ siteId, source: 'sitemap' as const, ...page })),
        ['siteId', 'path'],
      );
    }
  }

  return {
    async list(workspaceId: string): Promise<Site[]> {
      return (await sites.find({ where: { workspaceId }, order: { createdAt: 'ASC' } })).map(siteOf);
    },
    async get(workspaceId: string, siteId: string): Promise<Site> {
      return siteOf(await find(workspaceId, siteId));
    },
    /** The site's time zone, read over the caller's own connection. */
    async zoneOf(manager: EntityManager, siteId: string): Promise<string> {
      const row = await manager.getRepository(SiteEntity).findOneBy({ id: siteId });
      if (!row) throw notFound('site');
      return row.timeZone;
    },
    /** Days that answers are kept; `null` for ever. */
    async keptDays(workspaceId: string, siteId: string): Promise<number | null> {
      return (await find(workspaceId, siteId)).answersKeptDays;
    },
    async keepAnswers(workspaceId: string, siteId: string, days: number | null): Promise<void> {
      await find(workspaceId, siteId);
      await sites.update({ id: siteId }, { answersKeptDays: days });
    },
    /** Days that single events are kept; `null` for ever. */
    async keptEventsDays(workspaceId: string, siteId: string): Promise<number | null> {
      return (await find(workspaceId, siteId)).eventsKeptDays;
    },
    async keepEvents(workspaceId: string, siteId: string, days: number | null): Promise<void> {
      await find(workspaceId, siteId);
      await sites.update({ id: siteId }, { eventsKeptDays: days });
    },
    /** Holds back every other publish of the site until the caller's transaction ends. */
    async lock(manager: EntityManager, workspaceId: string, siteId: string): Promise<SiteRow> {
      const row = await manager
        .getRepository(SiteEntity)
        .findOne({ where: { id: siteId, workspaceId }, lock: { mode: 'pessimistic_write' } });
      if (!row) throw notFound('site');
      return row;
    },
    /** For the public edge only: a site key is public and names one site. */
    async findByKey(key: string): Promise<SiteRow | undefined> {
      return (await sites.findOneBy({ key })) ?? undefined;
    },
    /** How the reading of the site's pages goes on, if one was ever asked for. */
    async reading(workspaceId: string, siteId: string): Promise<PageReading | null> {
      await find(workspaceId, siteId);
      return readings.find(siteId);
    },
    /** Asks the worker to find the site's pages and put them into the catalogue; what was there by other ways stays. */
    async beginReading(
      workspaceId: string,
      siteId: string,
      sitemap: string | null,
    ): Promise<PageReading | null> {
      await find(workspaceId, siteId);
      return readings.begin(siteId, sitemap);
    },
    async stopReading(workspaceId: string, siteId: string): Promise<PageReading | null> {
      await find(workspaceId, siteId);
      return readings.stop(siteId);
    },
    /** For the worker. */
    async readPages(job: JobData['read-pages']): Promise<void> {
      const site = await sites.findOneBy({ id: job.siteId });
      if (site) await readings.read(job, site);
    },
    async pages(workspaceId: string, siteId: string): Promise<SitePage[]> {
      const { settings } = await find(workspaceId, siteId);
      return readCatalogue(db, siteId, settings);
    },
    /** On how many of these pages there are such elements, as their source has them. */
    async elements(workspaceId: string, siteId: string, question: ElementQuestion): Promise<ElementSeen[]> {
      const { origins } = await find(workspaceId, siteId);
      return findElements(outside, origins[0] ?? '', question.paths, question.selectors);
    },
    /** The policies of the site's home page, for what they say of the tag. */
    async policies(workspaceId: string, siteId: string): Promise<string[] | null> {
      const { origins } = await find(workspaceId, siteId);
      return readPolicies(outside, origins[0] ?? '');
    },
    async stays(workspaceId: string, siteId: string, question: StayQuestion): Promise<StayHistograms> {
      const { settings } = await find(workspaceId, siteId);
      const counted = countedPath(settings);
      return readStays(db, siteId, {
        ...question,
        paths: question.paths && [...new Set(question.paths.map(counted))],
      });
    },
    async audienceShare(
      workspaceId: string,
      siteId: string,
      question: AudienceQuestion,
    ): Promise<AudienceShare> {
      await find(workspaceId, siteId);
      return readAudienceShare(db, siteId, question);
    },
    /** Page views of the last two weeks' days, UTC, the latest last, today left out. */
    async viewsByDay(workspaceId: string, siteId: string): Promise<number[]> {
      await find(workspaceId, siteId);
      const rows: { views: string }[] = await db.query(
        `SELECT coalesce(sum(views), 0) AS views
           FROM generate_series((now() AT TIME ZONE 'UTC')::date - 14, (now() AT TIME ZONE 'UTC')::date - 1, interval '1 day') AS days (day)
           LEFT JOIN page_day ON page_day.day = days.day AND site_id = $1
          GROUP BY days.day ORDER BY days.day`,
        [siteId],
      );
      return rows.map(({ views }) => Number(views));
    },
    /** Keeps what a page of a site looks like in a browser; `address` is where it was seen. */
    async keepSight(siteId: string, sight: Sight): Promise<void> {
      const site = await sites.findOneByOrFail({ id: siteId });
      const { pathname, search } = new URL(sight.address);
      await sights.keep(siteId, cataloguePath(site.settings)(pathname + search), sight);
    },
    async sights(workspaceId: string, siteId: string): Promise<SeenPage[]> {
      await find(workspaceId, siteId);
      return sights.list(siteId);
    },
    async sight(workspaceId: string, siteId: string, path: string): Promise<Sight> {
      await find(workspaceId, siteId);
      const sight = await sights.find(siteId, path);
      if (!sight) throw notFound('page');
      return sight;
    },
    async manifestsRun(workspaceId: string, siteId: string): Promise<ManifestsRun> {
      await find(workspaceId, siteId);
      const [row]: { calls: string; outdated: string; oldest: Date | null }[] = await db.query(
        `SELECT coalesce(sum(calls), 0) AS calls, coalesce(sum(outdated), 0) AS outdated, min(oldest) AS oldest
           FROM manifest_day WHERE site_id = $1 AND day >= (now() AT TIME ZONE 'UTC')::date - 1`,
        [siteId],
      );
      return {
        calls: Number(row?.calls),
        outdated: Number(row?.outdated),
        oldest: row?.oldest?.toISOString() ?? null,
      };
    },
    async seenValues(workspaceId: string, siteId: string): Promise<SeenValues> {
      await find(workspaceId, siteId);
      return readSeenValues(db, siteId);
    },
    /** Parameters in the addresses of the last week's page views, the most frequent first. */
    async parametersSeen(workspaceId: string, siteId: string): Promise<ParameterSeen[]> {
      const { settings } = await find(workspaceId, siteId);
      return readParameters(db, siteId, settings);
    },
    async create(workspaceId: string, { name, origins, timeZone, key = newKey() }: NewSite): Promise<Site> {
      const row = await sites.save({
        workspaceId,
        name,
        origins,
        timeZone,
        key,
        settings: DEFAULT_SETTINGS,
        lastSeenAt: null,
      });
      return siteOf(row);
    },
    async change(workspaceId: string, siteId: string, { name, origins, timeZone }: SaveSite): Promise<Site> {
      await find(workspaceId, siteId);
      await sites.update({ id: siteId, workspaceId }, { name, origins, timeZone });
      return siteOf(await find(workspaceId, siteId));
    },
    /** Notes that the tag was heard from, to the minute. */
    async noteSeen(siteId: string): Promise<void> {
      await db.query(
        `UPDATE site SET last_seen_at = now()
          WHERE id = $1 AND (last_seen_at IS NULL OR last_seen_at < now() - interval '1 minute')`,
        [siteId],
      );
    },
    async removePage(workspaceId: string, siteId: string, path: string): Promise<void> {
      await find(workspaceId, siteId);
      const { affected } = await db.getRepository(SitePageEntity).delete({ siteId, path });
      if (!affected) throw notFound('page');
    },
    /** Changes what the tag must know of the site. */
    async setSettings(workspaceId: string, siteId: string, settings: SiteSettings): Promise<Site> {
      await find(workspaceId, siteId);
      await sites.update({ id: siteId, workspaceId }, { settings });
      return siteOf(await find(workspaceId, siteId));
    },
    groups: createPageGroups(db),
    async setOrigins(workspaceId: string, siteId: string, origins: string[]): Promise<void> {
      await sites.update({ id: siteId, workspaceId }, { origins });
    },
    addPages,
  };
}
export type SiteService = ReturnType<typeof createSiteService>;
