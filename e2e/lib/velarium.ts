import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import {
  type Browser,
  type BrowserContext,
  type BrowserContextOptions,
  test as base,
  expect,
  type Locator,
  type Page,
} from '@playwright/test';
import pg from 'pg';
import { choosePorts } from '../../scripts/lib/ports.mjs';
import { startWhole } from '../../scripts/lib/whole.mjs';

/** A whole Velarium with the demo as it was seeded. */
export interface Velarium {
  readonly studio: string;
  readonly edge: string;
  readonly fell: string;
  readonly skerry: string;
  readonly standins: string;
  query<Row>(sql: string, values?: unknown[]): Promise<Row[]>;
}

const needed = (name: string): string => {
  const value = process.env[name];
  if (!value) throw new Error(`${name}: expected a value from the global set-up, got none`);
  return value;
};

/** Tables a test may change, children after their parents; sign-in sessions outlive a test. */
const TABLES = [
  'workspace',
  'account',
  'membership',
  'site',
  'site_page',
  'page_reading',
  'page_group',
  'page_day',
  'page_title',
  'manifest_day',
  'page_sight',
  'season_note',
  'season_address',
  'stay_day',
  'look',
  'picture',
  'picture_file',
  'saved_block',
  'own_template',
  'campaign',
  'campaign_revision',
  'campaign_version',
  'campaign_message',
  'message_file',
  'site_manifest',
  'reach_day',
  'campaign_day',
  'campaign_hour',
  'campaign_move',
  'planned_launch',
  'experiment',
  'goal',
  'goal_reached',
  'rehearsal',
  'person',
  'lead',
  'lead_before',
  'attachment',
  'do_not_write',
  'people_note',
  'follow_up',
  'connection',
  'sending',
  'invitation',
  'access_token',
  'delivery',
  'delivery_try',
  'presence',
] as const;
/** Tables to which rows are only added, by keys nobody gives twice: what a test added is taken away again. */
const GROWING = {
  event: ['id', 'at'],
  late_event: ['id'],
  visit: ['site_id', 'session'],
  page_stay: ['site_id', 'view'],
} as const;

/** Large tables whose rows a test may change: only what it changed is put back. */
const CHANGING = { visitor_day: ['campaign_id', 'kind', 'visitor', 'day'] } as const;

/** SQLSTATE of a statement that was given up so that another could go on. */
const DEADLOCK = '40P01';

interface Worker extends Velarium {
  /** Puts the demo back as it was seeded. */
  restore(): Promise<void>;
  readonly home: string;
}

export const test = base.extend<
  { velarium: Velarium; studioPage: Page; visitor: BrowserContext },
  { worker: Worker }
