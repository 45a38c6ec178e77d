import type { CampaignSummary } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LOOKS, PLAIN_LOOK } from '../look/looks.ts';
import { TEMPLATES } from '../templates/templates.ts';
import { someMessage } from '../testing/arbitrary-message.ts';
import { attentionOf, comingAfter } from './attention.ts';
import { firstSteps, type SiteFacts } from './first-steps.ts';
import { miniatureOf } from './miniature.ts';

const NOW = '2026-11-28T12:00:00.000Z';
type Watched = Pick<
  CampaignSummary,
  'state' | 'awaits' | 'publishedAt' | 'endsAt' | 'shownLately' | 'givenUp'
>;
const kinds = (campaign: Partial<Watched>) =>
  attentionOf(
    {
      state: 'running',
      publishedAt: NOW,
      endsAt: null,
      awaits: false,
      shownLately: 3,
      givenUp: 0,
      ...campaign,
    },
    Date.parse(NOW),
  );

describe('what wants a look', () => {
  it.each<[string, Partial<Watched>, string[]]>([
    ['nothing of what runs and is met', {}, []],
    ['a week without anybody', { publishedAt: '2026-11-21T12:00:00.000Z', shownLately: 0 }, ['unseen']],
    ['not a minute sooner', { publishedAt: '2026-11-21T12:01:00.000Z', shownLately: 0 }, []],
    ['nor what rests', { state: 'resting', publishedAt: '2026-11-01T00:00:00.000Z', shownLately: 0 }, []],
    ['an end a week off', { endsAt: '2026-12-05T12:00:00.000Z' }, ['ending']],
    ['not one further off', { endsAt: '2026-12-05T12:01:00.000Z' }, []],
    ['not one that is over', { state: 'ended', endsAt: NOW }, []],
    ['nor one that ends at this very moment', { endsAt: NOW }, []],
    ['one that ends in the next', { endsAt: '2026-11-28T12:00:00.001Z' }, ['ending']],
    ['what never arrived, also of what rests', { state: 'resting', givenUp: 2 }, ['failing']],
    ['but not of what is put away', { state: 'archived', givenUp: 2, awaits: true }, []],
    ['a launch that waits for somebody', { state: 'draft', awaits: true }, ['awaiting']],
    [
      'the most pressing first',
      {
        publishedAt: '2026-11-01T00:00:00.000Z',
        shownLately: 0,
        givenUp: 1,
        awaits: true,
        endsAt: '2026-11-29T12:00:00.000Z',
      },
      ['failing', 'awaiting', 'unseen', 'ending'],
    ],
  ])('%s', (_, campaign, expected) => {
    expect(kinds(campaign).map(({ kind }) => kind)).toEqual(expected);
  });
  it.each([
    ['2026-11-29T12:00:00.000Z', 'ends within a day'],
    ['2026-11-29T12:00:01.000Z', 'ends within 2 days'],
  ])('an end at %s: %s', (endsAt, text) => {
    expect(kinds({ endsAt })[0]?.text).toBe(text);
  });
});

it('who wants a place that another has first comes after it', () => {
  const lanes = ['a', 'b', 'c'].map((id) => ({ id, name: id.toUpperCase(), open: [], live: [] }));
  const found = [
    { first: 2, second: 0, pages: 17, when: [] },
    { first: 1, second: 0, pages: 1, when: [] },
    { first: 2, second: 1, pages: 1, when: [] },
    { first: 9, second: 2, pages: 1, when: [] },
    { first: 0, second: 9, pages: 1, when: [] },
  ];
  expect([...comingAfter(found, lanes)]).toEqual([
    ['a', 'comes after “C” on 17 pages'],
    ['b', 'comes after “C” on 1 page'],
  ]);
});

