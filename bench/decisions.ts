import type { Rule } from '@velarium/contract';
import { createPagePreparer, decideCaps, NO_ARRIVAL, newMemory, rememberShown } from '@velarium/core';
import jsonLogic, { type RulesLogic } from 'json-logic-js';
import { Engine } from 'json-rules-engine';
import { Bench } from 'tinybench';
import { type Figure, perSecond, times } from './measure.ts';
import { idOf, manifestOf, PLACED } from './one-site.ts';

const CAMPAIGNS = 20;
const PATTERNS = 5;
const NOW_MS = Date.UTC(2026, 10, 25);
const DEVICES = ['desktop', 'tablet', 'mobile'] as const;

/** Each campaign names five pages, leaves one device out and may be seen once every seven days. */
const paths = (campaign: number) =>
  Array.from({ length: PATTERNS }, (_, n) => `/section-${(campaign * 3 + n) % 40}/page-${n}`);
const devicesOf = (campaign: number) => DEVICES.filter((_, n) => n !== campaign % 3);
const rule = (campaign: number): Rule => ({
  moment: {
    join: 'any',
    triggers: [{ kind: 'time', seconds: 5 }],
    notBeforeSeconds: 0,
    againAfterSeconds: null,
  },
  reach: {
    pages: {
      include: paths(campaign).map((address) => ({ kind: 'exact', address })),
      exclude: [],
      follows: null,
    },
    devices: devicesOf(campaign),
    audience: null,
  },
  limits: {
    caps: [{ max: 1, per: { count: 7, unit: 'days' } }],
    afterClose: 'none',
    afterNo: 'none',
    afterConversion: 'none',
    stopAfterUnanswered: null,
    schedule: null,
    whenBusy: 'wait',
    priority: 5,
    withoutMemory: 'whenUncapped',
    holdout: 0,
  },
});
/** Nothing is known of these pages but their addresses. */
const ORIGIN = 'https://s.example';
const WEEK_MS = 7 * 86_400_000;

/** Page-view decisions a second: which of 20 campaigns of 5 pages each may show here, to this visitor, now. */
export async function measureDecisions(): Promise<Figure[]> {
  const ids = Array.from({ length: CAMPAIGNS }, (_, n) => n);
  const manifest = manifestOf(
    ids.map((n) => rule(n)),
    PLACED,
  );
  let memory = newMemory({ visitor: () => 'v', session: () => 's' }, NOW_MS, NO_ARRIVAL);
  for (const n of ids.filter((one) => one % 4 === 0)) {
    memory = rememberShown(memory, { id: idOf(n), epoch: 0 }, NOW_MS - 86_400_000);
  }
  const hrefs = Array.from({ length: 200 }, (_, n) => `${ORIGIN}/section-${n % 50}/page-${n % 7}`);
  // As visits are replayed: a page is read once for all who come to it.
  const prepare = createPagePreparer(manifest, {}, ORIGIN);
  const now = { nowMs: NOW_MS, session: 's' };
  const core = (href: string, device: (typeof DEVICES)[number]) => {
    let allowed = 0;
    for (const campaign of prepare(href.slice(ORIGIN.length), device).manifest.campaigns) {
      if (!decideCaps(campaign, memory.campaigns[campaign.id], now)) allowed++;
    }
    return allowed;
  };

  const logic = ids.map(
    (n): RulesLogic => ({
      and: [
        { in: [{ var: 'path' }, paths(n)] },
        { in: [{ var: 'device' }, devicesOf(n)] },
        {
          or: [
            { '!': [{ var: `seen.${n}` }] },
            { '>=': [{ '-': [{ var: 'now' }, { var: `seen.${n}` }] }, WEEK_MS] },
          ],
        },
      ],
    }),
  );
  const seen = Object.fromEntries(ids.map((n) => [n, memory.campaigns[idOf(n)]?.shownAtMs[0] ?? 0]));
  const viaLogic = (href: string, device: string) => {
    const data = { path: new URL(href).pathname, device, seen, now: NOW_MS };
    return logic.filter((one) => jsonLogic.apply(one, data)).length;
  };

  const engine = new Engine([], { allowUndefinedFacts: true });
  for (const n of ids) {
    engine.addRule({
      conditions: {
        all: [
          { fact: 'path', operator: 'in', value: paths(n) },
          { fact: 'device', operator: 'in', value: devicesOf(n) },
          { fact: `age${n}`, operator: 'greaterThanInclusive', value: WEEK_MS },
        ],
      },
      event: { type: `c${n}` },
    });
  }
  const ages = Object.fromEntries(ids.map((n) => [`age${n}`, seen[n] ? NOW_MS - seen[n] : WEEK_MS]));
  const viaEngine = async (href: string, device: string) =>
    (await engine.run({ path: new URL(href).pathname, device, ...ages })).events.length;

  // A race in which they do not do the same work would be worth nothing.
  for (const href of hrefs) {
    for (const device of DEVICES) {
      const expected = core(href, device);
      const [a, b] = [viaLogic(href, device), await viaEngine(href, device)];
      if (a !== expected || b !== expected)
        throw new Error(`${href} on ${device}: core ${expected}, others ${a} and ${b}`);
    }
  }

  let turn = 0;
  const next = () => hrefs[turn++ % hrefs.length] as string;
  const bench = new Bench({ time: 1500, warmupTime: 300 });
  bench
    .add('core', () => {
      for (let n = 0; n < 100; n++) core(next(), DEVICES[n % 3] as 'desktop');
    })
    .add('json-logic-js', () => {
      for (let n = 0; n < 100; n++) viaLogic(next(), DEVICES[n % 3] as string);
    })
    .add('json-rules-engine', async () => {
      for (let n = 0; n < 100; n++) await viaEngine(next(), DEVICES[n % 3] as string);
    });
  await bench.run();
  const [ours = 0, logicRate = 0, engineRate = 0] = bench.tasks.map(({ result }) =>
    'throughput' in result ? result.throughput.mean * 100 : 0,
  );
  return [
    {
      what: 'page-view decisions, 20 campaigns of 5 pages',
      ours: perSecond(ours),
      reference: `json-logic-js ${perSecond(logicRate)}`,
      ratio: times(ours / logicRate),
      target: 'at least 75x, and 1,000,000 /s',
      isMet: ours / logicRate >= 75 && ours >= 1_000_000,
    },
    {
      what: 'the same',
      ours: perSecond(ours),
      reference: `json-rules-engine ${perSecond(engineRate)}`,
      ratio: times(ours / engineRate),
      target: 'more',
      isMet: ours > engineRate,
    },
  ];
}
