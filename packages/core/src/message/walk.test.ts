import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainMessage } from '../testing/arbitrary.ts';
import { someBlock } from '../testing/arbitrary-message.ts';
import { newBlock } from './plain.ts';
import { savedBlocksOf, withSavedBlocks } from './saved.ts';
import {
  allBlocks,
  findBlock,
  findPlace,
  freshId,
  insertBlock,
  moveBlock,
  nudgeBlock,
  removeBlock,
  stepName,
  withFreshIds,
} from './walk.ts';

const heading = (id: string) => ({ ...newBlock('heading'), id });
const columns = {
  ...newBlock('columns'),
  id: 'cols',
  columns: [
    { id: 'left', share: 1, blocks: [heading('l1'), heading('l2')] },
    { id: 'right', share: 1, blocks: [] },
  ],
};
const message = {
  ...plainMessage,
  steps: [
    { id: 'first', role: 'first' as const, blocks: [heading('a'), columns, heading('z')] },
    { id: 'thanks', role: 'success' as const, blocks: [heading('t')] },
  ],
};
const order = (of = message) => allBlocks(of).map(({ id }) => id);

describe('moving', () => {
  it.each<[what: string, id: string, to: Parameters<typeof moveBlock>[2], expected: string[]]>([
    ['down in a step', 'a', { stepId: 'first', columnId: null, at: 3 }, ['cols', 'l1', 'l2', 'z', 'a', 't']],
    ['up in a step', 'z', { stepId: 'first', columnId: null, at: 0 }, ['z', 'a', 'cols', 'l1', 'l2', 't']],
    [
      'into a column',
      'z',
      { stepId: 'first', columnId: 'right', at: 0 },
      ['a', 'cols', 'l1', 'l2', 'z', 't'],
    ],
    [
      'out of a column',
      'l1',
      { stepId: 'first', columnId: null, at: 0 },
      ['l1', 'a', 'cols', 'l2', 'z', 't'],
    ],
    [
      'to another step',
      'a',
      { stepId: 'thanks', columnId: null, at: 1 },
      ['cols', 'l1', 'l2', 'z', 't', 'a'],
    ],
    ['where it stands', 'a', { stepId: 'first', columnId: null, at: 1 }, ['a', 'cols', 'l1', 'l2', 'z', 't']],
    [
      'columns into a column',
      'cols',
      { stepId: 'first', columnId: 'right', at: 0 },
      ['a', 'cols', 'l1', 'l2', 'z', 't'],
    ],
  ])('%s', (_what, id, to, expected) => {
    expect(order(moveBlock(message, id, to) as typeof message)).toEqual(expected);
  });
  it('by keys: within its list, and from the edge of a column out beside it', () => {
    expect(order(nudgeBlock(message, 'l2', -1) as typeof message)).toEqual([
      'a',
      'cols',
      'l2',
      'l1',
      'z',
      't',
    ]);
    expect(order(nudgeBlock(message, 'l2', 1) as typeof message)).toEqual([
      'a',
      'cols',
      'l1',
      'l2',
      'z',
      't',
    ]);
    expect(findPlace(nudgeBlock(message, 'l2', 1), 'l2')).toEqual({ stepId: 'first', columnId: null, at: 2 });
    // Up from the first place of a column: before the columns.
    expect(findPlace(nudgeBlock(message, 'l1', -1), 'l1')).toEqual({
      stepId: 'first',
      columnId: null,
      at: 1,
    });
    expect(nudgeBlock(message, 'a', -1)).toBe(message);
  });
  it('to where it stands changes nothing, before it or after', () => {
    const place = (at: number, columnId: string | null = null) => ({ stepId: 'first', columnId, at });
    for (const at of [1, 2]) expect(moveBlock(message, 'cols', place(at))).toBe(message);
    expect(moveBlock(message, 'cols', place(0, 'left'))).toBe(message);
    expect(moveBlock(message, 'nobody', place(0))).toBe(message);
    expect(insertBlock(message, columns, place(0, 'right'))).toBe(message);
    expect(order(moveBlock(message, 'l1', place(2, 'left')) as typeof message).slice(2, 4)).toEqual([
      'l2',
      'l1',
    ]);
    // Up in its own list from behind it.
    expect(order(moveBlock(message, 'l2', place(0, 'left')) as typeof message).slice(2, 4)).toEqual([
      'l2',
      'l1',
    ]);
    expect(nudgeBlock(message, 'z', 1)).toBe(message);
    expect(nudgeBlock(message, 'nobody', 1)).toBe(message);
    expect(order(nudgeBlock(message, 'a', 1) as typeof message)).toEqual(['cols', 'l1', 'l2', 'a', 'z', 't']);
    expect(order(nudgeBlock(message, 'z', -1) as typeof message)).toEqual([
      'a',
      'z',
      'cols',
      'l1',
      'l2',
      't',
    ]);
  });
  it('never loses or doubles a block', () => {
    const ids = order();
    fc.assert(
      fc.property(
        fc.constantFrom(...ids),
        fc.constantFrom('first', 'thanks'),
        fc.constantFrom(null, 'left', 'right'),
        fc.integer({ min: 0, max: 4 }),
        (id, stepId, columnId, at) => {
          const isInside = columnId === null || stepId === 'first';
          if (!isInside || id === 'cols') return;
          const moved = moveBlock(message, id, { stepId, columnId, at });
          expect(order(moved as typeof message).sort()).toEqual([...ids].sort());
        },
      ),
    );
  });
});

