import type { Block, BlockKind, LeafBlock, Message, Style, Styled } from '@velarium/contract';
import {
  ATTENTIONS,
  COLOUR_ROLES,
  COUNTDOWN_UNITS,
  DIRECTIONS,
  EASINGS,
  FIELD_KINDS,
  FORMATS,
  MOTIONS,
  SHADOWS,
  SIDES_OF_PICTURE,
} from '@velarium/contract/values';
import fc from 'fast-check';
import { FORMAT_ANCHORS } from '../message/placement.ts';

/** Random message documents, hostile strings in every field that holds words. */
export const HOSTILE = [
  '<img src=x onerror=alert(1)>',
  '"><script>alert(1)</script>',
  "' onmouseover=alert(1) '",
  '{{constructor.constructor("alert(1)")()}}',
  '</style><style>*{display:none}',
  'url(javascript:alert(1))',
  '\u202Etxt\u0000',
];
const hostile = fc.oneof(fc.constantFrom(...HOSTILE), fc.string({ unit: 'binary', maxLength: 60 }));
const address = fc.oneof(
  hostile,
  fc.constantFrom('', '/a', 'https://a.example/b', 'javascript:alert(1)', 'data:text/html,x', 'blob:x'),
);
const whole = (max: number) => fc.integer({ min: 0, max });
const colour = fc.oneof(fc.constantFrom(...COLOUR_ROLES), fc.stringMatching(/^#[0-9a-f]{6}$/));
const size = fc.oneof(
  fc.record({ unit: fc.constant('px' as const), value: whole(2000) }),
  fc.record({ unit: fc.constant('percent' as const), value: fc.integer({ min: 1, max: 100 }) }),
  fc.record({ unit: fc.constant('content' as const) }),
);
const picture = fc.constantFrom('drawn:moon', 'drawn:none', '10000000-0000-4000-8000-000000000001');
const focus = fc.tuple(whole(100), whole(100));
const ground = fc.oneof(
  fc.record({ kind: fc.constant('colour' as const), colour }),
  fc.record({ kind: fc.constant('gradient' as const), from: colour, to: colour, degrees: whole(359) }),
  fc.record({ kind: fc.constant('picture' as const), picture, focus, tint: colour, strength: whole(100) }),
);
const someStyle = fc.record(
  {
    hidden: fc.boolean(),
    width: size,
    height: size,
    leastWidth: whole(2000),
    mostWidth: whole(2000),
    leastHeight: whole(2000),
    mostHeight: whole(2000),
    backdropCloses: fc.boolean(),
    holdsPage: fc.boolean(),
    pushesPage: fc.boolean(),
    isSticky: fc.boolean(),
    offsetBlock: whole(400),
    offsetInline: whole(400),
    space: whole(200),
    paddingBlock: whole(200),
    paddingInline: whole(200),
    align: fc.constantFrom('start', 'center', 'end'),
    colour,
    ground,
    borderWidth: whole(20),
    borderColour: colour,
    corners: whole(200),
    shadow: fc.constantFrom(...SHADOWS),
    textSize: fc.integer({ min: 10, max: 96 }),
    weight: fc.constantFrom('normal', 'strong'),
    hoverColour: colour,
    hoverGround: colour,
    side: fc.constantFrom(...SIDES_OF_PICTURE),
    backdropColour: colour,
    backdropStrength: whole(100),
    backdropBlur: whole(40),
    own: fc.oneof(hostile, fc.constant('letter-spacing: .04em; color: #123456')),
  },
  { requiredKeys: [] },
) as fc.Arbitrary<Style>;
const someStyled: fc.Arbitrary<Styled> = fc.record({ all: someStyle, tablet: someStyle, mobile: someStyle });

const content = fc.array(
  fc.array(
    fc.record(
      {
        text: hostile,
        bold: fc.constant(true as const),
        italic: fc.constant(true as const),
        link: address,
        colour,
        size: fc.constantFrom('small', 'large'),
      },
      { requiredKeys: ['text'] },
    ),
    { maxLength: 3 },
  ),
  { maxLength: 3 },
);
const action = fc.oneof(
  fc.record(
    { kind: fc.constant('link'), address, newTab: fc.boolean(), ios: address, android: address },
    { requiredKeys: ['kind', 'address', 'newTab'] },
  ),
  fc.constantFrom({ kind: 'close' }, { kind: 'refuse' }, { kind: 'share' }, { kind: 'step', step: 'first' }),
  fc.record({ kind: fc.constant('copy'), text: hostile }),
  fc.record({ kind: fc.constant('call'), name: hostile }),
);
const id = fc.constantFrom('a', 'b', 'c', 'd');
const field = fc.record(
  {
    id,
    kind: fc.constantFrom(...FIELD_KINDS),
    label: hostile,
    placeholder: hostile,
    required: fc.boolean(),
    options: fc.array(hostile, { maxLength: 3 }),
    pattern: hostile,
    errorText: hostile,
    value: hostile,
    beside: fc.constant(true as const),
  },
  { requiredKeys: ['id', 'kind', 'label', 'placeholder', 'required'] },
);
const until = fc.oneof(
  fc.record({
    kind: fc.constant('date'),
    at: fc.constant('2026-12-24T18:00'),
    zone: fc.constantFrom('', 'Europe/London'),
  }),
  fc.record({ kind: fc.constant('visitor'), minutes: fc.integer({ min: 1, max: 9999 }) }),
  fc.record({ kind: fc.constant('daily'), at: fc.constant('18:00'), zone: fc.constant('') }),
);

const PARTS: {
  readonly [Kind in Exclude<BlockKind, 'columns' | 'saved'>]: Readonly<Record<string, fc.Arbitrary<unknown>>>;
} = {
  heading: { text: hostile },
  text: {
    content,
    size: fc.constantFrom('body', 'small'),
    marks: fc.constantFrom('none', 'dot', 'tick', 'number'),
  },
  picture: {
    picture: fc.option(picture),
    alt: hostile,
    isDecoration: fc.boolean(),
    ratio: fc.option(fc.integer({ min: 20, max: 500 })),
    focus,
    address,
  },
  button: {
    label: hostile,
    action,
    tone: fc.constantFrom('main', 'quiet', 'words'),
    attention: fc.constantFrom(...ATTENTIONS),
  },
  form: {
    fields: fc.array(field, { minLength: 1, maxLength: 4 }),
    consentText: hostile,
    submitLabel: hostile,
    asksSum: fc.boolean(),
  },
  code: { code: hostile, copyLabel: hostile, copiedLabel: hostile },
  countdown: {
    until,
    units: fc.uniqueArray(fc.constantFrom(...COUNTDOWN_UNITS), { minLength: 1 }),
    whenOver: fc.constantFrom('stay', 'hide', 'words', 'close'),
    overText: hostile,
  },
  share: {
    ways: fc.array(
      fc.record({ id, way: fc.constantFrom('system', 'mail', 'copy', 'address'), label: hostile, address }),
      { minLength: 1, maxLength: 4 },
    ),
    columns: fc.integer({ min: 1, max: 3 }),
    shape: fc.constantFrom('round', 'square'),
    shows: fc.constantFrom('both', 'words', 'sign'),
    hasGaps: fc.boolean(),
    hasCounts: fc.boolean(),
  },
  count: { of: fc.constantFrom('readers', 'shares'), from: fc.integer({ min: 1, max: 99 }), text: hostile },
  film: { address, title: hostile, picture: fc.option(picture), ratio: fc.integer({ min: 40, max: 300 }) },
  frame: { address, title: hostile, height: fc.integer({ min: 40, max: 1200 }) },
  html: { markup: hostile, title: hostile, height: fc.integer({ min: 20, max: 1200 }) },
  divider: {},
  space: { height: fc.integer({ min: 2, max: 400 }) },
};

const someLeaf: fc.Arbitrary<LeafBlock> = fc.oneof(
  ...Object.entries(PARTS).map(
    ([kind, parts]) =>
      fc.record({
        id,
        style: someStyled,
        kind: fc.constant(kind),
        ...parts,
      }) as unknown as fc.Arbitrary<LeafBlock>,
  ),
);
export const someBlock: fc.Arbitrary<Block> = fc.oneof(
  { weight: 8, arbitrary: someLeaf },
  {
    weight: 1,
    arbitrary: fc.record({
      id,
      style: someStyled,
      kind: fc.constant('columns' as const),
      columns: fc.array(
        fc.record({
          id,
          share: fc.integer({ min: 1, max: 12 }),
          blocks: fc.array(someLeaf, { maxLength: 2 }),
        }),
        { minLength: 2, maxLength: 3 },
      ),
    }),
  },
);

const someMotion = fc.record({
  kind: fc.constantFrom(...MOTIONS),
  from: fc.constantFrom(...DIRECTIONS),
  distance: fc.option(whole(1000)),
  ms: whole(4000),
  delayMs: whole(4000),
  easing: fc.constantFrom(...EASINGS),
});

export const someMessage: fc.Arbitrary<Message> = fc.constantFrom(...FORMATS).chain((format) =>
  fc.record({
    format: fc.constant(format),
    anchor: fc.constantFrom(...FORMAT_ANCHORS[format]),
    darkens: fc.boolean(),
    look: fc.constant(null),
    palette: fc.record({ ink: fc.stringMatching(/^#[0-9a-f]{6}$/) }, { requiredKeys: [] }),
    style: someStyled,
    close: fc.record({
      place: fc.constantFrom('inside' as const, 'outside' as const, 'edge' as const, 'hidden' as const),
      corner: fc.constantFrom('start' as const, 'end' as const),
      sign: fc.constantFrom('cross' as const, 'word' as const, 'picture' as const),
      picture: fc.constantFrom(null, 'drawn:moon'),
      word: hostile,
      size: fc.integer({ min: 24, max: 72 }),
      colour,
      hoverColour: colour,
      ground: fc.option(colour),
      delaySeconds: whole(5),
      onHover: fc.boolean(),
      means: fc.constantFrom('later' as const, 'no' as const),
      afterSeconds: fc.option(fc.integer({ min: 2, max: 3600 })),
    }),
    motion: fc.record({ enter: someMotion, leave: someMotion }),
    backdropCloses: fc.boolean(),
    holdsPage: fc.boolean(),
    pushesPage: fc.boolean(),
    isSticky: fc.boolean(),
    label: hostile,
    steps: fc
      .array(someBlock, { maxLength: 5 })
      .map((blocks) => [{ id: 'first', role: 'first' as const, blocks }]),
  }),
);
