import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { type Browser, chromium, type Page } from '@playwright/test';
import type { Session, Site } from '@velarium/contract';
import pg from 'pg';
import { startCluster } from '../scripts/lib/cluster.mjs';
import { choosePorts } from '../scripts/lib/ports.mjs';
import { startWhole } from '../scripts/lib/whole.mjs';
import type { Figure } from './measure.ts';

/** One frame of a screen that shows sixty a second. */
const FRAME_MS = 1000 / 60;
const LETTERS = 40;

export interface BenchStudio {
  readonly browser: Browser;
  /** Signed in as an owner, on the Board. */
  readonly page: Page;
  readonly studio: string;
  readonly site: Site;
  /** What a change through the API must carry. */
  readonly headers: Readonly<Record<string, string>>;
  readonly database: pg.Client;
  stop(): Promise<void>;
}

/** The whole, seeded, on a cluster of its own, with a browser signed in. */
export async function startStudio(): Promise<BenchStudio> {
  const home = mkdtempSync('/tmp/velarium-bench-');
  chmodSync(home, 0o755);
  const cluster = await startCluster({ home, isThrowaway: true });
  const ports = await choosePorts({ studio: 0, edge: 0, fell: 0, skerry: 0, standins: 0, smtp: 0 });
  const whole = await startWhole({ databaseUrl: cluster.url, home, ports });
  const database = new pg.Client({ connectionString: cluster.url });
  await database.connect();
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell' });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const studio = `http://127.0.0.1:${ports.studio}`;
  await page.goto(`${studio}/sign-in`);
  await page.getByLabel('Mail address').fill('mara@quillonfell.example');
  await page.getByLabel('Password').fill('clear-skies-tonight');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('heading', { name: 'Board' }).waitFor();
  const { csrfToken } = (await (await page.request.get(`${studio}/api/session`)).json()) as Session;
  const [site] = (await (await page.request.get(`${studio}/api/sites`)).json()) as Site[];
  if (!site) throw new Error('bench: expected the demo sites, found none');
  return {
    browser,
    page,
    studio,
    site,
    headers: { 'x-csrf-token': csrfToken },
    database,
    async stop() {
      await browser.close();
      await database.end();
      await whole.stop();
      await cluster.stop();
      rmSync(home, { recursive: true, force: true });
    },
  };
}

/**
 * Milliseconds from each key to the paint that answers it, as the browser itself times them, to the next 8 ms. Source:
 * W3C Event Timing, `duration`. What is answered sooner than a frame is not told, and counts as one.
 */
export async function answersTo(
  page: Page,
  times: number,
  press: (n: number) => Promise<void>,
): Promise<number[]> {
  await page.evaluate(`{
    globalThis.tookMs = [];
    const watch = (view) => new view.PerformanceObserver((list) => {
      for (const { name, duration } of list.getEntries()) if (name === 'keydown') tookMs.push(duration);
    }).observe({ type: 'event', durationThreshold: 16 });
    watch(window);
    for (const { contentWindow } of document.querySelectorAll('iframe[title^="Message on"]')) watch(contentWindow);
  }`);
  for (let n = 0; n < times; n++) {
    await press(n);
    await page.waitForTimeout(120);
  }
  const told = (await page.evaluate('tookMs')) as number[];
  return [...told, ...Array.from({ length: Math.max(0, times - told.length) }, () => FRAME_MS)];
}

/** The same of an empty page with one field: what the browser and the machine take by themselves. */
export async function bareAnswers(browser: Browser): Promise<number[]> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.setContent('<p contenteditable>Words</p>');
  await page.locator('p').click();
  const took = await answersTo(page, LETTERS, () => page.keyboard.press('a'));
  await page.close();
  return took;
}

export function figure(where: string, what: string, tookMs: number[], bareMs: number[]): Figure {
  const at = (list: number[], share: number) =>
    [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * share))] ?? Number.NaN;
  const [ours, bare] = [at(tookMs, 0.5), at(bareMs, 0.5)];
  return {
    what: `${where}: ${what} until it is painted, median (95 % within ${at(tookMs, 0.95).toFixed(0)} ms); beside it a letter in an empty page`,
    ours: `${ours.toFixed(0)} ms`,
    reference: `${bare.toFixed(0)} ms`,
    ratio: `${(ours / bare).toFixed(2)}x`,
    target: 'within a frame of it',
    isMet: ours - bare <= FRAME_MS,
  };
}
