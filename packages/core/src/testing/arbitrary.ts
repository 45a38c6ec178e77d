import type {
  Audience,
  CampaignDocument,
  Condition,
  PageRule,
  Rule,
  Schedule,
  SiteSettings,
  Trigger,
} from '@velarium/contract';
import {
  BROWSERS,
  COMPARISONS,
  DEVICES,
  EXIT_CERTAINTIES,
  FORMATS,
  NORMAL_PRIORITY,
  SOURCES,
  SPAN_UNITS,
  SYSTEMS,
  WITHOUT_MEMORY,
} from '@velarium/contract/values';
import fc from 'fast-check';
import { FORMAT_ANCHORS } from '../message/placement.ts';
import { newBlock, PLAIN_MESSAGE } from '../message/plain.ts';

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

const someWord = fc.constantFrom('a', 'b”', '“x', 'y\\', 'and', 'a (b)', 'a, b or c');
const someSelector = fc.constantFrom('.price', '#end', 'a[href="/x"]');
const oneOf = <Value extends string>(...values: Value[]) => fc.constantFrom(...values);

/** Page groups and campaigns that random rules refer to; the last of each exists nowhere. */
export const GROUP_IDS = [1, 2, 9].map((n) => `10000000-0000-4000-8000-00000000000${n}`);
export const CAMPAIGN_IDS = [1, 2, 9].map((n) => `20000000-0000-4000-8000-00000000000${n}`);

/** Exact pages mostly, so that rules and visits meet. */
const somePage: fc.Arbitrary<PageRule> = fc.oneof(
  { weight: 2, arbitrary: fc.constant<PageRule>({ kind: 'every' }) },
  {
    weight: 8,
    arbitrary: fc.oneof(somePath, someHref).map((address): PageRule => ({ kind: 'exact', address })),
  },
  {
    weight: 2,
    arbitrary: fc.oneof(somePath, someHref).map((address): PageRule => ({ kind: 'begins', address })),
  },
  { weight: 1, arbitrary: someWord.map((text): PageRule => ({ kind: 'contains', text })) },
  {
    weight: 2,
    arbitrary: oneOf('/*', '/b/*', '/**', '/a*').map((pattern): PageRule => ({ kind: 'wildcard', pattern })),
  },
  {
    weight: 2,
    arbitrary: oneOf('^/a', 'c$', '[ab]', 'x=\\d').map((pattern): PageRule => ({ kind: 'regex', pattern })),
  },
  { weight: 1, arbitrary: someWord.map((name): PageRule => ({ kind: 'pageKind', name })) },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant('parameter' as const),
      name: oneOf('x', 'y'),
      value: fc.option(oneOf('1', '2'), { nil: null }),
    }),
  },
  { weight: 1, arbitrary: someSelector.map((selector): PageRule => ({ kind: 'holds', selector })) },
  { weight: 1, arbitrary: oneOf(...GROUP_IDS).map((id): PageRule => ({ kind: 'group', id })) },
);
const someSpan = fc.record({ count: fc.integer({ min: 1, max: 40 }), unit: fc.constantFrom(...SPAN_UNITS) });
const somePause = fc.oneof(oneOf('none', 'session', 'ever'), someSpan);
const tenths = (least: number, most: number) => fc.integer({ min: least, max: most }).map((n) => n / 10);
const comparison = fc.constantFrom(...COMPARISONS);
const fewUp = fc.integer({ min: 1, max: 24 });

