import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newBlock } from '../message/plain.ts';
import { plainMessage, plainRule, someRule } from '../testing/arbitrary.ts';
import { someMessage } from '../testing/arbitrary-message.ts';
import { changedPlaces, mergeDocuments } from './merge.ts';

const heading = (id: string, text = id) => ({ ...newBlock('heading'), id, text });
const withBlocks = (...blocks: ReturnType<typeof heading>[]) => ({
  message: { ...plainMessage, steps: [{ id: 'first', role: 'first' as const, blocks }] },
  rule: plainRule,
});
const base = withBlocks(heading('a'), heading('b'), heading('c'));
const texts = (document: typeof base) => document.message.steps[0]?.blocks.map(({ text }) => text);

describe('the places in which two documents differ', () => {
  it.each([
    ['nothing', base, []],
    [
      'a word',
      withBlocks(heading('a', 'A'), heading('b'), heading('c')),
      ['message.steps.first.blocks.a.text'],
    ],
    ['an order', withBlocks(heading('b'), heading('a'), heading('c')), ['message.steps.first.blocks']],
    ['one that is gone', withBlocks(heading('a'), heading('c')), ['message.steps.first.blocks.b']],
    [
      'one that is new, and the rule',
      {
        ...withBlocks(heading('a'), heading('b'), heading('c'), heading('d')),
        rule: { ...plainRule, reach: 1 },
      },
      ['message.steps.first.blocks.d', 'rule.reach'],
    ],
  ])('%s', (_what, after, places) => {
    expect(changedPlaces<unknown>(base, after)).toEqual(places);
  });
  it('something where there was none is one place, however much it is', () => {
    const nobody = { rule: { audience: null } };
    const some = { rule: { audience: { groups: [], join: 'any' } } };
    expect(changedPlaces<unknown>(nobody, some)).toEqual(['rule.audience']);
    expect(changedPlaces<unknown>(some, nobody)).toEqual(['rule.audience']);
    expect(changedPlaces<unknown>({ list: [] }, { list: { a: 1 } })).toEqual(['list']);
  });
});

describe('two people’s changes', () => {
  it.each([
    ['to different blocks are both kept', ['A', 'b', 'c'], ['a', 'B', 'c'], ['A', 'B', 'c']],
    ['to one block alike are no conflict', ['A', 'b', 'c'], ['A', 'b', 'c'], ['A', 'b', 'c']],
  ])('%s', (_what, mine, theirs, merged) => {
    const of = (words: string[]) =>
      withBlocks(...words.map((text, n) => heading(['a', 'b', 'c'][n] ?? '', text)));
    const result = mergeDocuments(base, of(mine), of(theirs));
    expect(texts(result.merged)).toEqual(merged);
    expect(result.conflicts).toEqual([]);
  });
  it('to one word differently are a conflict, and mine stands until somebody decides', () => {
    const { merged, conflicts } = mergeDocuments(
      base,
      withBlocks(heading('a', 'Mine'), heading('b'), heading('c')),
      withBlocks(heading('a', 'Theirs'), heading('b'), heading('c')),
    );
    expect(texts(merged)).toEqual(['Mine', 'b', 'c']);
    expect(conflicts).toEqual(['message.steps.first.blocks.a.text']);
  });
  it('what the other has added comes after the neighbour it has there', () => {
    const mine = withBlocks(heading('b'), heading('a'), heading('c'));
    const theirs = withBlocks(heading('a'), heading('new'), heading('b'), heading('c'));
    const { merged } = mergeDocuments(base, mine, theirs);
    expect(texts(merged as typeof base)).toEqual(['b', 'a', 'new', 'c']);
  });

  it('adding, moving and taking away go together', () => {
    const mine = withBlocks(heading('a'), heading('new'), heading('b'), heading('c'));
    const theirs = withBlocks(heading('c'), heading('a'));
    const { merged, conflicts } = mergeDocuments(base, mine, theirs);
    expect(texts(merged)).toEqual(['c', 'a', 'new']);
    expect(conflicts).toEqual([]);
  });
  it('a block one has changed and the other has taken away is kept, and told', () => {
    const { merged, conflicts } = mergeDocuments(
      base,
      withBlocks(heading('b'), heading('c')),
      withBlocks(heading('a', 'Theirs'), heading('b'), heading('c')),
    );
    expect(texts(merged)).toEqual(['Theirs', 'b', 'c']);
    expect(conflicts).toEqual(['message.steps.first.blocks.a']);
  });
  it('to the message and to the rule never meet', () => {
    fc.assert(
      fc.property(someMessage, someRule, (message, rule) => {
        const { merged, conflicts } = mergeDocuments<unknown>(base, { ...base, message }, { ...base, rule });
        expect(merged).toEqual({ message, rule });
        expect(conflicts).toEqual([]);
      }),
    );
  });
  it('of one alone are taken whole, whoever it is', () => {
    fc.assert(
      fc.property(someMessage, (message) => {
        const changed = { ...base, message };
        expect(mergeDocuments<unknown>(base, changed, base)).toEqual({ merged: changed, conflicts: [] });
        expect(mergeDocuments<unknown>(base, base, changed)).toEqual({ merged: changed, conflicts: [] });
      }),
    );
  });
});
