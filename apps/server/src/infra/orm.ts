import { DataSource } from 'typeorm';
import {
  AccountEntity,
  LoginSessionEntity,
  MembershipEntity,
  WorkspaceEntity,
} from '../accounts/entities.ts';
import { CampaignEntity, CampaignRevisionEntity, CampaignVersionEntity } from '../campaigns/entities.ts';
import { LeadEntity } from '../people/entities.ts';
import { MessageFileEntity, SiteManifestEntity } from '../publishing/entities.ts';
import { SiteEntity, SitePageEntity } from '../sites/entities.ts';
import { Foundation1764000000001 } from './migrations/0001-foundation.ts';

/** Connections a process holds at most. */
const POOL_SIZE = 12;

/** The database with its migrations; `synchronize` is never used. The caller initialises and destroys it. */
export function createDataSource(databaseUrl: string): DataSource {
  return new DataSource({
    type: 'postgres',
    url: databaseUrl,
    poolSize: POOL_SIZE,
    applicationName: 'velarium',
    entities: [
      AccountEntity,
      WorkspaceEntity,
      MembershipEntity,
      LoginSessionEntity,
      SiteEntity,
      SitePageEntity,
      CampaignEntity,
      CampaignRevisionEntity,
      CampaignVersionEntity,
      MessageFileEntity,
      SiteManifestEntity,
      LeadEntity,
    ],
    migrations: [Foundation1764000000001],
    migrationsTransactionMode: 'each',
    logging: ['error'],
  });
}