>({
  // A whole Velarium for each worker: its database a copy of the seeded demo, its ports its own.
  worker: [
    // The runner reads the names of this pattern, so it must be one even when it names nothing.
    // biome-ignore lint/correctness/noEmptyPattern: see above
    async ({}, use, { parallelIndex }) => {
      const database = `e2e_${process.pid}_${parallelIndex}`;
      const admin = new pg.Client({ connectionString: needed('VELARIUM_E2E_DATABASE') });
      await admin.connect();
      await admin.query(`CREATE DATABASE ${database} TEMPLATE velarium_seeded`);
      const databaseUrl = needed('VELARIUM_E2E_DATABASE').replace(/\/[^/]*$/, `/${database}`);
      const home = mkdtempSync('/tmp/velarium-e2e-');
      // Ports far apart for each worker, below those the system hands out by itself.
      const first = 21_000 + parallelIndex * 40;
      const ports = await choosePorts({
        studio: first,
        edge: first + 1,
        fell: first + 2,
        skerry: first + 3,
        standins: first + 4,
        smtp: first + 5,
      });
      const whole = await startWhole({ databaseUrl, home, ports });
      // As the cluster's superuser: restoring need not check what was right when it was copied.
      const client = new pg.Client({
        connectionString: needed('VELARIUM_E2E_ADMIN').replace(/\/[^/]*$/, `/${database}`),
      });
      await client.connect();
      await client.query("CREATE SCHEMA pristine; SET session_replication_role = 'replica'");
      for (const table of [...TABLES, ...Object.keys({ ...GROWING, ...CHANGING })])
        await client.query(`CREATE TABLE pristine.${table} AS TABLE public.${table}`);
      for (const [table, key] of Object.entries(GROWING))
        await client.query(`ALTER TABLE pristine.${table} ADD PRIMARY KEY (${key.join(', ')})`);
      const at = (port: number) => `http://127.0.0.1:${port}`;
      const putBack = async (): Promise<void> => {
        await client.query(`BEGIN; TRUNCATE ${TABLES.join(', ')};`);
        for (const table of TABLES)
          await client.query(`INSERT INTO ${table} SELECT * FROM pristine.${table}`);
        for (const [table, key] of Object.entries(GROWING))
          await client.query(
            `DELETE FROM ${table} WHERE NOT EXISTS (SELECT FROM pristine.${table} AS old
            WHERE ${key.map((column) => `old.${column} = ${table}.${column}`).join(' AND ')})`,
          );
        for (const [table, key] of Object.entries(CHANGING)) {
          const columns = key.join(', ');
          // Told apart by hashing whole rows: quick without knowing anything of the tables.
          await client.query(
            `DELETE FROM ${table} WHERE (${columns}) IN (
             SELECT ${columns} FROM (SELECT * FROM ${table} EXCEPT SELECT * FROM pristine.${table}) AS other);
           INSERT INTO ${table} SELECT * FROM pristine.${table} EXCEPT SELECT * FROM ${table}`,
          );
        }
        await client.query("SELECT pg_notify('velarium_site_changed', key) FROM site");
        await client.query('COMMIT');
      };
      await use({
        studio: at(ports.studio),
        edge: at(ports.edge),
        fell: at(ports.fell),
        skerry: at(ports.skerry),
        standins: at(ports.standins),
        home,
        query: async (sql, values) => (await client.query(sql, values)).rows,
        async restore() {
          // Something that is noted in the background may hold what is wanted here, and want what is held.
          for (;;) {
            try {
              return await putBack();
            } catch (error) {
              await client.query('ROLLBACK');
              if ((error as { code?: string }).code !== DEADLOCK) throw error;
            }
          }
        },
      });
      await client.end();
      await whole.stop();
      rmSync(home, { recursive: true, force: true });
      await admin.query(`DROP DATABASE ${database} WITH (FORCE)`);
      await admin.end();
    },
    { scope: 'worker', timeout: 60_000 },
  ],

  velarium: async ({ worker, browser }, use, testInfo) => {
    const ownContexts = new Set(browser.contexts());
    await worker.restore();
    const log = `${worker.home}/logs/server.log`;
    const before = readFileSync(log).length;
    await use(worker);
    // A visit left open would go on in the next test, and be counted there.
    for (const context of browser.contexts()) if (!ownContexts.has(context)) await context.close();
    if (testInfo.status !== testInfo.expectedStatus) {
      const lines = readFileSync(log).subarray(before);
      await testInfo.attach('server.log', { body: lines, contentType: 'text/plain' });
    }
  },

  /** The studio, signed in as the demo's owner, on the Board of Quillon Fell. */
  studioPage: async ({ page, velarium }, use) => {
    // What fades and slides is drawn again and again, and nobody looks.
    await page.emulateMedia({ reducedMotion: 'reduce' });
    await signIn(page, velarium);
    await use(page);
  },

  /** A fresh browser of a visitor who has never been here. */
  visitor: async ({ browser }, use) => {
    const context = await newVisitor(browser);
    await use(context);
    await context.close();
  },
});
export { expect };

const SUM_WORDS = ['one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'];
/** Answers the sum in words that keeps robots out. */
export async function answerSum(message: Locator): Promise<void> {
  const sum = message.getByLabel(/^What is .* together/);
  const asked = await sum.evaluate((field) => (field as HTMLInputElement).labels?.[0]?.textContent ?? '');
  const [one = '', two = ''] = /What is (\w+) and (\w+)/.exec(asked)?.slice(1) ?? [];
  await sum.fill(String(SUM_WORDS.indexOf(one) + SUM_WORDS.indexOf(two) + 2));
}

/** What a person's browser calls itself: the headless one's own name is that of a robot, which is not counted. */
const USER_AGENT =
  'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/156.0.0.0 Safari/537.36';

export const newVisitor = (browser: Browser, options: BrowserContextOptions = {}): Promise<BrowserContext> =>
  browser.newContext({ viewport: { width: 1280, height: 800 }, userAgent: USER_AGENT, ...options });

