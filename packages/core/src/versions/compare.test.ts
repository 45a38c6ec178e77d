import type { Block, CampaignDocument, Message } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newBlock } from '../message/plain.ts';
import { NO_SITE_PAGES } from '../pages/resolve-pages.ts';
import { plainMessage, plainRule, someRule } from '../testing/arbitrary.ts';
import { someMessage } from '../testing/arbitrary-message.ts';
import { compareDocuments, isSameCampaign, pagesMoved } from './compare.ts';

const heading = { ...newBlock('heading'), id: 'title', text: 'Clear skies' } as Block;
const withBlocks = (...blocks: Block[]): Message => ({
  ...plainMessage,
  steps: [{ id: 'first', role: 'first', blocks }],
});
const start: CampaignDocument = { message: withBlocks(heading), rule: plainRule, variants: [] };
const later: CampaignDocument = {
  ...start,
  rule: { ...plainRule, moment: { ...plainRule.moment, triggers: [{ kind: 'time', seconds: 25 }] } },
};

describe('two states of a campaign', () => {
  it('differ in a phrase of the sentence', () => {
    expect(compareDocuments(start, later)).toEqual({
      phrases: [{ part: 'moment', before: 'after 5 seconds', after: 'after 25 seconds' }],
      words: [],
      settings: [],
    });
  });
  it('differ in a phrase that was not said before', () => {
    const held = { ...start, rule: { ...plainRule, limits: { ...plainRule.limits, holdout: 10 } } };
    expect(compareDocuments(start, held).phrases).toEqual([
      { part: 'experiment', before: null, after: 'held back from 10 % of visitors' },
    ]);
  });
  it('differ in words, also of blocks that came or went', () => {
    const text = { ...newBlock('text'), id: 'more', content: [[{ text: 'Tonight.' }]] } as Block;
    const message = withBlocks({ ...heading, text: 'Clear skies tonight' } as Block, text);
    expect(compareDocuments(start, { ...start, message })).toMatchObject({
      words: [
        { blockId: 'title', kind: 'heading', before: 'Clear skies', after: 'Clear skies tonight' },
        { blockId: 'more', kind: 'text', before: null, after: 'Tonight.' },
      ],
    });
    expect(compareDocuments({ ...start, message }, start).words.at(-1)).toMatchObject({ after: null });
  });
  it('differ in what is seen alone', () => {
    const message = {
      ...start.message,
      style: { ...start.message.style, all: { ...start.message.style.all, corners: 3 } },
    };
    const { phrases, words, settings } = compareDocuments(start, { ...start, message });
    expect([phrases, words]).toEqual([[], []]);
    expect(settings).toEqual(['message.style.all.corners']);
  });
  it('that are the same have no difference, and those that are not have one', () => {
    const some = fc.record({
      message: someMessage,
      rule: someRule,
      variants: fc.constant<CampaignDocument['variants']>([]),
    });
    fc.assert(
      fc.property(some, some, (one, other) => {
        expect(isSameCampaign(compareDocuments(one, structuredClone(one)))).toBe(true);
        expect(isSameCampaign(compareDocuments(one, other))).toBe(
          JSON.stringify(one) === JSON.stringify(other),
        );
      }),
      { numRuns: 300 },
    );
  });
});

it('pages that are gained and lost are told, the most visited first', () => {
  const page = (path: string, views: number) =>
    ({ path, title: path, kind: null, source: 'visits', views }) as const;
  const on = (...addresses: string[]) => ({
    include: addresses.map((address) => ({ kind: 'begins', address }) as const),
    exclude: [],
    follows: null,
  });
  const known = [page('/a/1', 3), page('/b/1', 4), page('/b/2', 9), page('/c/1', 1)];
  const site = {
    settings: { pageParameters: [], hashRoutes: false, trackingParameters: [], sharedDomain: null },
    origins: ['https://site.example'],
    pages: NO_SITE_PAGES,
  } as unknown as Parameters<typeof pagesMoved>[3];
  const { gained, lost } = pagesMoved(on('/a/', '/c/'), on('/b/', '/c/'), known, site);
  expect(gained.pages.map(({ path }) => path)).toEqual(['/b/2', '/b/1']);
  expect(lost.pages.map(({ path }) => path)).toEqual(['/a/1']);
  expect([gained.views, lost.views]).toEqual([13, 3]);
});
