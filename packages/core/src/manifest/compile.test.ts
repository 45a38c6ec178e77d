import type { Device, PageRule, Rule } from '@velarium/contract';
import { manifestSchema } from '@velarium/contract';
import { DEVICES } from '@velarium/contract/values';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { pageKeys, trackingTest } from '../pages/page-key.ts';
import { plainMessage, plainRule, plainSettings, someHref, someRule } from '../testing/arbitrary.ts';
import { EXTRAS } from '../visit/extras.ts';
import { compileManifest } from './compile.ts';
import { createPageIndex } from './page-index.ts';

/** More cases on request: `VELARIUM_CASES=100000 npx vitest run packages/core`. */
const CASES = Number(process.env.VELARIUM_CASES ?? 10_000);

const isTracking = trackingTest(plainSettings.trackingParameters);
const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const compile = (rules: readonly Rule[]) =>
  compileManifest(
    { settings: plainSettings, timeZone: 'Europe/London' },
    rules.map((rule, n) => ({
      id: id(n),
      version: 1,
      messageHash: 'f'.repeat(32),
      message: plainMessage,
      rule,
    })),
  );
const facts = { kind: 'and', holds: (selector: string) => selector === '.price' };

/** The law as it is written, read slowly: exclusion wins, and no include rule at all is nowhere. */
function plainReading({ reach }: Rule, href: string, device: Device): boolean {
  const here = pageKeys(href, isTracking);
  const among = (page: PageRule): boolean => {
    const keys = (address: string) => pageKeys(address, isTracking);
    const mine = (address: string) => (keys(address).full === null ? here.path : (here.full ?? ''));
    const theirs = (address: string) => keys(address).full ?? keys(address).path;
    switch (page.kind) {
      case 'every':
        return true;
      case 'exact':
        return theirs(page.address) === mine(page.address);
      case 'begins': {
        const folder = /[^:/]\/+([?#]|$)/.test(page.address);
        const start = theirs(page.address) + (folder && !theirs(page.address).endsWith('/') ? '/' : '');
        const [path = '', query] = mine(page.address).split('?');
        const slashed = (path.endsWith('/') ? path : `${path}/`) + (query === undefined ? '' : `?${query}`);
        return mine(page.address).startsWith(start) || slashed.startsWith(start);
      }
      case 'contains':
        return (here.full ?? here.path).includes(page.text);
      case 'wildcard': {
        const escaped = theirs(page.pattern).replace(/[.+?^${}()|[\]\\]/g, '\\$&');
        const source = escaped.replace(/\*\*|\*/g, (mark) => (mark === '*' ? '[^/?]*' : '[^]*'));
        return new RegExp(`^${source}$`).test(mine(page.pattern));
      }
      case 'regex':
        return new RegExp(page.pattern).test(here.path);
      case 'pageKind':
        return facts.kind === page.name;
      case 'parameter': {
        const value = new URLSearchParams(here.path.split('?')[1] ?? '').get(page.name);
        return value !== null && (page.value === null || page.value === value);
      }
      case 'holds':
        return facts.holds(page.selector);
    }
  };
  return (
    reach.pages.include.some(among) && !reach.pages.exclude.some(among) && reach.devices.includes(device)
  );
}

it('the compiled manifest lets through exactly what the rules say', () => {
  fc.assert(
    fc.property(
      fc.array(someRule, { maxLength: 4 }),
      someHref,
      fc.constantFrom(...DEVICES),
      (rules, href, device) => {
        const index = createPageIndex(compile(rules), EXTRAS);
        const expected = rules.flatMap((rule, n) => (plainReading(rule, href, device) ? [id(n)] : []));
        // Twice: the second answer comes from the memo.
        for (let n = 0; n < 2; n++) {
          expect(index.candidates(href, facts)[device].map((campaign) => campaign.id)).toEqual(expected);
        }
      },
    ),
    { numRuns: CASES },
  );
}, 60_000);

it('what it compiles keeps to the contract', () => {
  fc.assert(
    fc.property(fc.array(someRule, { maxLength: 4 }), (rules) => {
      expect(manifestSchema.parse(compile(rules))).toBeTruthy();
    }),
  );
});

it('exclusion wins over any inclusion, whatever the kinds and the order', () => {
  fc.assert(
    fc.property(someRule, someHref, fc.constantFrom(...DEVICES), (rule, href, device) => {
      const { include } = rule.reach.pages;
      const both: Rule = {
        ...rule,
        reach: { ...rule.reach, pages: { include, exclude: [...include].reverse() } },
      };
      expect(createPageIndex(compile([both]), EXTRAS).candidates(href, facts)[device]).toEqual([]);
    }),
  );
});

it('says why a page does not fit', () => {
  const page = (address: string): PageRule => ({ kind: 'exact', address });
  const rule = (include: PageRule[], exclude: PageRule[]): Rule => ({
    ...plainRule,
    reach: { ...plainRule.reach, pages: { include, exclude } },
  });
  const index = createPageIndex(
    compile([
      rule([], []),
      rule([page('/b')], []),
      rule([{ kind: 'every' }], [page('/a/')]),
      rule([page('/a')], [{ kind: 'every' }]),
      rule([page('/a?utm_source=x')], []),
    ]),
    EXTRAS,
  );
  expect(index.fit('https://s.example/a#top', facts)).toEqual([
    'nowhere',
    'unmatched',
    'excluded',
    'nowhere',
    'fits',
  ]);
});

it.each([
  ['/journal/', '/journal', true],
  ['/journal/', '/journal/aurora', true],
  ['/journal/', '/journalism', false],
  ['/journal', '/journalism', true],
  ['/journal/', '/journal?page=2', true],
  ['https://s.example/', 'https://s.example', true],
])('what begins with %s and %s: %s', (address, path, expected) => {
  const rule: Rule = {
    ...plainRule,
    reach: { ...plainRule.reach, pages: { include: [{ kind: 'begins', address }], exclude: [] } },
  };
  const href = path.startsWith('/') ? `https://s.example${path}` : path;
  expect(createPageIndex(compile([rule]), EXTRAS).candidates(href, facts).desktop).toHaveLength(
    expected ? 1 : 0,
  );
});
