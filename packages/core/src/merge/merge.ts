import { isSame } from './is-same.ts';

/** A value of a document: what JSON can hold. */
export type Value =
  | null
  | boolean
  | number
  | string
  | readonly Value[]
  | { readonly [key: string]: Value | undefined };
type Entry = { readonly id: string } & { readonly [key: string]: Value | undefined };

export interface Merged<Document> {
  readonly merged: Document;
  /** Places that both have changed, each in its own way; there the merged document says what `mine` says. */
  readonly conflicts: readonly string[];
}

/**
 * Puts two people's changes to one document together. What only one has changed is taken from them; lists of things
 * with an id (steps, blocks, columns, fields) are merged thing by thing, so two can work on different blocks and neither
 * loses a word. What both have changed differently is a conflict, which a person decides.
 */
export function mergeDocuments<Document>(base: Document, mine: Document, theirs: Document): Merged<Document> {
  const conflicts: string[] = [];
  const merged = merge(base as Value, mine as Value, theirs as Value, [], conflicts);
  return { merged: merged as Document, conflicts };
}

/** The places in which two documents differ, things with an id by their id, in the order of the documents. */
export const changedPlaces = <Document>(before: Document, after: Document): string[] =>
  differences(before as Value, after as Value, []);

const isRecord = (value: Value | undefined): value is { readonly [key: string]: Value | undefined } =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isListOfThings = (value: Value | undefined): value is readonly Entry[] =>
  Array.isArray(value) && value.every((one) => isRecord(one) && typeof one.id === 'string');

function merge(
  base: Value | undefined,
  mine: Value | undefined,
  theirs: Value | undefined,
  path: readonly string[],
  conflicts: string[],
): Value | undefined {
  if (isSame(mine, base)) return theirs;
  if (isSame(theirs, base) || isSame(mine, theirs)) return mine;
  if (isListOfThings(base) && isListOfThings(mine) && isListOfThings(theirs)) {
    return mergeLists(base, mine, theirs, path, conflicts);
  }
  // Two kinds of one thing have nothing in common that could be put together.
  if (isRecord(base) && isRecord(mine) && isRecord(theirs) && mine.kind === theirs.kind) {
    const keys = new Set([...Object.keys(mine), ...Object.keys(theirs)]);
    const entries = [...keys].map(
      (key) => [key, merge(base[key], mine[key], theirs[key], [...path, key], conflicts)] as const,
    );
    return Object.fromEntries(entries.filter(([, value]) => value !== undefined));
  }
  conflicts.push(path.join('.'));
  return mine;
}

const find = (list: readonly Entry[], id: string) => list.find((one) => one.id === id);

function differences(before: Value | undefined, after: Value | undefined, path: readonly string[]): string[] {
  if (isSame(before, after)) return [];
  if (isListOfThings(before) && isListOfThings(after)) {
    const ids = new Set([...before, ...after].map(({ id }) => id));
    const inside = [...ids].flatMap((id) => differences(find(before, id), find(after, id), [...path, id]));
    // The same things in another order.
    return inside.length > 0 ? inside : [path.join('.')];
  }
  if (isRecord(before) && isRecord(after) && before.kind === after.kind) {
    const keys = new Set([...Object.keys(before), ...Object.keys(after)]);
    return [...keys].flatMap((key) => differences(before[key], after[key], [...path, key]));
  }
  return [path.join('.')];
}

function mergeLists(
  base: readonly Entry[],
  mine: readonly Entry[],
  theirs: readonly Entry[],
  path: readonly string[],
  conflicts: string[],
): Value {
  const order = (list: readonly Entry[]) => list.map(({ id }) => id);
  // Whoever has moved things says the order; what the other has added follows its neighbour there.
  const isMineMoved = !isSame(
    order(mine).filter((id) => find(base, id)),
    order(base).filter((id) => find(mine, id)),
  );
  const [first, second] = isMineMoved ? [mine, theirs] : [theirs, mine];
  const ids = order(first);
  order(second).forEach((id, at) => {
    if (ids.includes(id)) return;
    const [before] = order(second)
      .slice(0, at)
      .filter((one) => ids.includes(one))
      .reverse();
    ids.splice(before === undefined ? 0 : ids.indexOf(before) + 1, 0, id);
  });
  return ids.flatMap((id): Value[] => {
    const [was, here, there] = [find(base, id), find(mine, id), find(theirs, id)];
    if (!here || !there) {
      const left = (here ?? there) as Entry;
      if (!was) return [left];
      // One has taken it away and the other has left it as it was, or has gone on with it.
      if (isSame(left, was)) return [];
      conflicts.push([...path, id].join('.'));
      return [left];
    }
    const together = merge(was, here, there, [...path, id], conflicts);
    return together === undefined ? [] : [together];
  });
}
