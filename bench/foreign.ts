import { readdirSync, readFileSync } from 'node:fs';
import { brotliCompressSync } from 'node:zlib';
import { type Browser, chromium, type Frame } from '@playwright/test';
import type { Manifest, PageRule, Rule, Trigger } from '@velarium/contract';
import { bundleTag } from '../scripts/lib/bundle.mjs';
import { type Figure, median } from './measure.ts';
import { FILE, LIMITS, manifestOf } from './one-site.ts';
import { serveEdge } from './served-edge.ts';
import { WATCH, type Watched } from './watched.ts';

const SITE = 'http://fell.localhost';
const EDGE = 'http://edge.localhost';
const KEY = 'quillonfell2';
const PAGES = new URL('../e2e/pages/', import.meta.url);
const LOADS = 10;
/** A message that opens at once is there by then. */
const SETTLE_MS = 1200;
/** This one draws itself after three seconds. */
const APPLICATION = 'application.html';
const DRAWN_MS = 3000;

const rule = (include: PageRule, trigger: Trigger = { kind: 'time', seconds: 0 }): Rule => ({
  moment: { join: 'any', triggers: [trigger], notBeforeSeconds: 0, againAfterSeconds: null },
  reach: {
    pages: { include: [include], exclude: [], follows: null },
    devices: ['desktop', 'tablet', 'mobile'],
    audience: null,
  },
  limits: LIMITS,
});
const elsewhere = (n: number): PageRule => ({ kind: 'exact', address: `/elsewhere-${n}` });
const TEN = Array.from({ length: 10 }, (_, n) => n);

/** Ten campaigns each. */
const SITES = {
  /** None of them can open here. */
  quiet: manifestOf(TEN.map((n) => rule(elsewhere(n)))),
  /** None can open here either; elsewhere one waits for leaving, and one lies on a folder and has a schedule. */
  quietWithExtras: manifestOf([
    ...TEN.slice(2).map((n) => rule(elsewhere(n))),
    rule(elsewhere(0), { kind: 'exitMouse', certainty: 'likely' }),
    {
      ...rule({ kind: 'begins', address: '/elsewhere/' }),
      limits: {
        ...LIMITS,
        schedule: { zone: 'site', start: null, end: null, days: [1], hours: [], blackouts: [] },
      },
    },
  ]),
  /** The first opens at once. */
  message: manifestOf([rule({ kind: 'every' }), ...TEN.slice(1).map((n) => rule(elsewhere(n)))]),
} satisfies Record<string, Manifest>;
type Carried = keyof typeof SITES | 'nothing';
const CARRIED: readonly Carried[] = ['nothing', 'quiet', 'quietWithExtras', 'message'];

interface Load extends Watched {
  /** Of the document that asks the most. */
  readonly requests: number;
  /** On the wire, as the edge compresses them; heads apart. */
  readonly bytes: number;
}

