import { randomBytes, randomUUID } from 'node:crypto';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import pg from 'pg';
import { type Cluster, startCluster } from '../scripts/lib/cluster.mjs';
import { choosePorts } from '../scripts/lib/ports.mjs';
import { type Ports, type Program, programEnv, startOne, startWhole } from '../scripts/lib/whole.mjs';

/** A seeded installation whose programs are started and ended one by one. */
export interface Installation {
  readonly cluster: Cluster;
  readonly client: pg.Client;
  readonly ports: Ports;
  readonly home: string;
  readonly env: Record<string, string>;
  /** Starts one program more; it is ended with the installation. */
  start(name: 'server' | 'sites' | 'standins', args?: readonly string[]): Program;
  end(): Promise<void>;
}

/** Makes one over a durable cluster: what is acknowledged is on disk. Nothing runs but the database. */
export async function createInstallation(): Promise<Installation> {
  const home = mkdtempSync('/tmp/velarium-bench-');
  // PostgreSQL's own user must be able to walk into it.
  chmodSync(home, 0o755);
  const cluster = await startCluster({ home });
  const ports = await choosePorts({ studio: 0, edge: 0, fell: 0, skerry: 0, standins: 0, smtp: 0 });
  const options = { databaseUrl: cluster.url, home, ports };
  // Seeds the demo.
  await (await startWhole(options)).stop();
  const client = new pg.Client({ connectionString: cluster.url });
  // A killed database ends it; whoever kills it connects anew.
  client.on('error', () => {});
  await client.connect();
  const env = programEnv(options);
  const started: Program[] = [];
  return {
    cluster,
    client,
    ports,
    home,
    env,
    start(name, args) {
      const program = startOne(name, options, env, args);
      // Whoever kills it knows.
      program.ready.catch(() => {});
      started.push(program);
      return program;
    },
    async end() {
      await Promise.all(started.map((program) => program.stop()));
      await client.end().catch(() => {});
      await cluster.stop();
      rmSync(home, { recursive: true, force: true });
    },
  };
}

const USER_AGENT = 'Mozilla/5.0 (X11; Linux x86_64) Chrome/156.0.0.0 Safari/537.36';

/** A version 7 id (RFC 9562) of this instant, or so long ago. */
function eventId(agoMs = 0): string {
  const time = (Date.now() - agoMs).toString(16).padStart(12, '0');
  return `${time.slice(0, 8)}-${time.slice(8)}-7${randomUUID().slice(15)}`;
}

/** An answer to the demo's sky letter, as its page would send it, from an address of its own (RFC 5737). */
export function answerOf(campaign: string, n: number) {
  const id = eventId();
  return {
    id,
    headers: {
      'content-type': 'text/plain',
      'user-agent': USER_AGENT,
      'x-forwarded-for': `203.0.113.${(n >> 8) % 256}, 198.51.100.${n % 256}`,
    },
    body: JSON.stringify({
      site: 'quillonfell2',
      visitor: randomBytes(16).toString('hex'),
      event: {
        id,
        kind: 'converted',
        session: eventId(),
        page: '/journal/finding-saturn',
        device: 'desktop',
        campaign,
        version: 1,
      },
      showing: eventId(20_000),
      fields: { email: `reader-${n}-${id.slice(-6)}@example.org` },
      consent: true,
    }),
  };
}

export const letterOf = async (
  client: pg.Client,
): Promise<{ id: string; form: string; siteId: string; workspaceId: string }> => {
  const { rows } = await client.query(
    `SELECT c.id, f.form, c.site_id AS "siteId", c.workspace_id AS "workspaceId"
       FROM campaign c JOIN follow_up f ON f.campaign_id = c.id LIMIT 1`,
  );
  return rows[0];
};
