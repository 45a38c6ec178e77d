import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { run } from './processes.mjs';
import { isRoot, ROOT, Stop } from './root.mjs';

const STAMP = `${ROOT}/node_modules/.velarium-lock`;
const lockHash = () =>
  createHash('sha256')
    .update(readFileSync(`${ROOT}/package-lock.json`))
    .digest('hex');

/** Installs the packages of the lock file when they are missing or of another lock file. */
export async function ensurePackages(say) {
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === lockHash()) return;
  say('Installing packages, about a minute …');
  // The build needs the tools among the development packages, whatever NODE_ENV this shell has.
  await run('npm', ['ci', '--include=dev', '--no-fund', '--no-audit', '--loglevel=error'], { cwd: ROOT });
  writeFileSync(STAMP, lockHash());
}

export async function ensureDebian(name, isThere, say) {
  if (isThere()) return;
  const command = `apt-get install -y --no-install-recommends ${name}`;
  if (!isRoot)
    throw new Stop(`Velarium needs Debian's ${name}. Run this once, then try again:\n\n  sudo ${command}\n`);
  say(`Installing Debian's ${name} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  await run('apt-get', ['update'], { env });
  await run('apt-get', ['install', '-y', '--no-install-recommends', name], { env });
  if (!isThere()) throw new Stop(`${name} was installed but its programs were not found.`);
}

const POSTGRES = '/usr/lib/postgresql';
/** Folder of PostgreSQL's server programs, the newest version's; `undefined` when there is none. */
export function postgresPrograms() {
  if (!existsSync(POSTGRES)) return undefined;
  return readdirSync(POSTGRES)
    .sort((a, b) => Number(b) - Number(a))
    .map((version) => `${POSTGRES}/${version}/bin`)
    .find((folder) => existsSync(`${folder}/postgres`) && existsSync(`${folder}/initdb`));
}

export const ensurePostgres = (say) =>
  ensureDebian('postgresql', () => postgresPrograms() !== undefined, say);

const CHROMIUM = '/usr/bin/chromium-headless-shell';
export const ensureChromium = (say) =>
  ensureDebian('chromium-headless-shell', () => existsSync(CHROMIUM), say);
