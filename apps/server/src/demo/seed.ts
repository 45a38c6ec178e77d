import type { Block, CampaignDocument, KeptForecast } from '@velarium/contract';
import { blocksOfStep, evenShares, variantOf } from '@velarium/core';
import type { Principal } from '../accounts/index.ts';
import { ensurePartitions, type StoredEvent, storeEvents } from '../intake/index.ts';
import { countEvents } from '../results/index.ts';
import type { Services } from '../services.ts';
import { cataloguePath, learnPages } from '../sites/index.ts';
import { seedAnswers } from './answers.ts';
import { seedExperiment, seedGoals } from './experiment.ts';
import { type DemoTraffic, demoEvents, demoStays } from './visits.ts';

/** The printed demo accounts. They exist only where the demo is seeded, on loopback. */
const DEMO_PASSWORD = 'clear-skies-tonight';
const DEMO_ACCOUNTS = [
  { email: 'mara@quillonfell.example', name: 'Mara Tindall', role: 'owner' },
  { email: 'idris@quillonfell.example', name: 'Idris Vane', role: 'editor' },
  { email: 'wren@quillonfell.example', name: 'Wren Halloway', role: 'viewer' },
] as const;

const STATEMENT_SIZE = 5000;
/** As far back as the demo's campaigns ran, with room. */
const DEMO_DAYS = 95;
const LETTER_VISITORS = 4200;
const LETTER_RATE = 0.031;

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
  const { principal } = await accounts.signIn(owner.email, DEMO_PASSWORD);

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
  const bought = await seedGoals(services.db, fell.id);
  await services.library.looks.begin(fell.id, 'night-ridge');
  await services.library.looks.begin(skerry.id, 'slack-tide');
  for (const [site, origin] of [
    [fell, fellOrigin],
    [skerry, skerryOrigin],
  ] as const) {
    const { pages } = await learnPages(services.outside, origin, { pathOf: cataloguePath(site.settings) });
    await sites.addPages(site.id, pages);
    await setAsPages(services, site.id, origin);
    await storeAll(services, demoStays(site.id, pages, new Date()));
    await sites.noteSeen(site.id);
    await sites.setSettings(workspaceId, site.id, { ...site.settings, recordedFacts: ['plan'] });
    await services.publishing.prepareSite(workspaceId, site.id);
  }
  await services.db.transaction((manager) => ensurePartitions(manager, new Date(), -DEMO_DAYS, 0));
  await seedFell(services, principal, fell.id, bought);
  await seedSkerry(services, principal, skerry.id);
  await countEvents(services.db, Number.POSITIVE_INFINITY);
}

