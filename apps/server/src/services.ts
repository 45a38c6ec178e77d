import type { DataSource } from 'typeorm';
import { createAccountService } from './accounts/index.ts';
import { createCampaignService } from './campaigns/index.ts';
import { createIntakeService } from './intake/index.ts';
import { createPeopleService } from './people/index.ts';
import { createPublishingService } from './publishing/index.ts';
import { createResultService } from './results/index.ts';
import { createSiteService } from './sites/index.ts';

/** Every domain's service over one database, wired in one place. */
export function createServices(db: DataSource) {
  const accounts = createAccountService(db);
  const sites = createSiteService(db);
  const results = createResultService(db);
  const campaigns = createCampaignService({ db, sites, results });
  const publishing = createPublishingService({ db, sites, campaigns });
  const people = createPeopleService({ db, sites });
  const intake = createIntakeService({ db, campaigns, people });
  return { db, accounts, sites, results, campaigns, publishing, people, intake };
}
export type Services = ReturnType<typeof createServices>;
