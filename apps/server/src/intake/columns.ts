import { binaryArray, type Cell, isBinaryType } from '../infra/binary-array.ts';

/** Columns of a table of the database, by their names: their types, and what a row has there. */
export type Columns<Row> = Readonly<Record<string, readonly [type: string, pick: (row: Row) => Cell]>>;

/**
 * Rows that are sent with a statement, for its FROM: an array of each column goes into the parameters.
 *
 * @param params Those of the statement so far; added to.
 */
export function sentAs<Row>(
  params: Buffer[],
  name: string,
  rows: readonly Row[],
  columns: Columns<Row>,
): string {
  const arrays = Object.values(columns).map(([type, pick]) => {
    const cells = rows.map(pick);
    return isBinaryType(type)
      ? `$${params.push(binaryArray(type, cells))}::${type}[]`
      : `$${params.push(binaryArray('text', cells))}::text[]::${type}[]`;
  });
  return `unnest(${arrays.join(', ')}) AS ${name} (${Object.keys(columns).join(', ')})`;
}
