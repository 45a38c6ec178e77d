import type { CampaignParts, Message, ResultCounts } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { doneOnMessage } from './on-message.ts';
import { wayDown } from './way-down.ts';

const counts = {
  showings: 120,
  clicks: 30,
  closes: 0,
  closedSoon: 0,
  conversions: 9,
  visitors: 100,
  viewers: 80,
  clickers: 20,
  writers: 16,
  converters: 9,
  withheld: 0,
} satisfies ResultCounts;
const none = { clickers: 0, writers: 0, gaveUp: 0 };

const field = (id: string, kind: 'email' | 'name' | 'hidden') => ({
  id,
  kind,
  label: id,
  placeholder: '',
  required: true,
});
const block = (id: string, more: object) => ({ id, style: { all: {}, tablet: {}, mobile: {} }, ...more });
const message = {
  steps: [
    {
      id: 'one',
      role: 'main',
      blocks: [
        block('h', { kind: 'heading', text: 'Hello' }),
        block('c', {
          kind: 'columns',
          columns: [{ id: 'c1', blocks: [block('b', { kind: 'button', label: 'Go' })] }],
        }),
        block('f', {
          kind: 'form',
          fields: [field('who', 'name'), field('mail', 'email'), field('src', 'hidden')],
        }),
      ],
    },
    { id: 'two', role: 'success', blocks: [block('t', { kind: 'text' })] },
  ],
} as unknown as Pick<Message, 'steps'>;
const placesOf = (parts: CampaignParts['onMessage'][number]['parts'], viewers = 80) =>
  doneOnMessage(message, { viewers, parts }).places.map(
    ({ step, part, field: of, visitors, share, gaveUp }) => [
      step,
      of ? `field ${part}` : part,
      visitors,
      share,
      gaveUp,
    ],
  );

describe('what was done on a message', () => {
  it('stands in the order of the message, columns and later steps included; every field of a form that was begun', () => {
    expect(
      placesOf([
        { ...none, part: 't', clickers: 4 },
        { ...none, part: 'mail', writers: 12, gaveUp: 3 },
        { ...none, part: 'b', clickers: 20 },
      ]),
    ).toEqual([
      ['one', 'b', 20, 0.25, 0],
      ['one', 'field who', 0, 0, 0],
      ['one', 'field mail', 12, 0.15, 3],
      ['two', 't', 4, 0.05, 0],
    ]);
  });
  it('is never a share of more than all, nor one of nobody', () => {
    const clicked = [{ ...none, part: 'b', clickers: 20 }];
    expect(placesOf(clicked, 10)).toEqual([['one', 'b', 20, 1, 0]]);
    expect(placesOf(clicked, 0)).toEqual([['one', 'b', 20, 0, 0]]);
  });
  it('counts apart what was done on parts that are gone', () => {
    expect(
      doneOnMessage(message, {
        viewers: 80,
        parts: [
          { ...none, part: 'gone', clickers: 3, writers: 5 },
          { ...none, part: 'b', clickers: 1 },
        ],
      }).elsewhere,
    ).toBe(1);
  });
});

describe('the way down', () => {
  it('has who began to answer between those who saw it and those who converted, where anybody did', () => {
    const idsOf = (of: ResultCounts) =>
      wayDown({ counts: of, confirmed: 0 }).map(({ id, count, left }) => [id, count, left]);
    expect(idsOf(counts)).toEqual([
      ['shown', 100, null],
      ['seen', 80, 20],
      ['clicked', 20, 60],
      ['begun', 16, 4],
      ['converted', 9, 7],
    ]);
    expect(idsOf({ ...counts, writers: 0 }).map(([id]) => id)).not.toContain('begun');
  });
});
