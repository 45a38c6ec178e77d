import { mkdtempSync, rmSync } from 'node:fs';
import type { TestProject } from 'vitest/node';
import { buildAll } from '../../../scripts/lib/build-all.mjs';
import { startCluster } from '../../../scripts/lib/cluster.mjs';

declare module 'vitest' {
  interface ProvidedContext {
    /** Makes and drops databases on the throwaway cluster. */
    readonly databaseUrl: string;
  }
}

/** One throwaway cluster for the whole run; each test file makes a database of its own on it. */
export async function setup(project: TestProject): Promise<() => Promise<void>> {
  // Threads are run as they are built; nothing is done where nothing has changed.
  await buildAll((words) => process.stdout.write(`${words}\n`));
  const home = mkdtempSync('/tmp/velarium-unit-');
  const cluster = await startCluster({ home, isThrowaway: true });
  project.provide('databaseUrl', cluster.url);
  return async () => {
    await cluster.stop();
    rmSync(home, { recursive: true, force: true });
  };
}