describe('a message from afar', () => {
  it('is in the colours it has in its Look, or in its own', () => {
    const template = TEMPLATES.find(({ id }) => id === 'sky-letter') ?? TEMPLATES[0];
    if (!template) throw new Error('expected a template');
    for (const { style } of LOOKS)
      expect(miniatureOf({ ...template.message, palette: {} }, style)).toMatchObject({
        ground: style.palette.surface,
        accent: style.palette.accent,
      });
    const own = { ...template.message, palette: { accent: '#123456' } };
    expect(miniatureOf(own, PLAIN_LOOK).accent).toBe('#123456');
  });
  it('has its blocks in rows, as many as can be told apart, and a veil where it stands over the page', () => {
    const block = (kind: string, more: object = {}) => ({ id: kind, kind, style: {}, ...more });
    const field = { id: 'f', kind: 'text', label: '', placeholder: '', required: false };
    const template = TEMPLATES[0];
    if (!template) throw new Error('expected a template');
    const drawn = (blocks: object[], change: object = {}) =>
      miniatureOf(
        {
          ...template.message,
          format: 'modal',
          style: { all: { width: { unit: 'px', value: 640 } }, tablet: {}, mobile: {} },
          steps: [{ id: 'first', role: 'first', blocks }],
          ...change,
        } as never,
        PLAIN_LOOK,
      );
    const found = drawn([
      block('heading'),
      block('space'),
      block('columns', {
        columns: [{ blocks: [block('text'), block('button')] }, { blocks: [block('picture')] }],
      }),
      block('columns', { columns: [{ blocks: [] }] }),
      block('form', { fields: [field, field, field, field, field] }),
      block('divider'),
      block('code'),
    ]);
    expect(found.rows).toEqual([
      [['heading']],
      [['text', 'button'], ['picture']],
      [['field', 'field', 'field', 'button']],
      [['line']],
      [['field']],
    ]);
    expect(found.width).toBe(0.5);
    expect(found.hasVeil).toBe(true);
    expect(drawn(Array(9).fill(block('text'))).rows).toEqual(Array(7).fill([['text']]));
    expect(drawn([block('columns', { columns: [{ blocks: Array(9).fill(block('text')) }] })]).rows).toEqual([
      [Array(7).fill('text')],
    ]);
    const none = { all: { backdropStrength: 0 }, tablet: {}, mobile: {} };
    expect(drawn([], { style: none }).hasVeil).toBe(false);
    expect(drawn([], { format: 'popup', anchor: 'center' }).hasVeil).toBe(false);
  });
  it('is small whatever the message, and in the window', () => {
    fc.assert(
      fc.property(someMessage, (message) => {
        const { width, rows } = miniatureOf(message, PLAIN_LOOK);
        expect(width).toBeGreaterThanOrEqual(0);
        expect(width).toBeLessThanOrEqual(1);
        expect(rows.length).toBeLessThanOrEqual(7);
        expect(rows.flat().every((parts) => parts.length <= 7)).toBe(true);
      }),
    );
  });
});

describe('first steps of a site', () => {
  const begun = LOOKS.map(({ name, style }, n) => ({ name, isDefault: n === 0, style }));
  const done = (facts: Partial<SiteFacts>) =>
    firstSteps({ lastSeenAt: null, looks: begun, campaigns: [], ...facts }, Date.parse(NOW))
      .filter(({ isDone }) => isDone)
      .map(({ step }) => step);
  const numbers = { showings: 0, visitors: 0, conversions: 0, converters: 0 };
  // As a database gives it back: the same, in another order.
  const turned = (value: unknown): unknown =>
    typeof value === 'object' && value !== null
      ? Object.fromEntries(
          Object.entries(value)
            .reverse()
            .map(([name, one]) => [name, turned(one)]),
        )
      : value;
  it('none is done of a new one', () => {
    expect(done({})).toEqual([]);
    expect(
      done({ looks: begun.map((look) => ({ ...look, style: turned(look.style) as typeof look.style })) }),
    ).toEqual([]);
  });
  it('each is told by what is there', () => {
    const told = (facts: Partial<SiteFacts>) =>
      firstSteps({ lastSeenAt: null, looks: begun, campaigns: [], ...facts }, Date.parse(NOW)).map(
        ({ text }) => text,
      );
    expect(told({})).toEqual([
      'Nothing has been heard from the site yet.',
      'Messages wear a Look that every site begins with.',
      'There is none yet.',
      'Nothing is published yet.',
    ]);
    expect(told({ campaigns: [{ publishedAt: null, numbers }] }).slice(2)).toEqual([
      '1 campaign.',
      'Nothing is published yet.',
    ]);
    const published = { publishedAt: NOW, numbers };
    expect(told({ campaigns: [published, published] }).slice(2)).toEqual([
      '2 campaigns.',
      'It is published; nobody has met it yet.',
    ]);
    expect(told({ campaigns: [{ publishedAt: NOW, numbers: { ...numbers, showings: 1 } }] })[3]).toBe(
      '1 showing so far.',
    );
    const style = { ...PLAIN_LOOK, palette: null } as never;
    expect(
      told({ lastSeenAt: NOW, looks: [{ name: LOOKS[0]?.name ?? '', isDefault: true, style }] }).slice(0, 2),
    ).toEqual(['Heard just now.', `“${LOOKS[0]?.name}” is this site’s own.`]);
  });
  it('each is by what is there', () => {
    expect(done({ lastSeenAt: NOW })).toEqual(['tag']);
    expect(done({ looks: [...begun, { name: 'Ours', isDefault: true, style: PLAIN_LOOK }] })).toEqual([
      'look',
    ]);
    expect(
      done({
        looks: begun.map((look) => ({
          ...look,
          style: { ...look.style, textSize: look.style.textSize + 1 },
        })),
      }),
    ).toEqual(['look']);
    expect(done({ campaigns: [{ publishedAt: null, numbers }] })).toEqual(['message']);
    expect(done({ campaigns: [{ publishedAt: NOW, numbers: { ...numbers, showings: 1 } }] })).toEqual([
      'message',
      'seen',
    ]);
  });
});
