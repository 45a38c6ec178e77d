import type { DataSource } from 'typeorm';
import { createAccountService, type HashingCost } from './accounts/index.ts';
import { createCampaignService } from './campaigns/index.ts';
import { createJobs } from './infra/jobs.ts';
import { createOutside } from './infra/outside.ts';
import { createIntakeService } from './intake/index.ts';
import { createLibraryService } from './library/index.ts';
import { createPeopleService } from './people/index.ts';
import { createPublishingService } from './publishing/index.ts';
import { createResultService } from './results/index.ts';
import { createSiteService } from './sites/index.ts';

export interface ServiceOptions {
  readonly hashingCost?: HashingCost;
  /** Told of what fails beside any request. */
  readonly report?: (error: unknown) => void;
  /** Networks of one's own that may be read from, although they are private; with commas between. */
  readonly privateNetworks?: string;
}

/** Every domain's service over one database, wired in one place. */
export function createServices(
  db: DataSource,
  { hashingCost, report = () => {}, privateNetworks = '' }: ServiceOptions = {},
) {
  const jobs = createJobs(db, report);
  const outside = createOutside(privateNetworks);
  const accounts = createAccountService(db, hashingCost);
  const sites = createSiteService(db, jobs, outside);
  const results = createResultService(db);
  const library = createLibraryService(db, outside);
  const campaigns = createCampaignService({ db, sites, results, library });
  const publishing = createPublishingService({ db, sites, campaigns, library });
  const people = createPeopleService({ db, sites });
  const intake = createIntakeService({ db, people, publishing, sites });
  return { db, jobs, outside, accounts, sites, results, library, campaigns, publishing, people, intake };
}
export type Services = ReturnType<typeof createServices>;
