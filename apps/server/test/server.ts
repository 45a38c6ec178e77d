import { randomBytes, randomUUID } from 'node:crypto';
import { EventEmitter, once } from 'node:events';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import {
  type Campaign,
  type CampaignDocument,
  type Manifest,
  manifestSchema,
  type Role,
  type Session,
} from '@velarium/contract';
import type { FastifyInstance, InjectOptions, LightMyRequestResponse } from 'fastify';
import pg from 'pg';
import { pino } from 'pino';
import sharp from 'sharp';
import type { DataSource } from 'typeorm';
import { inject } from 'vitest';
import {
  createKeptFiles,
  createSiteDirectory,
  createTagFiles,
  findReleased,
  onSiteChanged,
  readRelease,
} from '../src/edge/index.ts';
import { createEdgeApp } from '../src/edge-app.ts';
import type { CountrySource } from '../src/infra/countries.ts';
import { createDataSource } from '../src/infra/orm.ts';
import { createPreviewTokens, SITE_CHANGED } from '../src/publishing/index.ts';
import { createServices, type ServiceOptions, type Services } from '../src/services.ts';
import { createStudioApp } from '../src/studio-app.ts';

export const ORIGIN = 'https://quillonfell.example';
export const PASSWORD = 'a-long-enough-word';
export const BROWSER =
  'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/156.0.0.0 Safari/537.36';

/** One address of those kept for documentation (RFC 5737). */
const COUNTRY: CountrySource = {
  of: (address) => (address === '192.0.2.1' ? 'gb' : null),
  networks: 1,
  header: 'x-country',
};

/** What fails on purpose is not to be read in the tests' own output. */
export const SILENT = pino({ level: 'silent' });

/** Every test signs somebody in, and none is about what hashing costs. */
const QUICK = { memoryCost: 1024, timeCost: 2, parallelism: 1 };

/** What every service here is made with. */
export const SERVICES = {
  secrets: ['x'.repeat(40)],
  edgeOrigin: 'https://edge.example',
  studioOrigin: 'https://studio.example',
  privateNetworks: '127.0.0.0/8',
} as const;

export interface TestServer {
  readonly db: DataSource;
  readonly databaseUrl: string;
  readonly services: Services;
  readonly studio: FastifyInstance;
  readonly edge: FastifyInstance;
  /** What pages are served, once the edge has heard of everything that was announced before. */
  manifestOf(siteKey: string): Promise<Manifest>;
  close(): Promise<void>;
}

/** A server over a real database of its own, migrated, with nothing in it. */
export async function createTestServer(options: Partial<ServiceOptions> = {}): Promise<TestServer> {
  const adminUrl = inject('databaseUrl');
  const database = `t_${randomBytes(6).toString('hex')}`;
  const admin = new pg.Client({ connectionString: adminUrl });
  await admin.connect();
  await admin.query(`CREATE DATABASE ${database}`);
  const databaseUrl = adminUrl.replace(/\/[^/]*$/, `/${database}`);
  const db = await createDataSource(databaseUrl).initialize();
  await db.runMigrations();
  const services = createServices(db, { ...SERVICES, hashingCost: QUICK, ...options });
  await services.intake.tidy();
  await services.jobs.prepare();
  const tagFiles = mkdtempSync('/tmp/velarium-tag-');
  writeFileSync(
    `${tagFiles}/files.json`,
    JSON.stringify({ renderer: 'renderer-000000000000.js', extras: 'extras-000000000000.js' }),
  );
  writeFileSync(`${tagFiles}/tag.js`, 'tag');
  writeFileSync(`${tagFiles}/renderer-000000000000.js`, 'renderer');
  writeFileSync(`${tagFiles}/extras-000000000000.js`, 'extras');
  const kept = createKeptFiles(`${tagFiles}/kept`);
  const directory = createSiteDirectory(services.publishing, kept);
  const heard = new EventEmitter();
  const listener = onSiteChanged(databaseUrl, {
    onChanged: (key) => {
      directory.forget(key);
      heard.emit(key);
    },
    onReconnected: directory.forgetAll,
  });
  await listener.isListening;
  const studio = await createStudioApp({
    services,
    secrets: SERVICES.secrets,
    edgeOrigin: 'https://edge.example',
    country: COUNTRY,
    isBehindTls: false,
    trustedProxies: '',
    logLevel: 'silent',
  });
  const edge = await createEdgeApp({
    services: () => services,
    directory,
    tagFiles: await createTagFiles(readRelease(tagFiles), kept, (name) => findReleased(db, name)),
    previews: createPreviewTokens(SERVICES.secrets),
    country: COUNTRY,
    trustedProxies: '',
    log: SILENT,
  });
  return {
    db,
    databaseUrl,
    services,
    studio,
    edge,
    async manifestOf(siteKey) {
      // Announcements arrive in the order they were committed, so ours is the last.
      const mark = `mark-${randomUUID()}`;
      const isHeard = once(heard, mark);
      await db.query('SELECT pg_notify($1, $2)', [SITE_CHANGED, mark]);
      await isHeard;
      const answer = await edge.inject({
        url: `/tag/${siteKey}/manifest.json`,
        headers: { origin: ORIGIN },
      });
      return manifestSchema.parse(answer.json());
    },
    async close() {
      await studio.close();
      await edge.close();
      listener.stop();
      await services.jobs.stop();
      await db.destroy();
      await admin.query(`DROP DATABASE ${database} WITH (FORCE)`);
      await admin.end();
      rmSync(tagFiles, { recursive: true });
    },
  };
}

