import type { ReactNode } from 'react';
import { WideTable } from './wide-table.tsx';

export interface Column<Row> {
  readonly head: string;
  readonly cell: (row: Row) => ReactNode;
  readonly isNumber?: boolean;
}

export interface TableProps<Row> {
  readonly caption: string;
  readonly columns: readonly Column<Row>[];
  readonly rows: readonly Row[];
  readonly keyOf: (row: Row) => string;
}

/** A plain table: hairlines between rows, numbers to the right. */
export function Table<Row>({ caption, columns, rows, keyOf }: TableProps<Row>) {
  return (
    <WideTable caption={caption} className="min-w-2xl">
      <thead>
        <tr className="border-b border-line-strong text-xs text-soft">
          {columns.map(({ head, isNumber }) => (
            <th
              key={head}
              scope="col"
              className={isNumber ? 'py-2 text-right font-medium' : 'py-2 pr-4 font-medium'}
            >
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={keyOf(row)} className="border-b border-line align-top">
            {columns.map(({ head, cell, isNumber }) => (
              <td key={head} className={isNumber ? 'py-2.5 text-right' : 'py-2.5 pr-4'}>
                {cell(row)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </WideTable>
  );
}
