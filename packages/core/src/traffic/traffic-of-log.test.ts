import type { Source } from '@velarium/contract';
import { trafficSchema } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { murmur32 } from '../assignment/murmur.ts';
import { createLines } from './lines.ts';
import { createLogReader } from './traffic-of-log.ts';
import { foundWords, leftOutWords, trafficWords } from './traffic-words.ts';

const PHONE = 'Mozilla/5.0 (Linux; Android 14) AppleWebKit/537.36 Chrome/140.0 Mobile Safari/537.36';
const DESK = 'Mozilla/5.0 (Windows NT 10.0) AppleWebKit/537.36 Chrome/140.0 Safari/537.36';
const TABLET = 'Mozilla/5.0 (iPad; CPU OS 17_0 like Mac OS X) AppleWebKit/605.1.15';

interface Asked {
  readonly address?: string;
  readonly request?: string;
  readonly status?: number;
  readonly from?: string;
  readonly agent?: string;
}
/** A line at this time of 24 November 2026. */
const at = (
  time: string,
  { address = '203.0.113.7', request = 'GET / HTTP/1.1', status = 200, from = '-', agent = DESK }: Asked = {},
) => `${address} - - [24/Nov/2026:${time} +0000] "${request}" ${status} 512 "${from}" "${agent}"`;
const get = (path: string) => `GET ${path} HTTP/1.1`;

function readerOf(lines: readonly string[], most?: number) {
  const reader = createLogReader({
    hosts: ['quillonfell.example'],
    sessionMinutes: 30,
    isRobot: (agent) => agent.includes('spider'),
    sourceOf: (referrer, arrival): Source =>
      arrival.utm_medium === 'email' ? 'mail' : referrer === '' ? 'direct' : 'site',
    ...(most === undefined ? {} : { most }),
  });
  for (const line of lines) reader.add(line);
  return reader;
}

