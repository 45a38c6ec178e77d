import type { DataSource, EntityManager } from 'typeorm';

/** Those that lead through a pooler, which lends a connection for one transaction: what it was told before, the next does not know. */
const pooled = new WeakSet<DataSource>();
export const noteAsPooled = (db: DataSource): void => void pooled.add(db);

/**
 * Runs a statement that each connection reads and plans once, for those that are long and run all the time: planning takes more than what
 * they do. Over a pooler it is read anew each time.
 *
 * @param name Of this very text, whatever its parameters.
 */
export async function queryPrepared<Row>(
  manager: EntityManager,
  name: string,
  text: string,
  values: readonly unknown[],
): Promise<Row[]> {
  const { connection } = manager;
  if (pooled.has(connection)) return manager.query(text, [...values]);
  const runner = manager.queryRunner ?? connection.createQueryRunner();
  try {
    const client: { query(statement: object): Promise<{ rows: Row[] }> } = await runner.connect();
    return (await client.query({ name, text, values })).rows;
  } finally {
    if (runner !== manager.queryRunner) await runner.release();
  }
}
