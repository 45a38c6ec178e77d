import type { EntityManager } from 'typeorm';

/**
 * Runs a statement that each connection reads and plans once, for those that are long and run all the time: planning takes more than what
 * they do. Over a pooler, which forgets what a connection was told, it is read anew each time.
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
  const isPooled = (connection.options as { extra?: { isPooled?: boolean } }).extra?.isPooled;
  if (isPooled) return manager.query(text, [...values]);
  const runner = manager.queryRunner ?? connection.createQueryRunner();
  try {
    const client: { query(statement: object): Promise<{ rows: Row[] }> } = await runner.connect();
    return (await client.query({ name, text, values })).rows;
  } finally {
    if (runner !== manager.queryRunner) await runner.release();
  }
}