describe('traffic of a log', () => {
  it('is visitors by address and agent, with what each line tells of them', () => {
    const traffic = readerOf([
      at('10:00:00', { request: get('/?utm_medium=email'), from: 'https://partner.example/list' }),
      at('10:00:25', { request: get('/about'), from: 'https://quillonfell.example/' }),
      at('10:00:30', { agent: PHONE, request: get('/shop') }),
      at('10:00:40', { address: '203.0.113.8', agent: TABLET, from: 'https://quillonfell.example/x' }),
      // After the visit is over: how long the last page was read is not known.
      at('10:40:00', { request: get('/contact') }),
    ]).traffic();
    expect(trafficSchema.parse(traffic)).toMatchObject({ days: 1, visitors: 3, isSample: false });
    const byDevice = Object.fromEntries(traffic.list.map((one) => [one.device, one]));
    expect(byDevice.desktop).toMatchObject({
      browser: 'chromium',
      system: 'windows',
      source: 'mail',
      referrer: 'partner.example',
      pages: [
        { path: '/?utm_medium=email', seconds: 25, depth: null },
        { path: '/about', seconds: null },
        { path: '/contact', seconds: null },
      ],
    });
    expect(byDevice.mobile).toMatchObject({ system: 'android', source: 'direct' });
    // Who comes from the site itself has come from nowhere.
    expect(byDevice.tablet).toMatchObject({
      system: 'ios',
      browser: 'webkit',
      source: 'direct',
      referrer: '',
    });
    // Nothing of who they were is in it.
    expect(JSON.stringify(traffic)).not.toMatch(/203\.0\.113|Mozilla/);
  });

  it('stays as long as the next page of the same visit is away, to the minute the visit is over', () => {
    const secondsOf = (later: string) =>
      readerOf([at('10:00:00'), at(later)]).traffic().list[0]?.pages[0]?.seconds;
    expect(secondsOf('10:30:00')).toBe(1800);
    expect(secondsOf('10:30:01')).toBeNull();
  });

  it('takes lines in the order of their times, as several processes write them in none', () => {
    const [one] = readerOf([
      at('10:00:20', { request: get('/b') }),
      at('10:00:00', { request: get('/a') }),
    ]).traffic().list;
    expect(one?.pages).toMatchObject([{ path: '/a', seconds: 20 }, { path: '/b' }]);
  });

  it('leaves out what was no page view of a person, and says how much of each', () => {
    const reader = readerOf([
      at('10:00:00'),
      ...['/a.css', '/lib/x.min.js?v=3', '/p/drawn.WEBP', '/feed.xml'].map((path) =>
        at('10:00:01', { request: get(path) }),
      ),
      at('10:00:02', { agent: 'a spider' }),
      at('10:00:02', { agent: '-' }),
      at('10:00:03', { status: 404 }),
      at('10:00:03', { status: 301 }),
      at('10:00:03', { request: 'POST /contact HTTP/1.1' }),
      at('10:00:03', { request: '-' }),
      'no line of a log',
    ]);
    const found = reader.found();
    expect(found).toMatchObject({ lines: 12, views: 1, files: 4, robots: 2, noPages: 4, unreadable: 1 });
    expect(found.firstUnreadable).toMatchObject({
      line: 12,
      why: expect.stringContaining('not of the form'),
    });
    expect(found.views + found.files + found.robots + found.noPages + found.unreadable).toBe(found.lines);
    expect(foundWords(found, 'Europe/London')).toBe('1 page view in 12 lines, 24 November 2026');
    expect(leftOutWords(found)).toEqual([
      '4 files',
      '2 page views of robots',
      '4 answers that were no page',
      '1 line that cannot be read',
    ]);
    expect(leftOutWords({ ...found, files: 0, robots: 0, noPages: 1, unreadable: 0 })).toEqual([
      '1 answer that was no page',
    ]);
  });

  it('of nobody is of no days', () => {
    expect(readerOf([]).traffic()).toEqual({ days: 0, visitors: 0, isSample: false, list: [] });
  });

  it.each(['/', '/about', '/a/', '/index.html', '/page.php?id=1.5', '/v1.2', '/x.aspx', '/a.b/c'])(
    'takes %s for a page, and one still in the browser’s own cache too',
    (path) => {
      expect(readerOf([at('10:00:00', { request: get(path), status: 304 })]).found().views).toBe(1);
    },
  );

  it('keeps a fair sample in flat memory, reckoned up to all', () => {
    const visitors = 4000;
    const lines = Array.from({ length: visitors * 2 }, (_, n) =>
      at(`10:${String(Math.floor(n / visitors) + 10)}:00`, {
        address: `10.0.${Math.floor((n % visitors) / 250)}.${n % 250}`,
        agent: `${DESK} ${n % visitors}`,
      }),
    );
    const traffic = readerOf(lines, 1000).traffic();
    expect(traffic.isSample).toBe(true);
    expect(traffic.list.reduce((sum, { pages }) => sum + pages.length, 0)).toBeLessThanOrEqual(1000);
    // Of each that is kept all is kept.
    expect(traffic.list.every(({ pages }) => pages.length === 2)).toBe(true);
    // About 500 of 4000 are kept: four standard errors of that are a sixth.
    expect(Math.abs(traffic.visitors / visitors - 1)).toBeLessThan(0.18);
    expect(trafficWords('log', traffic)).toMatch(
      /^[\d,]+ visitors of 1 day in a server’s log, replayed \(a fair sample of \d+\)$/,
    );
  });

  it('keeps those whose hash lies below the largest half of a half that fits, in the order of their hashes', () => {
    const aVisitor = fc.nat({ max: 12 }).map((n) => `10.0.0.${n}`);
    fc.assert(
      fc.property(
        fc.array(aVisitor, { minLength: 1, maxLength: 60 }),
        fc.integer({ min: 1, max: 30 }),
        (addresses, most) => {
          const traffic = readerOf(
            addresses.map((address) => at('10:00:00', { address })),
            most,
          ).traffic();
          const viewsOf = new Map<number, number>();
          for (const address of addresses) {
            const hash = murmur32(`${address} ${DESK}`);
            viewsOf.set(hash, (viewsOf.get(hash) ?? 0) + 1);
          }
          const keptBelow = (below: number) => [...viewsOf].filter(([hash]) => hash < below);
          const fits = (below: number) =>
            keptBelow(below).length < 2 ||
            keptBelow(below).reduce((sum, [, views]) => sum + views, 0) <= most;
          let below = 2 ** 32;
          while (!fits(below)) below /= 2;
          expect(traffic.list.map(({ pages }) => pages.length)).toEqual(
            keptBelow(below)
              .sort(([a], [b]) => a - b)
              .map(([, views]) => views),
          );
          expect(traffic.visitors).toBe(Math.round(traffic.list.length * (2 ** 32 / below)));
          expect(traffic.isSample).toBe(below < 2 ** 32);
        },
      ),
    );
  });

  it('covers one day more with each whole day between its first page view and its last', () => {
    const on = (day: string, time: string) => at(time).replace('24/Nov', `${day}/Nov`);
    const daysOf = (...lines: string[]) => readerOf(lines).traffic().days;
    expect(daysOf(on('24', '10:00:00'))).toBe(1);
    expect(daysOf(on('23', '10:00:01'), on('24', '10:00:00'))).toBe(1);
    expect(daysOf(on('23', '10:00:00'), on('24', '10:00:00'))).toBe(2);
    expect(readerOf([on('24', '10:00:00')]).found()).toMatchObject({
      fromMs: Date.parse('2026-11-24T10:00Z'),
      untilMs: Date.parse('2026-11-24T10:00Z'),
    });
  });

  it('knows no tablet from a computer that says it is one', () => {
    const agent =
      'Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15_7) AppleWebKit/605.1.15 Version/17.0 Safari/605.1.15';
    expect(readerOf([at('10:00:00', { agent })]).traffic().list[0]).toMatchObject({ system: 'macos' });
  });

  it('says only what there was of what was left out', () => {
    const none = {
      lines: 9,
      views: 9,
      robots: 0,
      files: 0,
      noPages: 0,
      unreadable: 0,
      firstUnreadable: null,
    };
    const found = { ...none, fromMs: null, untilMs: null };
    expect(leftOutWords(found)).toEqual([]);
    expect(leftOutWords({ ...found, files: 1, robots: 1, noPages: 1, unreadable: 1 })).toEqual([
      '1 file',
      '1 page view of robots',
      '1 answer that was no page',
      '1 line that cannot be read',
    ]);
    expect(foundWords(found, 'Europe/London')).toBe('9 page views in 9 lines');
    expect(foundWords({ ...found, fromMs: 5 }, 'Europe/London')).toBe('9 page views in 9 lines');
    expect(foundWords({ ...found, untilMs: 5 }, 'Europe/London')).toBe('9 page views in 9 lines');
  });

  it('keeps no more of one visitor than can be replayed, and is nothing of an empty log', () => {
    const [one] = readerOf(
      Array.from({ length: 80 }, (_, n) => at(`10:00:${String(n % 60).padStart(2, '0')}`)),
    ).traffic().list;
    expect(one?.pages).toHaveLength(50);
    const none = readerOf(['']);
    expect(none.traffic()).toEqual({ days: 0, visitors: 0, isSample: false, list: [] });
    expect(none.found()).toMatchObject({ lines: 0, fromMs: null, untilMs: null, firstUnreadable: null });
  });
});

describe('lines of a text that comes in pieces', () => {
  const linesOf = (...pieces: string[]) => {
    const all: string[] = [];
    const lines = createLines((line) => all.push(line));
    for (const piece of pieces) lines.add(piece);
    lines.end();
    return all;
  };
  it.each<[what: string, pieces: string[], lines: string[]]>([
    ['cut in the middle', ['a', 'b\nc', 'd\n'], ['ab', 'cd']],
    ['with the ends of another system', ['a\r', '\nb\r\n'], ['a', 'b']],
    ['without an end', ['a\nb'], ['a', 'b']],
    ['of nothing', [''], []],
  ])('%s', (_what, pieces, lines) => {
    expect(linesOf(...pieces)).toEqual(lines);
  });

  it('keeps only the beginning of one that has no end', () => {
    const [line = ''] = linesOf(...Array.from({ length: 100 }, () => 'a'.repeat(10_000)));
    expect(line.length).toBeGreaterThan(20_000);
    expect(line.length).toBeLessThanOrEqual(131_072);
  });
});
