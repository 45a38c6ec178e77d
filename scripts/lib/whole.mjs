import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { startProgram } from './processes.mjs';
import { ROOT } from './root.mjs';

/** What every program of one installation is told by its environment. */
export function programEnv({ databaseUrl, home, ports, env = {} }) {
  mkdirSync(`${home}/logs`, { recursive: true });
  const secretFile = `${home}/session-secret`;
  if (!existsSync(secretFile)) writeFileSync(secretFile, randomBytes(32).toString('hex'), { mode: 0o600 });
  return {
    NODE_ENV: 'production',
    VELARIUM_PORT: String(ports.studio),
    VELARIUM_EDGE_PORT: String(ports.edge),
    VELARIUM_EDGE_ORIGIN: `http://127.0.0.1:${ports.edge}`,
    VELARIUM_SITES_PORT: String(ports.fell),
    VELARIUM_SITES_PORT_2: String(ports.skerry),
    VELARIUM_STANDINS_PORT: String(ports.standins),
    VELARIUM_SMTP_PORT: String(ports.smtp),
    VELARIUM_DEMO_ORIGINS: `http://127.0.0.1:${ports.fell},http://127.0.0.1:${ports.skerry}`,
    VELARIUM_SECRET_FILE: secretFile,
    VELARIUM_COUNTRY_FILE: `${ROOT}/apps/standins/countries.csv`,
    // Tests and demonstrations say from which documentation network they come.
    VELARIUM_TRUSTED_PROXIES: '127.0.0.1',
    // The demo's sites and stand-ins run here.
    VELARIUM_PRIVATE_NETWORKS: '127.0.0.0/8',
    // Mail of the demo goes into the stand-in mailbox.
    VELARIUM_SMTP: `127.0.0.1:${ports.smtp}`,
    VELARIUM_MAIL_FROM: 'velarium@quillonfell.example',
    VELARIUM_EDGE_FOLDER: `${home}/edge`,
    DATABASE_URL: databaseUrl,
    ...env,
  };
}

/** As docs/operations.md says: what an edge holds until it is stored is then not moved about by the garbage collector. */
const SERVER_FLAGS = ['--max-semi-space-size=64'];

/** Starts one program of an installation; it is ready once `ready` has settled. */
export const startOne = (name, { home }, env, args = []) =>
  startProgram(`${ROOT}/apps/${name}/dist/main.js`, {
    env,
    log: `${home}/logs/${name}.log`,
    args,
    flags: name === 'server' ? SERVER_FLAGS : [],
  });

/**
 * Starts server, demo sites and stand-ins over a database, and waits until all are ready.
 *
 * @param {{ databaseUrl: string, home: string, ports: Record<string, number>, env?: object }} options
 */
export async function startWhole(options) {
  const env = programEnv(options);
  const started = [];
  const start = async (name) => {
    const program = startOne(name, options, env);
    started.push(program);
    await program.ready;
    return program;
  };
  const stop = async () => {
    for (const program of [...started].reverse()) await program.stop();
  };
  try {
    // The sites first: the seed reads their sitemaps.
    await Promise.all([start('sites'), start('standins')]);
    await start('server');
  } catch (error) {
    await stop();
    throw error;
  }
  return {
    stop,
    pids: started.map(({ pid }) => pid),
    /** Settles when any of them ends by itself. */
    ended: Promise.race(started.map(({ ended }) => ended)),
  };
}