/** Sets the site's own Look in the letters of its pages; the rest of it stays. */
async function setAsPages({ library }: Services, siteId: string, origin: string): Promise<void> {
  const { fonts } = (await library.readLook(siteId, origin, '/')).style;
  const own = (await library.looks.list(siteId)).find(({ isDefault }) => isDefault);
  if (own) await library.looks.save(siteId, own.id, { name: own.name, style: { ...own.style, fonts } });
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

const withHoldout =
  (holdout: number, change: Change): Change =>
  (document) => {
    const { rule, ...changed } = change(document);
    return { ...changed, rule: { ...rule, limits: { ...rule.limits, holdout } } };
  };

/** An experiment that still runs, and has no answer yet: the same message later. */
const TRIAL = { days: 19, after: 25 } as const;
const withTrial =
  (seconds: number, change: Change): Change =>
  (given) => {
    const document = change(given);
    const { moment } = document.rule;
    const later: CampaignDocument = {
      ...document,
      rule: { ...document.rule, moment: { ...moment, triggers: [{ kind: 'time', seconds }] } },
    };
    return { ...document, variants: evenShares([variantOf('b', later, moment)]) };
  };

/** What the ferry line says in place of the template's own words. */
const winterWords =
  (change: Change): Change =>
  (given) => {
    const document = change(given);
    const said: Partial<Record<Block['kind'], (block: Block) => Block>> = {
      heading: (block) => ({ ...block, text: 'Fewer boats from Monday' }) as Block,
      text: (block) =>
        ({
          ...block,
          content: [[{ text: 'The 10:40 and the 17:00 rest until the first of March.' }]],
        }) as Block,
      button: (block) =>
        block.kind === 'button' && block.action.kind === 'link'
          ? { ...block, label: 'See the notices', action: { ...block.action, address: '/notices' } }
          : block,
    };
    const steps = document.message.steps.map((step) => ({
      ...step,
      blocks: step.blocks.map((block) => said[block.kind]?.(block) ?? block),
    }));
    return { ...document, message: { ...document.message, steps } };
  };

const DAYS_FORESEEN = 28;
const Z_95 = 1.96;

/** A forecast as the Workbench would have kept it, of so many visitors a day: invented, as all of the demo is. */
const foreseenByDay = (visitorsADay: number): KeptForecast => ({
  visitors: Math.round(visitorsADay * DAYS_FORESEEN * 4.4),
  byDay: Array.from({ length: DAYS_FORESEEN }, (_, day) => {
    const value = visitorsADay * (day + 1);
    const half = Math.round(Z_95 * Math.sqrt(value));
    return { value, low: value - half, high: value + half };
  }),
});

/** Makes campaigns of a site, publishes them, and lets visitors have met them. */
function campaignSeeder(services: Services, principal: Principal, siteId: string, bought?: string) {
  const { campaigns, publishing } = services;
  const make = async (name: string, template: string, change: Change): Promise<string> => {
    const created = await campaigns.create(principal, siteId, name, template);
    await campaigns.saveDraft(principal, created.id, created.revision, change(created.document));
    return created.id;
  };
  const publish = async (id: string, forecast?: KeptForecast) =>
    publishing.publish(principal, id, (await campaigns.get(principal.workspaceId, id)).revision, {
      forecast,
    });
  const showings = async (
    campaignId: string,
    traffic: Omit<DemoTraffic, 'siteId' | 'campaignId' | 'bought' | 'clicked' | 'fields'>,
  ) => {
    const { document } = await campaigns.get(principal.workspaceId, campaignId);
    const blocks = document.message.steps.flatMap(blocksOfStep);
    const button = blocks.find((block) => block.kind === 'button' && block.action.kind === 'link');
    const form = blocks.find(({ kind }) => kind === 'form');
    await storeAll(
      services,
      demoEvents(
        {
          siteId,
          campaignId,
          bought,
          clicked: button?.id ?? null,
          fields: form?.kind === 'form' ? form.fields.map(({ id }) => id) : [],
          ...traffic,
        },
        new Date(),
      ),
    );
    // It has been running all the while.
    for (const [table, column] of [
      ['campaign_version', 'published_at'],
      ['campaign_move', 'at'],
    ] as const)
      await services.db.query(
        `UPDATE ${table} SET ${column} = now() - $2 * interval '1 day' WHERE campaign_id = $1`,
        [campaignId, traffic.days],
      );
  };
  return { make, publish, showings };
}

async function seedFell(
  services: Services,
  principal: Principal,
  siteId: string,
  bought: string,
): Promise<void> {
  const { publishing } = services;
  const { make, publish, showings } = campaignSeeder(services, principal, siteId, bought);
  const road = await make('Summit road closed', 'notice-strip', on('/contact'));
  await publish(road, foreseenByDay(44));
  await showings(road, {
    page: '/contact',
    visitors: 412,
    days: 9,
    cause: 'time',
    after: 0,
    isClicked: true,
    rate: 0.11,
    seed: 1,
  });

  const saturn = await make(
    'Places on Friday’s tour',
    'corner-invitation',
    on('/night-tours/first-light', '/night-tours/deep-sky'),
  );
  await publish(saturn, foreseenByDay(68));
  await showings(saturn, {
    page: '/night-tours/first-light',
    visitors: 3480,
    days: 62,
    cause: 'time',
    after: 12,
    isClicked: true,
    rate: 0.074,
    seed: 2,
  });

  const letter = await make(
    'Sky letter for readers',
    'sky-letter',
    withHoldout(10, on('/journal/finding-saturn', '/journal/meteor-notebook')),
  );
  await publish(letter);
  await showings(letter, {
    page: '/journal/finding-saturn',
    visitors: LETTER_VISITORS,
    held: Math.round(LETTER_VISITORS / 9),
    days: 90,
    cause: 'scroll',
    after: 38,
    isClicked: false,
    rate: LETTER_RATE,
    seed: 3,
  });
  await seedAnswers(services, {
    workspaceId: principal.workspaceId,
    siteId,
    campaignId: letter,
    count: 74,
  });
  await seedExperiment(services.db, letter);
  await publishing.rest(principal, letter);

  await make('Welcome to members', 'corner-invitation', on('/members'));

  const old = await make('Autumn open day', 'notice-strip', (document) => document);
  await publishing.archive(principal, old);
}

/** A ferry line that tries whether a word about winter sailings is better said at once or a little later. */
async function seedSkerry(services: Services, principal: Principal, siteId: string): Promise<void> {
  const { make, publish, showings } = campaignSeeder(services, principal, siteId);
  const winter = await make(
    'Winter sailings',
    'corner-invitation',
    withTrial(TRIAL.after, winterWords(on('/timetables'))),
  );
  await publish(winter);
  await showings(winter, {
    page: '/timetables',
    visitors: 1480,
    days: TRIAL.days,
    cause: 'time',
    after: 8,
    trial: TRIAL,
    isClicked: true,
    rate: 0.068,
    seed: 4,
  });
  await services.db.query(
    `UPDATE experiment SET started_at = now() - $2 * interval '1 day' WHERE campaign_id = $1`,
    [winter, TRIAL.days],
  );
}