export const someTrigger: fc.Arbitrary<Trigger> = fc.oneof(
  oneOf('ready', 'loaded').map((when): Trigger => ({ kind: 'load', when })),
  tenths(0, 36_000).map((seconds): Trigger => ({ kind: 'time', seconds })),
  tenths(0, 36_000).map((seconds): Trigger => ({ kind: 'sessionTime', seconds })),
  tenths(10, 36_000).map((seconds): Trigger => ({ kind: 'inactivity', seconds })),
  fc.record({ kind: fc.constant('scroll' as const), unit: oneOf('percent', 'pixels'), amount: fewUp }),
  someSelector.map((selector): Trigger => ({ kind: 'element', selector })),
  fc.constantFrom<Trigger>({ kind: 'articleEnd' }, { kind: 'tabReturn' }, { kind: 'hand' }),
  fc.constantFrom(...EXIT_CERTAINTIES).map((certainty): Trigger => ({ kind: 'exitMouse', certainty })),
  oneOf('scrollUp', 'back').map((by): Trigger => ({ kind: 'exitTouch', by })),
  fc.record({
    kind: fc.constant('interact' as const),
    what: oneOf('click', 'hover', 'focus'),
    selector: someSelector,
  }),
  fc.record({
    kind: fc.constant('count' as const),
    of: oneOf('viewsInSession', 'viewsOfPage', 'sessions'),
    atLeast: fewUp,
  }),
  fc.record({
    kind: fc.constant('event' as const),
    name: someWord,
    condition: fc.option(
      fc.record({ path: oneOf('a', 'a.b'), comparison, value: fc.oneof(fewUp, someWord, fc.boolean()) }),
      { nil: null },
    ),
  }),
);

const someCondition: fc.Arbitrary<Condition> = fc.oneof(
  oneOf('new', 'returning').map((is): Condition => ({ kind: 'visitor', is })),
  fc.record({ kind: oneOf('sessions', 'views', 'basketItems'), comparison, count: fewUp }),
  fc.boolean().map((is): Condition => ({ kind: 'signedIn', is })),
  fc.constantFrom(...SOURCES).map((is): Condition => ({ kind: 'source', is })),
  fc.domain().map((host): Condition => ({ kind: 'referrer', host })),
  fc.record({ kind: fc.constant('arrival' as const), parameter: someWord, value: someWord }),
  oneOf('/a', '/b').map((path): Condition => ({ kind: 'landing', path })),
  oneOf('en', 'en-gb').map((code): Condition => ({ kind: 'language', code })),
  oneOf('gb', 'unknown').map((code): Condition => ({ kind: 'country', code })),
  fc.constantFrom(...BROWSERS).map((is): Condition => ({ kind: 'browser', is })),
  fc.constantFrom(...SYSTEMS).map((is): Condition => ({ kind: 'system', is })),
  fc.record({ kind: fc.constant('basketTotal' as const), comparison, amount: fewUp }),
  fc.record({ kind: fc.constant('attribute' as const), name: someWord, value: someWord }),
  fc.record({
    kind: fc.constant('campaign' as const),
    id: fc.constantFrom(null, '00000000-0000-4000-8000-000000000001'),
    what: oneOf('seen', 'closed', 'converted'),
  }),
);
const match = oneOf('all', 'any');
const someAudience: fc.Arbitrary<Audience> = fc.record({
  match,
  groups: fc.array(
    fc.record({
      not: fc.boolean(),
      match,
      items: fc.array(fc.record({ not: fc.boolean(), condition: someCondition }), {
        minLength: 1,
        maxLength: 3,
      }),
    }),
    { minLength: 1, maxLength: 3 },
  ),
});

const someDate = oneOf('2026-12-01', '2026-12-24', '2027-01-31');
const someSchedule: fc.Arbitrary<Schedule> = fc.record({
  zone: oneOf('site', 'visitor'),
  start: fc.option(
    someDate.map((date) => `${date}T09:00`),
    { nil: null },
  ),
  end: fc.option(
    someDate.map((date) => `${date}T18:30`),
    { nil: null },
  ),
  days: fc.subarray([1, 2, 3, 4, 5, 6, 7]),
  hours: fc.array(fc.record({ from: oneOf('08:00', '18:00'), to: oneOf('12:00', '22:30') }), {
    maxLength: 2,
  }),
  blackouts: fc.array(
    fc.tuple(someDate, someDate).map(([a, b]) => (a < b ? { from: a, to: b } : { from: b, to: a })),
    { maxLength: 2 },
  ),
});