export interface Member {
  readonly workspaceId: string;
  readonly siteId: string;
  readonly siteKey: string;
  readonly session: Session;
  /** Asks the studio's API as this member, cookie and CSRF token included. */
  ask(
    method: InjectOptions['method'],
    path: string,
    body?: object,
    headers?: Record<string, string>,
  ): Promise<LightMyRequestResponse>;
  /** Publishes a campaign's draft as it is now. */
  publish(campaignId: string): Promise<LightMyRequestResponse>;
}

let counter = 0;
let signIns = 0;

/** A workspace with one site, and its owner signed in. */
export async function createWorkspace(server: TestServer): Promise<Member> {
  const email = `owner${++counter}@example.org`;
  const workspaceId = await server.services.accounts.createWorkspace('Workspace', {
    name: 'Owner',
    email,
    password: PASSWORD,
  });
  const site = await server.services.sites.create(workspaceId, {
    name: 'Site',
    origins: [ORIGIN],
    timeZone: 'Europe/London',
  });
  await server.services.publishing.prepareSite(workspaceId, site.id);
  return signIn(server, email, { workspaceId, siteId: site.id, siteKey: site.key });
}

/** Somebody more in the member's workspace, signed in. */
export async function addColleague(server: TestServer, owner: Member, role: Role): Promise<Member> {
  const name = `${role[0]?.toUpperCase()}${role.slice(1)}`;
  const email = `${role}${++counter}@example.org`;
  await server.services.accounts.addMember(owner.workspaceId, { name, email, password: PASSWORD, role });
  return signIn(server, email, owner);
}

export async function signIn(
  server: TestServer,
  email: string,
  place: Pick<Member, 'workspaceId' | 'siteId' | 'siteKey'>,
): Promise<Member> {
  // Each from an address of its own (RFC 5737), or the limit on tries would count them together.
  const remoteAddress = `203.0.113.${++signIns % 256}`;
  const response = await server.studio.inject({
    method: 'POST',
    url: '/api/session',
    payload: { email, password: PASSWORD },
    remoteAddress,
  });
  if (response.statusCode !== 200)
    throw new Error(`sign in as ${email}: expected 200, got ${response.statusCode} ${response.body}`);
  const cookie = response.cookies[0];
  const session = response.json<Session>();
  const ask: Member['ask'] = (method, path, body, headers = {}) =>
    server.studio.inject({
      method: method ?? 'GET',
      url: `/api${path}`,
      headers: {
        cookie: `${cookie?.name}=${cookie?.value}`,
        'x-csrf-token': session.csrfToken,
        ...headers,
      },
      ...(body ? { payload: body } : {}),
    });
  return {
    ...place,
    session,
    ask,
    async publish(campaignId) {
      const { revision } = (await ask('GET', `/campaigns/${campaignId}`)).json<Campaign>();
      return ask('POST', `/campaigns/${campaignId}/publish`, { revision });
    },
  };
}

/** A campaign of the member's site on `/tours`, as a draft. */
export async function createCampaign(member: Member, template = 'sky-letter'): Promise<Campaign> {
  const made = (
    await member.ask('POST', `/sites/${member.siteId}/campaigns`, { name: 'Campaign', template })
  ).json<Campaign>();
  const document = onPages(made.document, '/tours');
  return (
    await member.ask('PUT', `/campaigns/${made.id}/draft`, { revision: made.revision, document })
  ).json<Campaign>();
}

export const onPages = (document: CampaignDocument, ...addresses: string[]): CampaignDocument => ({
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

export const randomVisitor = (): string => randomBytes(16).toString('hex');

/** A version 7 id made at this instant (RFC 9562). */
export function eventId(atMs = Date.now()): string {
  const time = atMs.toString(16).padStart(12, '0');
  return `${time.slice(0, 8)}-${time.slice(8)}-7${randomUUID().slice(15)}`;
}

export interface Sending {
  readonly visitor?: string;
  readonly session?: string;
  readonly headers?: Record<string, string>;
  /** Of the whole body. */
  readonly body?: object;
}

/** Sends events to `/collect` as a page of the member's site would; each is filled up to a whole one. */
export function sendEvents(
  server: TestServer,
  { siteKey }: Pick<Member, 'siteKey'>,
  events: readonly object[],
  { visitor = randomVisitor(), session = eventId(), headers, body }: Sending = {},
): Promise<LightMyRequestResponse> {
  return server.edge.inject({
    method: 'POST',
    url: '/collect',
    headers: { origin: ORIGIN, 'content-type': 'text/plain', 'user-agent': BROWSER, ...headers },
    payload: JSON.stringify({
      site: siteKey,
      visitor,
      events: events.map((event) => ({
        id: eventId(),
        session,
        device: 'desktop',
        page: '/tours',
        ...event,
      })),
      ...body,
    }),
  });
}

/** Where letters lie that anybody may use (OFL 1.1), from the registry. */
export const woff2 = (name: 'figtree' | 'fraunces'): string =>
  createRequire(import.meta.url).resolve(
    `@fontsource-variable/${name}/files/${name}-latin-wght-normal.woff2`,
  );

/** A file as a form sends it, and its heads. */
export function asForm(bytes: Buffer, name: string): [Buffer, Record<string, string>] {
  const edge = '----edge';
  const head = `--${edge}\r\ncontent-disposition: form-data; name="file"; filename="${name}"\r\n\r\n`;
  return [
    Buffer.concat([Buffer.from(head), bytes, Buffer.from(`\r\n--${edge}--\r\n`)]),
    { 'content-type': `multipart/form-data; boundary=${edge}` },
  ];
}

/** A picture of one colour, 900 by 600. */
export const somePng = (): Promise<Buffer> =>
  sharp({ create: { width: 900, height: 600, channels: 3, background: '#2b3e74' } })
    .png()
    .toBuffer();
