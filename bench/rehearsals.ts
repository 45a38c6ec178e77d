import { cpus } from 'node:os';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';
import type { Manifest, Rehearsal, Rule, TrafficVisitor } from '@velarium/contract';
import { beginPage, beginRehearsal, createRehearser } from '@velarium/core';
import { build } from 'esbuild';
import { type Figure, perSecond, times } from './measure.ts';
import { LIMITS, manifestOf, PLACED } from './one-site.ts';

const CAMPAIGNS = 50;
const REHEARSALS = 500;
const TRIGGERS: readonly Rule['moment']['triggers'][] = [
  [{ kind: 'time', seconds: 8 }],
  [{ kind: 'scroll', unit: 'percent', amount: 50 }],
  [{ kind: 'exitMouse', certainty: 'likely' }],
  [{ kind: 'count', of: 'viewsInSession', atLeast: 2 }],
  [{ kind: 'sessionTime', seconds: 45 }],
];

const rule = (n: number): Rule => ({
  moment: {
    join: 'any',
    triggers: [...(TRIGGERS[n % TRIGGERS.length] ?? [])],
    notBeforeSeconds: 0,
    againAfterSeconds: null,
  },
  reach: {
    pages: { include: [{ kind: 'begins', address: `/section-${n % 10}/` }], exclude: [], follows: null },
    devices: n % 3 === 0 ? ['mobile'] : ['desktop', 'tablet', 'mobile'],
    audience:
      n % 4 === 0
        ? {
            match: 'all',
            groups: [
              {
                not: false,
                match: 'all',
                items: [{ not: false, condition: { kind: 'visitor', is: 'new' } }],
              },
            ],
          }
        : null,
  },
  limits: { ...LIMITS, withoutMemory: 'whenUncapped' },
});

const manifest = (): Manifest =>
  manifestOf(
    Array.from({ length: CAMPAIGNS }, (_, n) => rule(n)),
    PLACED,
    {
      trackingParameters: [],
      limits: { perPageView: null, perSession: 3, perDay: null, gapSeconds: 5 },
    },
  );

/** Four pages, on which people leave, come back and close what opens. */
const visit = (n: number, { campaigns }: Manifest): Rehearsal => ({
  ...beginRehearsal(beginPage('/'), '2026-11-25T20:00'),
  pages: Array.from({ length: 4 }, (_, page) => ({
    ...beginPage(`/section-${(n + page) % 10}/page-${page}`, {
      seconds: 20 + (n % 40),
      depth: 40 + (n % 60),
    }),
    happenings: [
      { at: 6, what: 'leavesByMouse' as const, certainty: 'certain' as const },
      { at: 9, what: 'away' as const, seconds: 5 },
    ],
  })),
  reactions: campaigns.map(({ id }) => ({ campaign: id, does: 'close' as const, afterSeconds: 3 })),
});

/** Who is sent to the threads, and how often each of them is played: a million in all, of whom only the first have to be kept. */
const VISITORS = 40_000;
const AGAIN = 25;
const FORECAST_CAMPAIGNS = 20;
/** Sessions a second that are wished for: a million of four pages in five seconds. */
const WISHED = 200_000;

/** The replay as it is shipped: bundled for browsers, and made small. */
async function bundleReplay(): Promise<string> {
  const { outputFiles } = await build({
    entryPoints: [fileURLToPath(new URL('./replay-thread.ts', import.meta.url))],
    bundle: true,
    minify: true,
    format: 'iife',
    logLevel: 'error',
    write: false,
  });
  return outputFiles[0]?.text ?? '';
}

/**
 * How many sessions of four pages a browser replays in a second, in as many threads as there are processors, each its share
 * of them.
 */
async function measureForecast(): Promise<Figure> {
  const whole = manifest();
  const cast = { ...whole, campaigns: whole.campaigns.slice(0, FORECAST_CAMPAIGNS) };
  const list = Array.from({ length: VISITORS }, (_, n): TrafficVisitor => {
    const { visitor, pages } = visit(n, cast);
    const { met: _met, begins: _begins, ...about } = visitor;
    return {
      ...about,
      pages: pages.map(({ path, seconds, depth }, at) => ({
        path,
        atMs: Date.parse('2026-11-02T12:00Z') + at * 60_000,
        seconds,
        depth,
      })),
    };
  });
  const code = await bundleReplay();
  const cores = cpus().length;
  const shares = Array.from({ length: cores }, (_, n) => list.filter((_one, at) => at % cores === n));
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell' });
  const page = await browser.newPage();
  const told = await page.evaluate(
    ([script, each, of, again]) => {
      const address = URL.createObjectURL(new Blob([script], { type: 'text/javascript' }));
      return Promise.all(
        each.map(
          (share) =>
            new Promise<{ ms: number; showings: number }>((resolve, reject) => {
              const thread = new Worker(address);
              thread.onmessage = ({ data }) => resolve(data);
              thread.onerror = reject;
              const list = Array.from({ length: again }, () => share).flat();
              const traffic = { days: 28, visitors: list.length, isSample: false, list };
              thread.postMessage({ manifest: of, traffic });
            }),
        ),
      );
    },
    [code, shares, cast, AGAIN] as const,
  );
  await browser.close();
  const rate = (VISITORS * AGAIN) / (Math.max(...told.map(({ ms }) => ms)) / 1000);
  const showings = told.reduce((sum, one) => sum + one.showings, 0);
  if (showings === 0) throw new Error('expected messages to open');
  return {
    what: `sessions of 4 pages, a million of them, replayed against ${FORECAST_CAMPAIGNS} campaigns, in a browser, ${cores} threads`,
    ours: perSecond(rate),
    reference: perSecond(WISHED),
    ratio: times(rate / WISHED),
    target: 'at least 1x',
    isMet: rate >= WISHED,
  };
}

/** How long every kept rehearsal of a site takes at a publish, and one while somebody drags. */
export async function measureRehearsals(): Promise<Figure[]> {
  const cast = manifest();
  const visits = Array.from({ length: REHEARSALS }, (_, n) => visit(n, cast));
  const play = createRehearser({ manifest: cast, origin: 'https://s.example' });
  for (const one of visits.slice(0, 50)) play(one);
  const beganAt = performance.now();
  const openings = visits.reduce((sum, one) => sum + play(one).openings.length, 0);
  const ms = performance.now() - beganAt;
  if (openings === 0) throw new Error('expected messages to open');
  return [
    {
      what: `${REHEARSALS} rehearsals of 4 pages against ${CAMPAIGNS} campaigns`,
      ours: `${ms.toFixed(0)} ms`,
      reference: 'none',
      ratio: '',
      target: 'at most 1000 ms',
      isMet: ms <= 1000,
    },
    {
      what: 'one of them, while dragging',
      ours: `${(ms / REHEARSALS).toFixed(2)} ms`,
      reference: 'none',
      ratio: '',
      target: 'within a frame, 16 ms',
      isMet: ms / REHEARSALS <= 16,
    },
    await measureForecast(),
  ];
}