export const someRule: fc.Arbitrary<Rule> = fc.record({
  moment: fc.record({
    join: oneOf('any', 'all'),
    triggers: fc.array(someTrigger, { minLength: 1, maxLength: 4 }),
    notBeforeSeconds: fc.constantFrom(0, 1, 3),
    againAfterSeconds: fc.constantFrom(null, 1, 30),
  }),
  reach: fc.record({
    pages: fc.record({
      include: fc.array(somePage, { maxLength: 4 }),
      exclude: fc.array(somePage, { maxLength: 3 }),
      follows: fc.oneof({ weight: 4, arbitrary: fc.constant(null) }, oneOf(...CAMPAIGN_IDS)),
    }),
    devices: fc.subarray([...DEVICES]),
    audience: fc.option(someAudience, { nil: null }),
  }),
  limits: fc.record({
    caps: fc.array(
      fc.record({ max: fc.integer({ min: 1, max: 5 }), per: fc.oneof(oneOf('session', 'ever'), someSpan) }),
      { maxLength: 3 },
    ),
    afterClose: somePause,
    afterNo: somePause,
    afterConversion: somePause,
    stopAfterUnanswered: fc.constantFrom(null, 1, 3),
    schedule: fc.option(someSchedule, { nil: null }),
    whenBusy: oneOf('wait', 'yield'),
    priority: fc.integer({ min: 1, max: 9 }),
    withoutMemory: fc.constantFrom(...WITHOUT_MEMORY),
    holdout: fc.constantFrom(0, 5, 10),
  }),
});

/** What most tests leave alone. */
export const plainRule: Rule = {
  moment: {
    join: 'any',
    triggers: [{ kind: 'time', seconds: 5 }],
    notBeforeSeconds: 0,
    againAfterSeconds: null,
  },
  reach: {
    pages: { include: [{ kind: 'every' }], exclude: [], follows: null },
    devices: ['desktop'],
    audience: null,
  },
  limits: {
    caps: [],
    afterClose: 'session',
    afterNo: 'none',
    afterConversion: 'ever',
    stopAfterUnanswered: null,
    schedule: null,
    whenBusy: 'wait',
    priority: NORMAL_PRIORITY,
    withoutMemory: 'whenUncapped',
    holdout: 0,
  },
};

export const plainSettings: SiteSettings = {
  sessionMinutes: 30,
  breakpoints: { mobile: 768, tablet: 1024 },
  trackingParameters: ['utm_source'],
  pageParameters: [],
  limits: { perPageView: null, perSession: null, perDay: null, gapSeconds: 0 },
  privacy: { memory: 'assumed', honoursSignal: true },
  hashRoutes: false,
  sharedDomain: null,
  recordedFacts: null,
};

export const someSentenceInput = fc.constantFrom(...FORMATS).chain((format) =>
  fc.record({
    format: fc.constant(format),
    anchor: fc.constantFrom(...FORMAT_ANCHORS[format]),
    closing: fc.record({
      afterSeconds: fc.constantFrom(null, 2, 20),
      means: fc.constantFrom('later' as const, 'no' as const),
    }),
    rule: someRule,
    variants: fc.constantFrom(
      [],
      [{ id: 'b', weight: 30 }],
      [
        { id: 'b', weight: 20 },
        { id: 'c', weight: 10 },
      ],
    ),
  }),
);

export const plainMessage: CampaignDocument['message'] = {
  ...PLAIN_MESSAGE,
  format: 'modal',
  anchor: 'center',
  label: 'Message',
  steps: [{ id: 'first', role: 'first', blocks: [{ ...newBlock('heading'), id: 'title', text: 'Hello' }] }],
};
