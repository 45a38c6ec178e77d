import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { bundleProgram, bundleStudio, bundleTag } from './bundle.mjs';
import { ROOT } from './root.mjs';

const STAMP = `${ROOT}/apps/server/dist/built-from`;

/** A hash of every source that goes into the build, by path, size and time of change. */
function sourceHash() {
  const hash = createHash('sha256');
  const walk = (folder) => {
    for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) =>
      a.name < b.name ? -1 : 1,
    )) {
      if (entry.name === 'node_modules' || entry.name === 'dist') continue;
      const path = join(folder, entry.name);
      if (entry.isDirectory()) walk(path);
      else {
        const { size, mtimeMs } = statSync(path);
        hash.update(`${path}:${size}:${mtimeMs}\n`);
      }
    }
  };
  for (const folder of ['packages', 'apps', 'scripts/lib']) walk(`${ROOT}/${folder}`);
  return hash.update(readFileSync(`${ROOT}/package-lock.json`)).digest('hex');
}

/** Builds everything that changed since the last build; nothing changed costs milliseconds. */
export async function buildAll(say) {
  const hash = sourceHash();
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === hash) return;
  say('Building …');
  await Promise.all([bundleStudio(), bundleTag(), ...['server', 'sites', 'standins'].map(bundleProgram)]);
  writeFileSync(STAMP, hash);
}
