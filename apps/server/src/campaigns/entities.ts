import type { CampaignDocument, KeptForecast } from '@velarium/contract';
import type { Allotment, StoredState } from '@velarium/core';
import { EntitySchema } from 'typeorm';

export interface CampaignRow {
  id: string;
  workspaceId: string;
  siteId: string;
  name: string;
  state: StoredState;
  stateBeforeArchive: Exclude<StoredState, 'archived'> | null;
  labels: string[];
  /** For the team; visitors never see it. */
  note: string;
  draft: CampaignDocument;
  /** Counts the saves of the draft; a save made on an older one is refused. */
  revision: number;
  liveVersion: number | null;
  /** Times its caps were begun afresh. */
  capEpoch: number;
  publishedRevision: number | null;
  /** How its visitors are divided between its messages; a new division begins from it. */
  allotment: Allotment | null;
  /** The goals it is measured by; all of its site where it says nothing. */
  goals: string[] | null;
  createdAt: Date;
  updatedAt: Date;
}
export const CampaignEntity = new EntitySchema<CampaignRow>({
  name: 'Campaign',
  tableName: 'campaign',
  columns: {
    id: { type: 'uuid', primary: true, generated: 'uuid' },
    workspaceId: { type: 'uuid', name: 'workspace_id' },
    siteId: { type: 'uuid', name: 'site_id' },
    name: { type: 'text' },
    state: { type: 'text' },
    labels: { type: 'text', array: true, default: '{}' },
    note: { type: 'text', default: '' },
    stateBeforeArchive: { type: 'text', name: 'state_before_archive', nullable: true },
    draft: { type: 'jsonb' },
    revision: { type: 'integer', default: 0 },
    liveVersion: { type: 'integer', name: 'live_version', nullable: true },
    capEpoch: { type: 'integer', name: 'cap_epoch', default: 0 },
    publishedRevision: { type: 'integer', name: 'published_revision', nullable: true },
    allotment: { type: 'jsonb', nullable: true },
    goals: { type: 'uuid', array: true, nullable: true },
    createdAt: { type: 'timestamptz', name: 'created_at', createDate: true },
    updatedAt: { type: 'timestamptz', name: 'updated_at', updateDate: true },
  },
});

export interface CampaignRevisionRow {
  campaignId: string;
  revision: number;
  draft: CampaignDocument;
  savedBy: string | null;
  savedAt: Date;
}
export const CampaignRevisionEntity = new EntitySchema<CampaignRevisionRow>({
  name: 'CampaignRevision',
  tableName: 'campaign_revision',
  columns: {
    campaignId: { type: 'uuid', name: 'campaign_id', primary: true },
    revision: { type: 'integer', primary: true },
    draft: { type: 'jsonb' },
    savedBy: { type: 'uuid', name: 'saved_by', nullable: true },
    savedAt: { type: 'timestamptz', name: 'saved_at', createDate: true },
  },
});

/** A published campaign, frozen. */
export interface CampaignVersionRow {
  campaignId: string;
  version: number;
  document: CampaignDocument;
  publishedBy: string | null;
  publishedAt: Date;
  /** What was foreseen of it, where that was known. */
  forecast: KeptForecast | null;
}
export const CampaignVersionEntity = new EntitySchema<CampaignVersionRow>({
  name: 'CampaignVersion',
  tableName: 'campaign_version',
  columns: {
    campaignId: { type: 'uuid', name: 'campaign_id', primary: true },
    version: { type: 'integer', primary: true },
    document: { type: 'jsonb' },
    publishedBy: { type: 'uuid', name: 'published_by', nullable: true },
    publishedAt: { type: 'timestamptz', name: 'published_at', createDate: true },
    forecast: { type: 'jsonb', nullable: true },
  },
});
