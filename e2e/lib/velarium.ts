import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import {
  type Browser,
  type BrowserContext,
  type BrowserContextOptions,
  test as base,
  expect,
  type Locator,
  type Page,
  type TestInfo,
} from '@playwright/test';
import pg from 'pg';
import { choosePorts } from '../../scripts/lib/ports.mjs';
import { startWhole } from '../../scripts/lib/whole.mjs';
import { keepPristine } from './demo-tables.ts';
import { pagesNow } from './pages-now.ts';
import { sessionOf } from './sessions.ts';

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

export interface Worker extends Velarium {
  /** Browsers that outlive a test, until one comes that begins with the demo as it was seeded. */
  readonly keeps: Set<BrowserContext>;
  /** Puts the demo back as it was seeded. */
  restore(): Promise<void>;
  readonly home: string;
}

/** The browser of whoever works in the studio: it has been there before, and has the code at hand. */
interface StudioBrowser {
  readonly context: () => BrowserContext;
  /** Makes it as new but for what it has loaded; one that cannot be made so is replaced. */
  clear(): Promise<void>;
}

/** What a browser keeps of a place, but for what it has loaded. */
const KEPT = 'cookies,local_storage,indexeddb,service_workers,cache_storage';

/** What a failed test leaves: how far each page had come, and what the server wrote meanwhile. */
async function withEvidence(
  testInfo: TestInfo,
  { browser, worker }: { readonly browser: Browser; readonly worker: Pick<Worker, 'home'> },
  run: () => Promise<void>,
): Promise<void> {
  const log = `${worker.home}/logs/server.log`;
  const before = readFileSync(log).length;
  await run();
  if (testInfo.status === testInfo.expectedStatus) return;
  await testInfo.attach('pages.txt', { body: await pagesNow(browser), contentType: 'text/plain' });
  await testInfo.attach('server.log', {
    body: readFileSync(log).subarray(before),
    contentType: 'text/plain',
  });
}

/** How messages are looked at in a browser: see the studio's `kept-stage.ts`. */
export async function lookAtStages(
  on: Pick<Page, 'addInitScript'>,
  { studio }: Velarium,
  choices: { readonly ground?: 'page' | 'plain'; readonly zoom?: 'fit' | 'real' },
): Promise<void> {
  await on.addInitScript(
    ([origin, chosen]) => {
      if (self.origin !== origin) return;
      for (const [name, value] of Object.entries(chosen))
        localStorage.setItem(
          `velarium:stage-${name}`,
          localStorage.getItem(`velarium:stage-${name}`) ?? value,
        );
    },
    [studio, choices] as const,
  );
}

