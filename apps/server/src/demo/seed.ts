import type { CampaignDocument } from '@velarium/contract';
import type { Principal } from '../accounts/index.ts';
import { type StoredEvent, storeEvents } from '../intake/index.ts';
import { countEvents } from '../results/index.ts';
import type { Services } from '../services.ts';
import { cataloguePath, learnPages } from '../sites/index.ts';
import { seedAnswers } from './answers.ts';
import { demoEvents, demoStays } from './visits.ts';

/** The printed demo accounts. They exist only where the demo is seeded, on loopback. */
const DEMO_PASSWORD = 'clear-skies-tonight';
const DEMO_ACCOUNTS = [
  { email: 'mara@quillonfell.example', name: 'Mara Tindall', role: 'owner' },
  { email: 'idris@quillonfell.example', name: 'Idris Vane', role: 'editor' },
  { email: 'wren@quillonfell.example', name: 'Wren Halloway', role: 'viewer' },
] as const;

const STATEMENT_SIZE = 5000;

/** Seeds the demo into an empty database; later starts only tell the sites where they live now. */
export async function seedDemo(
  services: Services,
  [fellOrigin = '', skerryOrigin = '']: readonly string[],
): Promise<void> {
  const { accounts, sites } = services;
  const isSeeded = (await services.db.query('SELECT 1 FROM workspace LIMIT 1')).length > 0;
  if (isSeeded) {
    for (const [key, origin] of [
      ['quillonfell2', fellOrigin],
      ['skerryline22', skerryOrigin],
    ] as const) {
      const site = await sites.findByKey(key);
      if (site) await sites.setOrigins(site.workspaceId, site.id, [origin]);
    }
    return;
  }

  const [owner, ...others] = DEMO_ACCOUNTS;
  const workspaceId = await accounts.createWorkspace('Fell and Sound', { ...owner, password: DEMO_PASSWORD });
  for (const member of others) await accounts.addMember(workspaceId, { ...member, password: DEMO_PASSWORD });
  const principal = await accounts.signIn(owner.email, DEMO_PASSWORD);

  const fell = await sites.create(workspaceId, {
    name: 'Quillon Fell Observatory',
    origins: [fellOrigin],
    timeZone: 'Europe/London',
    key: 'quillonfell2',
  });
  const skerry = await sites.create(workspaceId, {
    name: 'Skerry Line Ferries',
    origins: [skerryOrigin],
    timeZone: 'Europe/London',
    key: 'skerryline22',
  });
  await services.library.looks.begin(fell.id, 'night-ridge');
  await services.library.looks.begin(skerry.id, 'slack-tide');
  for (const [site, origin] of [
    [fell, fellOrigin],
    [skerry, skerryOrigin],
  ] as const) {
    const { pages } = await learnPages(services.outside, origin, { pathOf: cataloguePath(site.settings) });
    await sites.addPages(site.id, pages);
    await storeAll(services, demoStays(site.id, pages, new Date()));
    await sites.noteSeen(site.id);
    await sites.setSettings(workspaceId, site.id, { ...site.settings, recordedFacts: ['plan'] });
    await services.publishing.prepareSite(workspaceId, site.id);
  }
  await seedCampaigns(services, principal, fell.id);
  await countEvents(services.db, Number.POSITIVE_INFINITY);
}

async function storeAll(services: Services, events: readonly StoredEvent[]): Promise<void> {
  for (let at = 0; at < events.length; at += STATEMENT_SIZE) {
    await storeEvents(services.db.manager, events.slice(at, at + STATEMENT_SIZE));
  }
}

type Change = (document: CampaignDocument) => CampaignDocument;

const on =
  (...addresses: string[]): Change =>
  (document) => ({
    ...document,
    rule: {
      ...document.rule,
      reach: {
        ...document.rule.reach,
        pages: {
          include: addresses.map((address) => ({ kind: 'exact', address })),
          exclude: [],
          follows: null,
        },
      },
    },
  });

async function seedCampaigns(services: Services, principal: Principal, siteId: string): Promise<void> {
  const { campaigns, publishing } = services;
  const make = async (name: string, template: string, change: Change): Promise<string> => {
    const created = await campaigns.create(principal, siteId, name, template);
    await campaigns.saveDraft(principal, created.id, created.revision, change(created.document));
    return created.id;
  };
  const showings = async (campaignId: string, page: string, visitors: number, rate: number, seed: number) => {
    await storeAll(services, demoEvents({ siteId, campaignId, page, visitors, rate, seed }, new Date()));
  };

  const road = await make('Summit road closed', 'notice-strip', on('/contact'));
  await publishing.publish(principal, road);
  await showings(road, '/contact', 412, 0.11, 1);

  const saturn = await make(
    'Places on Friday’s tour',
    'corner-invitation',
    on('/night-tours/first-light', '/night-tours/deep-sky'),
  );
  await publishing.publish(principal, saturn);
  await showings(saturn, '/night-tours/first-light', 1268, 0.074, 2);

  const letter = await make(
    'Sky letter for readers',
    'sky-letter',
    on('/journal/finding-saturn', '/journal/meteor-notebook'),
  );
  await publishing.publish(principal, letter);
  await showings(letter, '/journal/finding-saturn', 2380, 0.031, 3);
  await seedAnswers(services, {
    workspaceId: principal.workspaceId,
    siteId,
    campaignId: letter,
    count: Math.round(2380 * 0.031),
  });
  await publishing.rest(principal, letter);

  await make('Welcome to members', 'corner-invitation', on('/members'));

  const old = await make('Autumn open day', 'notice-strip', (document) => document);
  await publishing.archive(principal, old);
}
