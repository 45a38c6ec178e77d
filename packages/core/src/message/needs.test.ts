import type { Message } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { PLAIN_LOOK } from '../look/looks.ts';
import { plainMessage } from '../testing/arbitrary.ts';
import { asksFacts, personalPlaces } from './asks-facts.ts';
import { partsOf, picturesOf } from './needs.ts';
import { newBlock, PLAIN_MESSAGE } from './plain.ts';
import { nudgeBlock } from './walk.ts';

const block = (kind: Parameters<typeof newBlock>[0], more: object = {}) => ({
  ...newBlock(kind),
  id: kind,
  ...more,
});
const message = (blocks: object[], more: Partial<Message> = {}): Message => ({
  ...plainMessage,
  holdsPage: false,
  ...more,
  steps: [{ id: 'first', role: 'first', blocks: blocks as never }],
});

it('a message closes by a click beside it, holds the page still where it is modal, and stays in sight, unless it is said', () => {
  expect(PLAIN_MESSAGE).toMatchObject({
    backdropCloses: true,
    holdsPage: true,
    pushesPage: false,
    isSticky: true,
    darkens: false,
  });
});

describe('what must be loaded beside the renderer', () => {
  const on = (key: 'holdsPage' | 'pushesPage') => ({ [key]: true });
  const email = { id: 'mail', kind: 'email', label: 'Mail' };
  it.each<[what: string, parts: string[], made: Message]>([
    ['nothing for words and buttons', [], message([block('heading'), block('button')])],
    ['the form for a form', ['form'], message([block('form', { fields: [email] })])],
    ['both for a sum', ['form', 'further'], message([block('form', { fields: [email], asksSum: true })])],
    [
      'both for a pattern',
      ['form', 'further'],
      message([block('form', { fields: [{ ...email, kind: 'text', pattern: 'a' }] })]),
    ],
    [
      'both for a field few forms have',
      ['form', 'further'],
      message([block('form', { fields: [{ ...email, kind: 'stars' }] })]),
    ],
    ['the rest for a film', ['further'], message([block('film')])],
    ['what treats the page for a modal that holds it', ['behind'], message([], on('holdsPage'))],
    [
      'nothing for a fly-in that says so',
      [],
      message([], { format: 'flyin', anchor: 'bottom-end', ...on('holdsPage') }),
    ],
    [
      'what treats the page for a bar that makes room',
      ['behind'],
      message([], { format: 'bar', anchor: 'top', ...on('pushesPage') }),
    ],
    ['nothing for a modal that would', [], message([], on('pushesPage'))],
    [
      'the rest for a text of the visitor',
      ['further'],
      message([block('heading', { text: 'Hello {{visitor.firstName}}' })]),
    ],
    [
      'the rest for an address of a system',
      ['further'],
      message([
        block('button', {
          action: { kind: 'link', address: '/a', ios: 'https://a.example', android: '', opensTab: false },
        }),
      ]),
    ],
  ])('%s', (_, parts, made) => {
    expect(partsOf(made, PLAIN_LOOK)).toEqual(parts);
    // And the letters, where its Look is set in some of the site's own.
    const own = { fonts: { text: 'sans', heading: '"velarium 0123456789abcdef", Georgia, serif' } };
    expect(partsOf(made, own)).toEqual([...parts, 'letters']);
  });
});

it('the pictures of blocks, grounds and the close sign, each once', () => {
  const ground = (picture: string) => ({ ground: { kind: 'picture', picture } });
  const style = { all: ground('g1'), tablet: {}, mobile: ground('g2') };
  const blocks = [
    block('picture', { picture: 'p1' }),
    block('picture', { id: 'two', picture: null }),
    block('film', { picture: 'p1' }),
    block('heading', { style: { all: ground('g1'), tablet: {}, mobile: {} } }),
  ];
  const close = { ...PLAIN_MESSAGE.close, picture: 'c1' };
  expect(
    picturesOf(message(blocks, { style: style as never, close: { ...close, sign: 'picture' } as never })),
  ).toEqual(['p1', 'g1', 'g2', 'c1']);
  expect(
    picturesOf(message(blocks, { style: style as never, close: { ...close, sign: 'cross' } as never })),
  ).toEqual(['p1', 'g1', 'g2']);
});

it('places in texts are told once each; a count is filled without the page', () => {
  const made = message([
    block('heading', { text: '{{visitor.name|you}} and {{visitor.name|friend}}' }),
    block('count', { text: '{{count}} read {{page.title}}' }),
  ]);
  expect(personalPlaces(made).map(({ name }) => name)).toEqual(['visitor.name', 'page.title']);
  expect(asksFacts(made)).toBe(true);
  expect(asksFacts(message([block('heading', { text: '{{page.title}} {{basketry.x}}' })]))).toBe(false);
});

describe('one place up or down', () => {
  const leaf = (id: string) => block('heading', { id });
  const made = message([
    leaf('a'),
    block('columns', {
      id: 'c',
      columns: [
        { id: 'left', share: 1, blocks: [leaf('x'), leaf('y')] },
        { id: 'right', share: 1, blocks: [leaf('z')] },
      ],
    }),
    leaf('b'),
  ]);
  const order = ({ steps }: Message) =>
    steps[0]?.blocks.map((one) =>
      one.kind === 'columns'
        ? one.columns.map(({ blocks }) => blocks.map(({ id }) => id).join('')).join('|')
        : one.id,
    );
  it.each([
    ['a', 1, ['xy|z', 'a', 'b']],
    ['a', -1, ['a', 'xy|z', 'b']],
    ['b', 1, ['a', 'xy|z', 'b']],
    ['b', -1, ['a', 'b', 'xy|z']],
    ['x', 1, ['a', 'yx|z', 'b']],
    ['x', -1, ['a', 'x', 'y|z', 'b']],
    ['y', 1, ['a', 'x|z', 'y', 'b']],
    ['z', -1, ['a', 'z', 'xy|', 'b']],
    ['nobody', 1, ['a', 'xy|z', 'b']],
  ] as const)('%s by %i', (id, by, expected) => {
    expect(order(nudgeBlock(made, id, by))).toEqual(expected);
  });
});
