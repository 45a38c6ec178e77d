import type { DataSource } from 'typeorm';
import { createAccountService, type HashingCost } from './accounts/index.ts';
import { createCampaignService } from './campaigns/index.ts';
import { createIntakeService } from './intake/index.ts';
import { createLibraryService } from './library/index.ts';
import { createPeopleService } from './people/index.ts';
import { createPublishingService } from './publishing/index.ts';
import { createResultService } from './results/index.ts';
import { createSiteService } from './sites/index.ts';

/** Every domain's service over one database, wired in one place. */
export function createServices(db: DataSource, hashingCost?: HashingCost) {
  const accounts = createAccountService(db, hashingCost);
  const sites = createSiteService(db);
  const results = createResultService(db);
  const library = createLibraryService(db);
  const campaigns = createCampaignService({ db, sites, results, library });
  const publishing = createPublishingService({ db, sites, campaigns, library });
  const people = createPeopleService({ db, sites });
  const intake = createIntakeService({ db, people, publishing, sites });
  return { db, accounts, sites, results, library, campaigns, publishing, people, intake };
}
export type Services = ReturnType<typeof createServices>;