it('inserting and removing are each other’s undo', () => {
  const block = heading('new');
  const place = { stepId: 'first', columnId: 'right', at: 0 };
  expect(removeBlock(insertBlock(message, block, place), 'new')).toEqual(message);
  expect(removeBlock(message, 'none')).toBe(message);
});

it('a step is called by what it is for, and further ones are counted', () => {
  const steps = (['first', 'other', 'success', 'other', 'refused'] as const).map((role, n) => ({
    id: `s${n}`,
    role,
    blocks: [],
  }));
  expect(steps.map(({ id }) => stepName({ steps }, id))).toEqual([
    'First',
    'Step 1',
    'After it is sent',
    'Step 2',
    'After a no',
  ]);
  expect(stepName({ steps }, 'gone')).toBe('A step that is gone');
});

it('an id that is taken is counted on, however long it is', () => {
  const long = 'x'.repeat(40);
  const steps = (...ids: string[]) => ({
    steps: ids.map((id) => ({ id, role: 'other' as const, blocks: [] })),
  });
  expect(freshId(steps(long), long)).toBe(`${'x'.repeat(34)}-2`);
  expect(freshId(steps('a', 'a-2', 'a-3'), 'a')).toBe('a-4');
  expect(freshId(steps('a-2'), 'a-2')).toBe('a-3');
  expect(freshId(message, 'left')).toBe('left-2');
});

it('saved columns stand as columns, and in a column nothing of them does', () => {
  const saved = (id: string, of: string) => ({ ...newBlock('saved'), id, saved: of });
  const kept = {
    ...columns,
    columns: columns.columns.map((column) => ({ ...column, blocks: column.blocks })),
  };
  const of = (block: object) => ({
    ...message,
    steps: [{ id: 'first', role: 'first' as const, blocks: [block] }] as typeof message.steps,
  });
  const alone = withSavedBlocks(of(saved('here', 'k')), () => kept);
  expect(allBlocks(alone).map(({ id }) => id)).toEqual(['here', 'here-l1', 'here-l2']);
  const inColumn = of({
    ...columns,
    columns: [{ id: 'left', share: 1, blocks: [saved('x', 'k'), saved('y', 'h'), heading('own')] }],
  });
  const drawn = withSavedBlocks(inColumn, (id) => (id === 'k' ? kept : { ...heading('kept'), text: 'Kept' }));
  expect(allBlocks(drawn).map(({ id }) => id)).toEqual(['cols', 'y', 'own']);
  expect(savedBlocksOf(inColumn)).toEqual(['k', 'h']);
  // One saved block in another's columns is put in as well.
  const nested = { ...columns, columns: [{ id: 'c', share: 1, blocks: [saved('in', 'h')] }] };
  const deep = withSavedBlocks(of(saved('here', 'k')), (id) => (id === 'k' ? nested : heading('h')) as never);
  expect(allBlocks(deep).map(({ id, kind }) => [id, kind])).toEqual([
    ['here', 'columns'],
    ['here-in', 'heading'],
  ]);
});

it('pasted blocks get ids that nobody has', () => {
  expect(freshId(message, 'a')).toBe('a-2');
  expect(freshId(message, 'new')).toBe('new');
  fc.assert(
    fc.property(someBlock, (block) => {
      const fresh = withFreshIds({ ...message, steps: [...message.steps] }, block);
      const added = insertBlock(message, fresh, { stepId: 'first', columnId: null, at: 0 });
      const ids = allBlocks(added).map(({ id }) => id);
      const own = allBlocks({ steps: [{ id: 's', role: 'first', blocks: [fresh] }] }).map(({ id }) => id);
      expect(own.every((id) => ids.filter((one) => one === id).length === 1)).toBe(true);
    }),
  );
});

it('a saved block stands under its place’s id, hidden where the place is, and nothing where it is gone', () => {
  const ref = {
    ...newBlock('saved'),
    id: 'here',
    saved: 'x',
    style: { all: {}, tablet: {}, mobile: { hidden: true } },
  };
  const using = { ...message, steps: [{ id: 'first', role: 'first' as const, blocks: [ref] }] };
  const drawn = withSavedBlocks(using, () => ({ ...heading('kept'), text: 'Kept' }));
  expect(findBlock(drawn, 'here')).toMatchObject({
    kind: 'heading',
    text: 'Kept',
    style: { mobile: { hidden: true } },
  });
  expect(allBlocks(withSavedBlocks(using, () => undefined))).toEqual([]);
  expect(withSavedBlocks(message, () => undefined)).toBe(message);
});
