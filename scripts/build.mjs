import { buildAll } from './lib/build-all.mjs';
import { ensurePackages } from './lib/install.mjs';

await ensurePackages(console.log);
await buildAll(console.log);