/** What pages that nobody here wrote pay for the tag, or for a message: medians of {@link LOADS} loads in turns, of each page. */
export async function measureForeign(): Promise<Figure[]> {
  await bundleTag();
  const names = readdirSync(PAGES).filter((name) => name.endsWith('.html'));
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell' });
  try {
    const medians: Record<Carried, Load>[] = [];
    for (const name of names) medians.push(await mediansOf(browser, name));
    const most = (carried: Carried, key: keyof Load) =>
      Math.max(...medians.map((page) => page[carried][key]));
    const moved = Math.max(
      ...medians.flatMap(({ nothing, quiet, message }) =>
        [quiet, message].map(({ shift }) => Math.abs(shift - nothing.shift)),
      ),
    );
    const own = most('nothing', 'longest');
    const longest = Math.max(most('quiet', 'longest'), most('message', 'longest'));
    const first = most('message', 'bytes') - most('quiet', 'bytes');
    const told = (ms: number) => (ms === 0 ? 'none over 50 ms' : `${ms.toFixed(0)} ms`);
    const where = `${names.length} pages nobody here wrote, at most of the medians of ${LOADS} loads`;
    const weight = (what: string, carried: Carried): Figure => ({
      what: `${where}: ${what}, what is sent included`,
      ours: `${most(carried, 'requests')} requests, ${most(carried, 'bytes')} bytes brotli`,
      reference: '3 requests, 8,000 bytes',
      ratio: '',
      target: 'at most',
      isMet: most(carried, 'requests') <= 3 && most(carried, 'bytes') <= 8000,
    });
    return [
      {
        what: `${where}: layout shift beside the page’s own, with the tag and with a message`,
        ours: moved.toFixed(4),
        reference: '0.0000',
        ratio: '',
        target: 'equal to four places',
        isMet: moved < 0.00005,
      },
      {
        what: `${where}: longest task`,
        ours: told(longest),
        reference: `${told(own)} without the tag`,
        ratio: '',
        target: 'no long one of ours',
        isMet: longest <= Math.max(50, own),
      },
      weight('where nothing can show', 'quiet'),
      weight('where nothing can show, on a site whose other pages ask for the extras', 'quietWithExtras'),
      {
        what: `${where}: the first message, beside what the tag alone loads`,
        ours: `${first} bytes brotli`,
        reference: '16,000 bytes',
        ratio: '',
        target: 'at most',
        isMet: first <= 16_000,
      },
    ];
  } finally {
    await browser.close();
  }
}

async function mediansOf(browser: Browser, name: string): Promise<Record<Carried, Load>> {
  const loads: Record<Carried, Load[]> = { nothing: [], quiet: [], quietWithExtras: [], message: [] };
  for (let n = 0; n < LOADS; n++)
    for (const carried of CARRIED) loads[carried].push(await load(browser, name, carried));
  const middle = (all: readonly Load[]): Load => ({
    longest: median(all.map((one) => one.longest)),
    shift: median(all.map((one) => one.shift)),
    paint: median(all.map((one) => one.paint)),
    requests: median(all.map((one) => one.requests)),
    bytes: median(all.map((one) => one.bytes)),
  });
  return {
    nothing: middle(loads.nothing),
    quiet: middle(loads.quiet),
    quietWithExtras: middle(loads.quietWithExtras),
    message: middle(loads.message),
  };
}

async function load(browser: Browser, name: string, carried: Carried): Promise<Load> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const snippet = carried === 'nothing' ? '' : `<script async src="${EDGE}/tag/${KEY}.js"></script>`;
  const html = readFileSync(new URL(name, PAGES), 'utf8').replace('<body', `${snippet}<body`);
  await page.route(`${SITE}/**`, (route) => route.fulfill({ contentType: 'text/html', body: html }));
  /** What a frame asks for again is in the browser's cache; its requests are its own. */
  const fetched = new Map<string, number>();
  const asked = new Map<Frame, number>();
  if (carried !== 'nothing')
    await serveEdge(
      page,
      { edge: EDGE, key: KEY, manifest: SITES[carried], file: FILE },
      ({ path, body, frame }) => {
        asked.set(frame, (asked.get(frame) ?? 0) + 1);
        fetched.set(path, body.length === 0 ? 0 : brotliCompressSync(body).length);
      },
    );
  await page.addInitScript({ content: WATCH });
  await page.goto(`${SITE}/${name}`);
  // Nothing is asked of the page meanwhile: asking would count as its own work.
  await page.waitForTimeout(SETTLE_MS + (name === APPLICATION ? DRAWN_MS : 0));
  if ((await page.locator('velarium-message').count()) !== (carried === 'message' ? 1 : 0))
    throw new Error(`bench: ${name} with ${carried} shows no message, or one too many`);
  const seen = await page.evaluate(() => (window as unknown as { seen: Watched }).seen);
  await context.close();
  const bytes = [...fetched.values()].reduce((sum, one) => sum + one, 0);
  return { ...seen, requests: Math.max(0, ...asked.values()), bytes };
}
