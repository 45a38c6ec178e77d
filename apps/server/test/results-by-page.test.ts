import type { Campaign, CampaignParts, Site } from '@velarium/contract';
import { countedPath } from '@velarium/core';
import fc from 'fast-check';
import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest';
import { ensurePartitions, type StoredEvent, storeEvents } from '../src/intake/index.ts';
import { barePath } from '../src/results/index.ts';
import {
  createCampaign,
  createTestServer,
  createWorkspace,
  type Member,
  randomVisitor,
  sendEvents,
  type TestServer,
} from './server.ts';
import { storedEvent } from './stored-event.ts';

const DAY_MS = 86_400_000;

let server: TestServer;
let owner: Member;
let campaign: Campaign;
beforeAll(async () => {
  server = await createTestServer();
  await server.db.transaction((manager) => ensurePartitions(manager, new Date(), -50, 1));
});
afterAll(() => server.close());
beforeEach(async () => {
  owner = await createWorkspace(server);
  campaign = await createCampaign(owner);
  await owner.publish(campaign.id);
});

const event = (kind: string, agoMs: number, more: Partial<StoredEvent> = {}) =>
  storedEvent({ siteId: owner.siteId, campaign: campaign.id }, kind, agoMs, more);
const store = (...events: StoredEvent[]) => storeEvents(server.db.manager, events);

it('says how often each campaign was met on a page lately, and nothing of other pages, days or workspaces', async () => {
  const visitor = randomVisitor();
  await store(
    event('shown', DAY_MS, { visitor }),
    event('shown', 2 * DAY_MS, { visitor, page: '/tours/?utm_source=letter' }),
    event('shown', 3 * DAY_MS, { device: 'mobile' }),
    event('shown', 29 * DAY_MS),
    event('shown', DAY_MS, { page: '/about', path: '/about' }),
    event('held', DAY_MS),
    event('viewable', DAY_MS, { visitor }),
  );
  const metOn = async (path: string, by = owner) =>
    by.ask('GET', `/sites/${owner.siteId}/met-on?${new URLSearchParams({ path })}`);
  expect((await metOn('/tours')).json()).toEqual([{ campaign: campaign.id, showings: 3, visitors: 2 }]);
  expect((await metOn('/nowhere')).json()).toEqual([]);
  const byPage = (by = owner) => by.ask('GET', `/sites/${owner.siteId}/met-by-page`);
  expect((await byPage()).json()).toEqual([
    { campaign: campaign.id, path: '/tours', device: 'desktop', showings: 2 },
    { campaign: campaign.id, path: '/about', device: 'desktop', showings: 1 },
    { campaign: campaign.id, path: '/tours', device: 'mobile', showings: 1 },
  ]);
  expect((await byPage(await createWorkspace(server))).statusCode).toBe(404);
  expect((await metOn('no path')).statusCode).toBe(422);
  expect((await metOn('/tours', await createWorkspace(server))).statusCode).toBe(404);
});

it('tells pages apart by what the site says tells them apart', async () => {
  const { settings } = (await owner.ask('GET', `/sites/${owner.siteId}`)).json<Site>();
  await owner.ask('PUT', `/sites/${owner.siteId}/settings`, { ...settings, pageParameters: ['month'] });
  // The edge has heard of it.
  await server.manifestOf(owner.siteKey);
  await owner.ask('POST', `/sites/${owner.siteId}/groups`, {
    name: 'In May',
    rules: [{ kind: 'parameter', name: 'month', value: 'may' }],
  });
  for (const page of ['/tours/?shown=list&month=may', '/tours?month=june', '/contact/?shown=map', '/contact'])
    await sendEvents(server, owner, [{ kind: 'shown', campaign: campaign.id, version: 1, page }]);
  const metOn = async (path: string) =>
    (await owner.ask('GET', `/sites/${owner.siteId}/met-on?${new URLSearchParams({ path })}`)).json();
  const met = (showings: number) => [{ campaign: campaign.id, showings, visitors: showings }];
  expect(await metOn('/tours?month=may')).toEqual(met(1));
  expect(await metOn('/contact')).toEqual(met(2));
  expect(await metOn('/tours')).toEqual([]);
  const parts = async (by: string) =>
    (await owner.ask('GET', `/campaigns/${campaign.id}/results/parts?by=${by}`)).json<CampaignParts>().parts;
  const one = { visitors: 1, converters: 0 };
  expect(await parts('page')).toEqual([
    { key: '/contact', visitors: 2, converters: 0 },
    { key: '/tours?month=june', ...one },
    { key: '/tours?month=may', ...one },
  ]);
  expect(await parts('group')).toEqual([
    { key: null, visitors: 3, converters: 0 },
    { key: 'In May', ...one },
  ]);
});

it('is one page in the database and in core, whatever its address', async () => {
  const plain = countedPath({ pageParameters: [], hashRoutes: false });
  const address = fc
    .array(fc.constantFrom('/', 'a', 'é', '.', '?', '#', '&', '=', '//', '%2F'), { maxLength: 12 })
    .map((parts) => `/${parts.join('')}`);
  const pages = fc.sample(address, 300);
  const rows: { path: string }[] = await server.db.query(
    `SELECT ${barePath('event')} AS path FROM unnest($1::text[]) WITH ORDINALITY AS event (page, at) ORDER BY at`,
    [pages],
  );
  expect(rows.map(({ path }) => path)).toEqual(pages.map(plain));
});
