import type { Device, PageRule, Rule, SiteSettings } from '@velarium/contract';
import { manifestSchema } from '@velarium/contract';
import { DEVICES } from '@velarium/contract/values';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { pageKeys, trackingTest } from '../pages/page-key.ts';
import { plainMessage, someHref, someRule } from '../testing/arbitrary.ts';
import { compileManifest } from './compile.ts';
import { createPageIndex } from './page-index.ts';

const site: SiteSettings = {
  sessionMinutes: 30,
  breakpoints: { mobile: 768, tablet: 1024 },
  trackingParameters: ['utm_source'],
};
const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const compile = (rules: readonly Rule[]) =>
  compileManifest(
    site,
    rules.map((rule, n) => ({
      id: id(n),
      version: 1,
      messageHash: 'f'.repeat(32),
      message: plainMessage,
      rule,
    })),
  );

/** The law as it is written: exclusion wins, and no include rule at all is nowhere. */
function plainReading({ reach }: Rule, href: string, device: Device): boolean {
  const isTracking = trackingTest(site.trackingParameters);
  const here = pageKeys(href, isTracking);
  const matches = (page: PageRule) => {
    if (page.kind === 'every') return true;
    const wanted = pageKeys(page.address, isTracking);
    return wanted.full === null ? wanted.path === here.path : wanted.full === here.full;
  };
  return (
    reach.pages.include.some(matches) && !reach.pages.exclude.some(matches) && reach.devices.includes(device)
  );
}

it('the compiled manifest lets through exactly what the rules say', () => {
  fc.assert(
    fc.property(
      fc.array(someRule, { maxLength: 6 }),
      fc.array(someHref, { minLength: 1, maxLength: 5 }),
      (rules, hrefs) => {
        const index = createPageIndex(compile(rules));
        for (const href of hrefs) {
          for (const device of DEVICES) {
            const expected = rules.flatMap((rule, n) => (plainReading(rule, href, device) ? [id(n)] : []));
            expect(index.candidates(href)[device].map((campaign) => campaign.id)).toEqual(expected);
          }
        }
      },
    ),
    { numRuns: 1500 },
  );
});

it('what it compiles keeps to the contract', () => {
  fc.assert(
    fc.property(fc.array(someRule, { maxLength: 4 }), (rules) => {
      expect(manifestSchema.safeParse(compile(rules)).success).toBe(true);
    }),
  );
});

it('says why a page does not fit', () => {
  const page = (address: string): PageRule => ({ kind: 'exact', address });
  const rule = (include: PageRule[], exclude: PageRule[]): Rule => ({
    moment: { triggers: [{ id: 'time', kind: 'time', seconds: 0 }] },
    reach: { pages: { include, exclude }, devices: ['desktop'] },
    limits: { caps: [], afterClose: 'none', afterConversion: 'none' },
  });
  const index = createPageIndex(
    compile([
      rule([], []),
      rule([page('/b')], []),
      rule([{ kind: 'every' }], [page('/a/')]),
      rule([page('/a')], [{ kind: 'every' }]),
      rule([page('/a?utm_source=x')], []),
    ]),
  );
  expect(index.fit('https://s.example/a#top')).toEqual([
    'nowhere',
    'unmatched',
    'excluded',
    'nowhere',
    'fits',
  ]);
});
