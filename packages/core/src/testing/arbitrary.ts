import type { CampaignDocument, PageRule, Rule } from '@velarium/contract';
import { DEVICES, FORMATS, SPAN_UNITS } from '@velarium/contract/values';
import fc from 'fast-check';
import { FORMAT_ANCHORS } from '../message/placement.ts';

/** Random rules and addresses for property tests. Few paths, so that rules and visits meet. */
const somePath = fc.constantFrom(
  '/',
  '/a',
  '/a/',
  '/a?x=1',
  '/a,',
  '/b',
  '/b/c',
  '/caf%C3%A9',
  '/café',
  '/d%2Fe',
);
export const someHref = fc
  .tuple(fc.constantFrom('https://s.example', 'https://T.example'), somePath, fc.constantFrom('', '#f'))
  .map((parts) => parts.join(''));

const somePage: fc.Arbitrary<PageRule> = fc.oneof(
  { weight: 1, arbitrary: fc.constant<PageRule>({ kind: 'every' }) },
  {
    weight: 5,
    arbitrary: fc.oneof(somePath, someHref).map((address): PageRule => ({ kind: 'exact', address })),
  },
);
const someSpan = fc.record({ count: fc.integer({ min: 1, max: 40 }), unit: fc.constantFrom(...SPAN_UNITS) });
const somePause = fc.oneof(fc.constantFrom('none' as const, 'session' as const, 'ever' as const), someSpan);

export const someRule: fc.Arbitrary<Rule> = fc.record({
  moment: fc.record({
    triggers: fc
      .integer({ min: 0, max: 36_000 })
      .map((tenths) => [{ id: 'time', kind: 'time' as const, seconds: tenths / 10 }]),
  }),
  reach: fc.record({
    pages: fc.record({
      include: fc.array(somePage, { maxLength: 4 }),
      exclude: fc.array(somePage, { maxLength: 3 }),
    }),
    devices: fc.subarray([...DEVICES]),
  }),
  limits: fc.record({
    caps: fc.array(
      fc.record({
        max: fc.integer({ min: 1, max: 5 }),
        per: fc.oneof(fc.constantFrom('session' as const, 'ever' as const), someSpan),
      }),
      { maxLength: 3 },
    ),
    afterClose: somePause,
    afterConversion: somePause,
  }),
});

export const someSentenceInput = fc.constantFrom(...FORMATS).chain((format) =>
  fc.record({
    format: fc.constant(format),
    anchor: fc.constantFrom(...FORMAT_ANCHORS[format]),
    rule: someRule,
  }),
);

export const plainMessage: CampaignDocument['message'] = {
  format: 'modal',
  anchor: 'center',
  width: 400,
  palette: {
    surface: '#ffffff',
    ink: '#000000',
    accent: '#000000',
    onAccent: '#ffffff',
    backdrop: '#000000',
  },
  label: 'Message',
  steps: [{ id: 'first', role: 'first', blocks: [{ id: 'title', kind: 'heading', text: 'Hello' }] }],
};
