import type { DataSource } from 'typeorm';
import { createAccountService, type HashingCost } from './accounts/index.ts';
import { createCampaignService } from './campaigns/index.ts';
import { createDeliveryService, createFollowUps, type OwnMailbox } from './deliveries/index.ts';
import { createExperimentService } from './experiments/index.ts';
import { createForecastService } from './forecasts/index.ts';
import { createGoalService } from './goals/index.ts';
import { createJobs } from './infra/jobs.ts';
import { createNetwork } from './infra/network.ts';
import { createOutside } from './infra/outside.ts';
import { createReader } from './infra/reader.ts';
import { createSeal, type Secrets } from './infra/seal.ts';
import { createIntakeService } from './intake/index.ts';
import { createLibraryService } from './library/index.ts';
import { createMemberService } from './members/index.ts';
import { createPeopleService } from './people/index.ts';
import { createPublishingService } from './publishing/index.ts';
import { createRehearsalService } from './rehearsals/index.ts';
import { createReports, createWeekMails } from './reports/index.ts';
import { createResultService } from './results/index.ts';
import { createSeasonService } from './season/index.ts';
import { createSiteService } from './sites/index.ts';
import { createVersionService } from './versions/index.ts';

export interface ServiceOptions {
  /** What signs links and seals what must not be read; at least 32 characters each, the present one first. */
  readonly secrets: Secrets;
  /** Where links in mails lead: to people who answered, and to members. */
  readonly edgeOrigin: string;
  readonly studioOrigin: string;
  /** Where mail goes out for workspaces that name no server of their own. */
  readonly ownMailbox?: OwnMailbox | null;
  /** A streaming standby of the database, from which reports and recorded visits are read. */
  readonly standby?: DataSource | undefined;
  readonly hashingCost?: HashingCost;
  /** Told of what fails beside any request. */
  readonly report?: (error: unknown) => void;
  /** Networks of one's own that may be read from, although they are private; with commas between. */
  readonly privateNetworks?: string;
}

/** Every domain's service over one database, wired in one place. */
export function createServices(
  db: DataSource,
  {
    secrets,
    edgeOrigin,
    studioOrigin,
    ownMailbox = null,
    standby,
    hashingCost,
    report = () => {},
    privateNetworks = '',
  }: ServiceOptions,
) {
  const jobs = createJobs(db, report);
  const seal = createSeal(secrets);
  const reader = createReader(db, standby);
  const network = createNetwork(privateNetworks);
  const outside = createOutside(network);
  const accounts = createAccountService(db, hashingCost);
  const sites = createSiteService(db, jobs, outside);
  const results = createResultService(db);
  const library = createLibraryService(db, outside);
  const followUps = createFollowUps(db);
  const campaigns = createCampaignService({ db, sites, results, library, followUps });
  const season = createSeasonService({ db, sites, campaigns, studioOrigin });
  const goals = createGoalService({ db, sites, campaigns });
  const reports = createReports({ db, reader, sites, campaigns });
  const weekMails = createWeekMails({ db, sites, reports, studioOrigin });
  const people = createPeopleService({ db, sites, seal });
  const members = createMemberService({ db, accounts, seal, studioOrigin });
  const deliveries = createDeliveryService({
    db,
    people,
    sites,
    campaigns,
    library,
    followUps,
    network,
    seal,
    edgeOrigin,
    ownMailbox,
    memberMail: members.mailOf,
    weekMail: weekMails.mailOf,
    report,
  });
  const experiments = createExperimentService({ db, sites, campaigns });
  const publishing = createPublishingService({
    db,
    sites,
    campaigns,
    library,
    async onMoved(manager, move) {
      await deliveries.onCampaign(manager, move);
      if (move.event === 'campaign.published') await experiments.onPublished(manager, move.campaignId);
    },
    async onRunning(manager, site) {
      const kept: unknown[] = await manager.query('SELECT FROM rehearsal WHERE site_id = $1 LIMIT 1', [
        site.siteId,
      ]);
      if (kept.length > 0) await jobs.send(manager, 'rehearse', site);
    },
  });
  const rehearsals = createRehearsalService({ db, sites, publishing });
  const forecasts = createForecastService({ db, reader, sites });
  const versions = createVersionService({
    db,
    jobs,
    campaigns,
    publishing,
    onAsked: members.askToAgree,
  });
  const intake = createIntakeService({ db, people, deliveries, publishing, sites });
  return {
    db,
    jobs,
    reports,
    weekMails,
    rehearsals,
    versions,
    forecasts,
    goals,
    season,
    experiments,
    outside,
    accounts,
    members,
    sites,
    results,
    library,
    campaigns,
    publishing,
    people,
    deliveries,
    intake,
  };
}
export type Services = ReturnType<typeof createServices>;
