import { randomInt } from 'node:crypto';
import type { Site, SitePage, SiteSettings } from '@velarium/contract';
import { TRACKING_PARAMETERS } from '@velarium/contract/values';
import type { DataSource, EntityManager } from 'typeorm';
import { notFound } from '../infra/problem.ts';
import { SiteEntity, SitePageEntity, type SiteRow } from './entities.ts';

const DEFAULT_SETTINGS: SiteSettings = {
  sessionMinutes: 30,
  breakpoints: { mobile: 768, tablet: 1024 },
  trackingParameters: [...TRACKING_PARAMETERS],
  // Gentle from the first day; the marketer may allow more.
  limits: { perPageView: 3, perSession: 8, perDay: 12, gapSeconds: 0 },
};

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

export function createSiteService(db: DataSource) {
  const sites = db.getRepository(SiteEntity);
  const find = async (workspaceId: string, siteId: string): Promise<SiteRow> => {
    const row = await sites.findOneBy({ id: siteId, workspaceId });
    if (!row) throw notFound('site');
    return row;
  };
  return {
    async list(workspaceId: string): Promise<Site[]> {
      return (await sites.find({ where: { workspaceId }, order: { createdAt: 'ASC' } })).map(siteOf);
    },
    async get(workspaceId: string, siteId: string): Promise<Site> {
      return siteOf(await find(workspaceId, siteId));
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
    async pages(workspaceId: string, siteId: string): Promise<SitePage[]> {
      await find(workspaceId, siteId);
      const rows = await db.getRepository(SitePageEntity).find({ where: { siteId }, order: { path: 'ASC' } });
      return rows.map(({ path, title, kind }) => ({ path, title, kind }));
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
    async setOrigins(workspaceId: string, siteId: string, origins: string[]): Promise<void> {
      await sites.update({ id: siteId, workspaceId }, { origins });
    },
    async addPages(siteId: string, pages: readonly SitePage[]): Promise<void> {
      await db.getRepository(SitePageEntity).upsert(
        pages.map((page) => ({ siteId, ...page })),
        ['siteId', 'path'],
      );
    },
  };
}
export type SiteService = ReturnType<typeof createSiteService>;
