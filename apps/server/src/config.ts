import { readFileSync } from 'node:fs';
import type { OwnMailbox } from './deliveries/index.ts';
import type { Secrets } from './infra/seal.ts';

const SERVER_ROLES = ['studio', 'edge', 'worker'] as const;
type ServerRole = (typeof SERVER_ROLES)[number];

export interface Config {
  readonly roles: readonly ServerRole[];
  readonly studioPort: number;
  readonly edgePort: number;
  /** Where members reach the studio: links in mails to them lead there. */
  readonly studioOrigin: string;
  /** What a page's snippet calls the edge. */
  readonly edgeOrigin: string;
  readonly databaseUrl: string;
  /** For what needs a connection to itself (migrations, hearing of publishes) where the other leads through a pooler. */
  readonly directUrl: string;
  /** A streaming standby to read reports from; `null` for none. */
  readonly standbyUrl: string | null;
  /** Where it tells whoever runs it how it is; `null` where nobody asks. */
  readonly watchPort: number | null;
  readonly watchHost: string;
  /** From which level on something is written to the log. */
  readonly logLevel: string;
  /** What signs and seals, the present one first; those of before still open what they were used for. Never logged. */
  readonly secrets: Secrets;
  /** Folders of built files: the studio, and the tag with its renderer. */
  readonly studioFiles: string;
  readonly tagFiles: string;
  readonly isBehindTls: boolean;
  /** The address to listen on: loopback alone unless it is said. */
  readonly host: string;
  /** Addresses and networks of one's own proxies, with commas between: what they say of who asks is believed. */
  readonly trustedProxies: string;
  /** Private networks that may be read from all the same (the customer's site, a film's host), with commas between. */
  readonly privateNetworks: string;
  /** Where mail goes out for workspaces that name no server; `null` when nobody has said. */
  readonly ownMailbox: OwnMailbox | null;
  /** Where an edge keeps what it must serve while the database is away. */
  readonly edgeFolder: string;
  /** A file of networks and their countries, and a header in which a proxy tells the country, lower case. */
  readonly countryFile: string | null;
  readonly countryHeader: string | null;
}

/** Reads the process's arguments and environment. Throws with the name of what is missing. */
export function readConfig(args: readonly string[], env: NodeJS.ProcessEnv): Config {
  const role = args.find((arg) => arg.startsWith('--role='))?.slice('--role='.length);
  if (role !== undefined && !SERVER_ROLES.some((known) => known === role)) {
    throw new Error(`--role: expected one of ${SERVER_ROLES.join(', ')}, got ${role}`);
  }
  const studioPort = port('VELARIUM_PORT', env, 4400);
  const edgePort = port('VELARIUM_EDGE_PORT', env, 4401);
  const here = new URL('..', import.meta.url).pathname;
  return {
    roles: role === undefined ? SERVER_ROLES : [role as ServerRole],
    studioPort,
    edgePort,
    studioOrigin: env.VELARIUM_STUDIO_ORIGIN ?? `http://127.0.0.1:${studioPort}`,
    edgeOrigin: env.VELARIUM_EDGE_ORIGIN ?? `http://127.0.0.1:${edgePort}`,
    databaseUrl: needed('DATABASE_URL', env),
    directUrl: env.DATABASE_DIRECT_URL ?? needed('DATABASE_URL', env),
    standbyUrl: env.DATABASE_STANDBY_URL ?? null,
    watchPort: env.VELARIUM_WATCH_PORT === undefined ? null : port('VELARIUM_WATCH_PORT', env, 0),
    watchHost: env.VELARIUM_WATCH_HOST ?? '127.0.0.1',
    logLevel: oneOf('VELARIUM_LOG_LEVEL', env, LOG_LEVELS, 'warn'),
    secrets: readSecrets(
      env.VELARIUM_SECRET_FILE
        ? readFileSync(env.VELARIUM_SECRET_FILE, 'utf8')
        : needed('VELARIUM_SECRET', env),
    ),
    studioFiles: env.VELARIUM_STUDIO_FILES ?? `${here}../studio/dist`,
    tagFiles: env.VELARIUM_TAG_FILES ?? `${here}../../packages/tag/dist`,
    isBehindTls: env.VELARIUM_TLS === '1',
    host: env.VELARIUM_HOST ?? '127.0.0.1',
    trustedProxies: env.VELARIUM_TRUSTED_PROXIES ?? '',
    privateNetworks: env.VELARIUM_PRIVATE_NETWORKS ?? '',
    ownMailbox: env.VELARIUM_SMTP
      ? { server: env.VELARIUM_SMTP, from: env.VELARIUM_MAIL_FROM ?? 'velarium@localhost' }
      : null,
    edgeFolder: env.VELARIUM_EDGE_FOLDER ?? `${env.VELARIUM_HOME ?? '.velarium'}/edge`,
    countryFile: env.VELARIUM_COUNTRY_FILE ?? null,
    countryHeader: env.VELARIUM_COUNTRY_HEADER?.toLowerCase() ?? null,
  };
}

/** Shorter ones could be guessed. */
const LEAST_SECRET = 32;

/** One secret a line, the present one first. */
function readSecrets(text: string): Secrets {
  const [first = '', ...before] = text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');
  const secrets: Secrets = [first, ...before];
  secrets.forEach((secret, at) => {
    if (secret.length < LEAST_SECRET)
      throw new Error(
        `The secret on line ${at + 1}: expected at least ${LEAST_SECRET} characters, got ${secret.length}`,
      );
  });
  return secrets;
}

const LOG_LEVELS = ['debug', 'info', 'warn', 'error'] as const;

function oneOf<Value extends string>(
  name: string,
  env: NodeJS.ProcessEnv,
  known: readonly Value[],
  standard: Value,
): Value {
  const value = env[name] ?? standard;
  const found = known.find((one) => one === value);
  if (!found) throw new Error(`${name}: expected one of ${known.join(', ')}, got ${value}`);
  return found;
}

function needed(name: string, env: NodeJS.ProcessEnv): string {
  const value = env[name];
  if (!value) throw new Error(`${name}: expected a value in the environment, got none`);
  return value;
}

function port(name: string, env: NodeJS.ProcessEnv, standard: number): number {
  const value = env[name] === undefined ? standard : Number(env[name]);
  if (!Number.isInteger(value) || value < 0 || value > 65_535) {
    throw new Error(`${name}: expected a port from 0 to 65535, got ${env[name]}`);
  }
  return value;
}
