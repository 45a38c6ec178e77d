import { readFileSync } from 'node:fs';
import { createDataSource } from '../apps/server/src/infra/orm.ts';
import { createServices } from '../apps/server/src/services.ts';
import { createInstallation, letterOf } from './installation.ts';
import type { Figure } from './measure.ts';

const PEOPLE = 500_000;
const SEARCHES = 60;
const MOST_MS = 100;
const MOST_SECONDS = 20;
const MOST_MB = 50;

/** Of a process, as its system counts it. */
const residentMb = (pid: number): number =>
  Number(/VmRSS:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1000;

/** A page of very many people, searched, and the export of them all. */
export async function measurePeople(): Promise<Figure[]> {
  const { client, cluster, ports, start, end } = await createInstallation();
  const db = await createDataSource(cluster.url).initialize();
  try {
    const letter = await letterOf(client);
    await client.query(
      `INSERT INTO person (id, workspace_id, site_id, address, address_key, state)
       SELECT gen_random_uuid(), $1, $2, one, one, 'agreed'
         FROM (SELECT 'reader-' || n || '@example.org' AS one FROM generate_series(1, $3) AS n) AS made`,
      [letter.workspaceId, letter.siteId, PEOPLE],
    );
    await client.query(
      `INSERT INTO lead (id, workspace_id, site_id, campaign_id, version, visitor, fields, consent_text, consented_at, page,
                         submitted_at, person_id, form, search)
       SELECT gen_random_uuid(), $1, $2, $3, 1, gen_random_uuid(),
              jsonb_build_array(jsonb_build_object('id', 'email', 'kind', 'email', 'label', 'Mail', 'value', address)),
              'I agree', now(), '/journal/finding-saturn', now() - random() * interval '300 days', id, $4, address
         FROM person WHERE address LIKE 'reader-%'`,
      [letter.workspaceId, letter.siteId, letter.id, letter.form],
    );
    await client.query('ANALYZE lead; ANALYZE person');
    const { accounts, people } = createServices(db, {
      secrets: ['x'.repeat(40)],
      edgeOrigin: 'https://edge.example',
      studioOrigin: 'https://studio.example',
    });
    const all = { q: '', isHeld: 'no' } as const;
    const tookMs: number[] = [];
    for (let n = 0; n < SEARCHES; n++) {
      // Searched for by a whole word, by the beginning of one, and for what nobody is called.
      const q = [`reader-${n * 7919}@`, `${n}99`, `nobody-${n}`, ''][n % 4] as string;
      const beganMs = performance.now();
      await people.list(letter.workspaceId, letter.siteId, { ...all, q }, null);
      tookMs.push(performance.now() - beganMs);
    }
    tookMs.sort((a, b) => a - b);
    const p95 = tookMs[Math.floor(tookMs.length * 0.95)] ?? 0;

    const { secret } = await accounts.tokens.make(
      {
        accountId: '',
        name: 'Bench',
        email: '',
        workspaceId: letter.workspaceId,
        workspaceName: '',
        asksSecond: false,
        role: 'owner',
      },
      { name: 'Export', siteId: letter.siteId },
    );
    const server = start('server');
    await server.ready;
    const take = (filter: string) =>
      fetch(`http://127.0.0.1:${ports.studio}/api/sites/${letter.siteId}/answers.csv?${filter}`, {
        headers: { authorization: `Bearer ${secret}` },
      });
    // One small file first: what is loaded once is no part of how many answers there are.
    await (await take('q=reader-4711@')).text();
    const beforeMb = residentMb(server.pid);
    let mostMb = beforeMb;
    const watch = setInterval(() => {
      mostMb = Math.max(mostMb, residentMb(server.pid));
    }, 50);
    const beganMs = performance.now();
    let rows = 0;
    for await (const chunk of (await take('')).body ?? [])
      rows += Buffer.from(chunk).toString().split('\r\n').length - 1;
    clearInterval(watch);
    const seconds = (performance.now() - beganMs) / 1000;
    if (rows < PEOPLE) throw new Error(`export: expected at least ${PEOPLE} rows, got ${rows}`);
    const moreMb = mostMb - beforeMb;
    return [
      {
        what: `a page of ${PEOPLE.toLocaleString('en-GB')} people, searched: p95`,
        ours: `${p95.toFixed(1)} ms`,
        reference: `${MOST_MS} ms`,
        ratio: `${(p95 / MOST_MS).toFixed(2)}x`,
        target: 'at most 1',
        isMet: p95 <= MOST_MS,
      },
      {
        what: `export of them all, ${moreMb.toFixed(0)} MB more memory (at most ${MOST_MB})`,
        ours: `${seconds.toFixed(1)} s`,
        reference: `${MOST_SECONDS} s`,
        ratio: `${(seconds / MOST_SECONDS).toFixed(2)}x`,
        target: 'at most 1',
        isMet: seconds <= MOST_SECONDS && moreMb <= MOST_MB,
      },
    ];
  } finally {
    await db.destroy();
    await end();
  }
}