export const test = base.extend<
  {
    ground: 'page' | 'plain';
    velarium: Velarium;
    asLeft: Worker;
    memberPage: Page;
    studioPage: Page;
    visitor: BrowserContext;
  },
  { worker: Worker; studioBrowser: StudioBrowser }
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
      const client = new pg.Client({
        connectionString: needed('VELARIUM_E2E_ADMIN').replace(/\/[^/]*$/, `/${database}`),
      });
      await client.connect();
      const restore = await keepPristine(client);
      const at = (port: number) => `http://127.0.0.1:${port}`;
      await use({
        studio: at(ports.studio),
        edge: at(ports.edge),
        fell: at(ports.fell),
        skerry: at(ports.skerry),
        standins: at(ports.standins),
        home,
        query: async (sql, values) => (await client.query(sql, values)).rows,
        restore,
        keeps: new Set(),
      });
      await client.end();
      await whole.stop();
      rmSync(home, { recursive: true, force: true });
      await admin.query(`DROP DATABASE ${database} WITH (FORCE)`);
      await admin.end();
    },
    { scope: 'worker', timeout: 120_000 },
  ],

  studioBrowser: [
    async ({ browser, worker }, use) => {
      const begin = () => browser.newContext({ viewport: { width: 1280, height: 800 } });
      let context = await begin();
      const empty = async (): Promise<boolean> => {
        const used = context.pages();
        // The next test begins on it: a page is dear to make.
        const page = await context.newPage();
        // A driven clock is the context's for good.
        if (await page.evaluate(() => !`${Date}`.includes('native code'))) return false;
        await Promise.all(used.map((one) => one.close()));
        const session = await context.newCDPSession(page);
        const places = [worker.studio, worker.edge, worker.fell, worker.skerry, worker.standins];
        await Promise.all([
          ...places.map((origin) =>
            session.send('Storage.clearDataForOrigin', { origin, storageTypes: KEPT }),
          ),
          context.clearCookies(),
          context.clearPermissions(),
          context.unrouteAll(),
        ]);
        await session.detach();
        return true;
      };
      await use({
        context: () => context,
        async clear() {
          // A test may have closed it.
          if (await empty().catch(() => false)) return;
          await context.close();
          context = await begin();
        },
      });
      await context.close();
    },
    { scope: 'worker' },
  ],

  context: async ({ studioBrowser }, use) => {
    await use(studioBrowser.context());
    await studioBrowser.clear();
  },

  page: async ({ context }, use) => use(context.pages()[0] ?? (await context.newPage())),

  /** The demo as it was seeded. */
  velarium: async ({ worker, browser, studioBrowser }, use, testInfo) => {
    for (const context of worker.keeps) await context.close();
    worker.keeps.clear();
    await worker.restore();
    await withEvidence(testInfo, { browser, worker }, () => use(worker));
    // A visit left open would go on in the next test, and be counted there.
    for (const context of browser.contexts()) if (context !== studioBrowser.context()) await context.close();
  },

  /** The same Velarium as the test before left it, with the browsers that are kept. */
  asLeft: ({ worker, browser }, use, testInfo) =>
    withEvidence(testInfo, { browser, worker }, () => use(worker)),

  /** What is chosen to stand behind messages: a page of the site is loaded for each window of the stage, and few tests look at it. */
  ground: ['plain', { option: true }],

  /** Signed in as the demo's owner, and nowhere yet. */
  memberPage: async ({ page, velarium, ground }, use) => {
    await lookAtStages(page, velarium, { ground });
    // What fades and slides is drawn again and again, and nobody looks.
    await page.emulateMedia({ reducedMotion: 'reduce' });
    await bringSession(page, velarium);
    await use(page);
  },

  /** The same, on the Board of Quillon Fell. */
  studioPage: async ({ memberPage, velarium }, use) => {
    await goToBoard(memberPage, velarium);
    await use(memberPage);
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

/** Signs this member in, and opens nothing yet. */
export async function bringSession(page: Page, velarium: Velarium, email?: string): Promise<void> {
  const { name, value } = await sessionOf(velarium, email);
  await page.context().addCookies([{ name, value, url: velarium.studio, httpOnly: true, sameSite: 'Lax' }]);
}

async function goToBoard(page: Page, { studio }: Velarium): Promise<void> {
  await page.goto(`${studio}/`);
  await expect(page.getByRole('heading', { name: 'Board' })).toBeVisible();
}

/** Opens the Board as this member. */
export async function signIn(page: Page, velarium: Velarium, email?: string): Promise<void> {
  await bringSession(page, velarium, email);
  await goToBoard(page, velarium);
}

/** The clock is a context's: how far tests have driven it, milliseconds. */
const driven = new WeakMap<BrowserContext, number>();

/** A page of a site whose clock a test drives by `pass`; between, it runs on as fast as it would. */
export async function visit(context: BrowserContext, address: string): Promise<SitePage> {
  // Every page of a context has the same clock, and it is put in once.
  if (!driven.has(context)) {
    await context.clock.install({ time: new Date() });
    await context.addInitScript(() => {
      // Not yet: the clock of a later page is set to where the others are by scripts that come after this one.
      new MutationObserver((_, observer) => {
        observer.disconnect();
        (window as unknown as { bornMs: number }).bornMs = Date.now();
      }).observe(document, { childList: true });
    });
    driven.set(context, 0);
  }
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
  /**
   * Lets this much time pass on the page since it was last let pass, or since the page began; every timer due in it runs.
   * What has passed by itself meanwhile is part of it, so that a slow machine makes no page older than its test says.
   */
  async pass(seconds: number): Promise<void> {
    const context = this.page.context();
    const wantedMs = seconds * 1000;
    const { nowMs, bornMs } = await this.page.evaluate(() => ({
      nowMs: Date.now(),
      bornMs: (window as unknown as { bornMs?: number }).bornMs ?? Date.now(),
    }));
    const drivenMs = driven.get(context) ?? 0;
    // A page of its own that a link has led to.
    if (bornMs > this.passedUntilMs) this.isPassed(bornMs, drivenMs);
    const byItselfMs = Math.max(0, nowMs - this.passedUntilMs - (drivenMs - this.drivenThenMs));
    const leftMs = Math.max(0, wantedMs - byItselfMs);
    if (leftMs > 0) await this.page.clock.runFor(leftMs);
    driven.set(context, drivenMs + leftMs);
    const since = nowMs - byItselfMs;
    this.isPassed(since + wantedMs, drivenMs + leftMs);
  }
  /** Lets hours or days go by at once, as on a machine that slept: of what was due each timer runs once. */
  async sleep(ticks: number | string): Promise<void> {
    await this.page.clock.fastForward(ticks);
    this.isPassed(await this.page.evaluate(() => Date.now()), driven.get(this.page.context()) ?? 0);
  }
  /** Until when time has been let pass, by the page's clock, and how far its clock had been driven by then. */
  private passedUntilMs = 0;
  private drivenThenMs = 0;
  private isPassed(untilMs: number, drivenMs: number): void {
    this.passedUntilMs = untilMs;
    this.drivenThenMs = drivenMs;
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
  /** Waits until a message that opens has taken the focus, which it does once it has been painted. */
  async takesFocus(): Promise<void> {
    await expect
      .poll(async () => {
        await this.pass(0.1);
        return this.page.evaluate(() => document.activeElement?.localName);
      })
      .toBe('velarium-message');
  }
  get message() {
    return this.page.locator('velarium-message');
  }
  get dialog() {
    return this.page.getByRole('dialog');
  }
}