/** Cookies of those who have signed in on this worker's studio: signing in is limited to a few tries a minute. */
const signedIn = new Map<string, Awaited<ReturnType<BrowserContext['cookies']>>>();

/** Opens a place of the studio as this member, the Board where none is named, signing in through the form the first time. */
export async function signIn(
  page: Page,
  { studio }: Velarium,
  email = 'mara@quillonfell.example',
  place = '/',
): Promise<void> {
  const key = `${studio} ${email}`;
  const cookies = signedIn.get(key);
  if (cookies) {
    await page.context().addCookies(cookies);
    await page.goto(studio + place);
    if (place !== '/') return;
  } else {
    await page.goto(`${studio}/`);
    await page.getByLabel('Mail address').fill(email);
    await page.getByLabel('Password').fill('clear-skies-tonight');
    await page.getByRole('button', { name: 'Sign in' }).click();
  }
  await expect(page.getByRole('heading', { name: 'Board' })).toBeVisible();
  signedIn.set(key, await page.context().cookies());
  if (!cookies && place !== '/') await page.goto(studio + place);
}

const clocked = new WeakSet<BrowserContext>();

/** A page of a site whose clock a test drives by `pass`; between, it runs on as fast as it would. */
export async function visit(context: BrowserContext, address: string): Promise<SitePage> {
  // The clock is the context's: every page in it has the same, and it is put in once.
  if (!clocked.has(context)) await context.clock.install({ time: new Date() });
  clocked.add(context);
  const page = await context.newPage();
  const problems: string[] = [];
  page.on('pageerror', (error) => problems.push(`error in the page: ${error.message}`));
  page.on('console', (message) => {
    if (message.type() === 'error' || message.type() === 'warning')
      problems.push(`console: ${message.text()}`);
  });
  const sitePage = new SitePage(page, problems);
  await sitePage.go(address);
  return sitePage;
}

export class SitePage {
  constructor(
    readonly page: Page,
    /** Anything the page's console or error handlers heard: the tag must add nothing to it. */
    readonly problems: readonly string[],
  ) {}

  async go(address: string): Promise<void> {
    await this.page.goto(address);
    await this.isReady();
  }
  async reload(): Promise<void> {
    await this.page.reload();
    await this.isReady();
  }
  private async isReady(): Promise<void> {
    await this.page.waitForFunction(
      () => typeof (window as { velarium?: { open?: unknown } }).velarium?.open === 'function',
    );
  }
  /** Lets this much time pass on the page, every timer due in it running. */
  async pass(seconds: number): Promise<void> {
    await this.page.clock.runFor(seconds * 1000);
  }
  /** Expects this many messages, once what has begun (a fetch, the sending of events) has come to its end. */
  async shows(count: number): Promise<void> {
    await this.settle();
    await expect(this.message).toHaveCount(count);
  }
  /** Waits until the tag holds nothing that the server has not said it has stored. */
  async settle(): Promise<void> {
    const isSettled = () =>
      this.page.evaluate(() => {
        try {
          const unsent = Object.keys(localStorage).filter((name) => name.endsWith(':unsent'));
          return unsent.every((name) => localStorage.getItem(name) === '[]');
        } catch {
          // Storage is refused, so what is unsent cannot be seen; the caller looks at what was stored.
          return true;
        }
      });
    await expect
      .poll(async () => {
        await this.pass(0.5);
        return isSettled();
      })
      .toBe(true);
  }
  get message() {
    return this.page.locator('velarium-message');
  }
  get dialog() {
    return this.page.getByRole('dialog');
  }
}

/** Nothing that WCAG's automatic rules can find is wrong on this page. */
export async function expectAccessible(page: Page): Promise<void> {
  // A notice that comes or goes is pale for that moment only; of who asks for less motion none is.
  const isStill = await page.evaluate(() => matchMedia('(prefers-reduced-motion: reduce)').matches);
  if (!isStill) await page.emulateMedia({ reducedMotion: 'reduce' });
  await expect
    .poll(() =>
      page.evaluate(
        () => document.querySelector('[data-sonner-toaster]')?.getAnimations({ subtree: true }).length ?? 0,
      ),
    )
    .toBe(0);
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
    // The pages behind the stage are scenery: hidden from readers and scripts.
    .exclude('iframe[sandbox]')
    .analyze();
  if (!isStill) await page.emulateMedia({ reducedMotion: null });
  expect(
    violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`),
  ).toEqual([]);
}
