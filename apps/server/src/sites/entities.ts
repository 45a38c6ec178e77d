import type { SiteSettings } from '@velarium/contract';
import { EntitySchema } from 'typeorm';

export interface SiteRow {
  id: string;
  workspaceId: string;
  key: string;
  name: string;
  origins: string[];
  timeZone: string;
  settings: SiteSettings;
  lastSeenAt: Date | null;
  /** Days that answers are kept; `null` for ever. */
  answersKeptDays: number | null;
  /** Days that single events are kept; `null` for ever. Reports are counted and stay. */
  eventsKeptDays: number | null;
  /** Its events of before this day are gone. */
  eventsGoneUntil: string | null;
  createdAt: Date;
}
export const SiteEntity = new EntitySchema<SiteRow>({
  name: 'Site',
  tableName: 'site',
  columns: {
    id: { type: 'uuid', primary: true, generated: 'uuid' },
    workspaceId: { type: 'uuid', name: 'workspace_id' },
    key: { type: 'text' },
    name: { type: 'text' },
    origins: { type: 'text', array: true },
    timeZone: { type: 'text', name: 'time_zone' },
    settings: { type: 'jsonb' },
    lastSeenAt: { type: 'timestamptz', name: 'last_seen_at', nullable: true },
    answersKeptDays: { type: 'integer', name: 'answers_kept_days', nullable: true },
    eventsKeptDays: { type: 'integer', name: 'events_kept_days', nullable: true },
    eventsGoneUntil: { type: 'date', name: 'events_gone_until', nullable: true },
    createdAt: { type: 'timestamptz', name: 'created_at', createDate: true },
  },
});

export interface SitePageRow {
  siteId: string;
  path: string;
  title: string;
  kind: string | null;
  source: 'sitemap' | 'hand' | 'file';
}
export const SitePageEntity = new EntitySchema<SitePageRow>({
  name: 'SitePage',
  tableName: 'site_page',
  columns: {
    siteId: { type: 'uuid', name: 'site_id', primary: true },
    path: { type: 'text', primary: true },
    title: { type: 'text' },
    kind: { type: 'text', nullable: true },
    source: { type: 'text', default: 'sitemap' },
  },
});
