import { buildAll } from './lib/build-all.mjs';
import { ensurePackages, ensurePostgres } from './lib/install.mjs';
import { run } from './lib/processes.mjs';
import { ROOT } from './lib/root.mjs';

await ensurePackages(console.log);
await ensurePostgres(console.log);
await buildAll(console.log);
await run(process.execPath, ['--import', 'tsx', 'bench/run.ts'], { cwd: ROOT, isShown: true });
