/**
 * Kills the worker and PostgreSQL at random moments while answers come in, and counts afterwards what became of them.
 *
 *   node --import tsx bench/kills.ts [how many, 50]
 *
 * Writes docs/reliability.md. Takes minutes, and is no part of `npm run bench`.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { simpleParser } from 'mailparser';
import pg from 'pg';
import { SMTPServer } from 'smtp-server';
import { connect } from './deliveries.ts';
import { answerOf, createInstallation, letterOf } from './installation.ts';

const KILLS = Number(process.argv[2] ?? 50);
const SENDERS = 6;
const PAUSE_MS = 120;
/** Between two kills, milliseconds: at least, and at most. */
const BETWEEN = [400, 2500] as const;
const PATIENCE_MS = 180_000;
const FILE = new URL('../docs/reliability.md', import.meta.url);

const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
/** How often each delivery arrived, by its id. */
const arrived = new Map<string, number>();
const note = (id: string) => arrived.set(id, (arrived.get(id) ?? 0) + 1);

const mailbox = new SMTPServer({
  authOptional: true,
  disabledCommands: ['STARTTLS', 'AUTH'],
  onData: (stream, _session, done) =>
    void simpleParser(stream).then((mail) => {
      note(/^<([^@]+)@/.exec(mail.messageId ?? '')?.[1] ?? 'without an id');
      done();
    }, done),
});
mailbox.on('error', () => {});
await new Promise<void>((resolve) => mailbox.listen(0, '127.0.0.1', () => resolve()));
const records = createServer((request, response) => {
  note(String(request.headers['idempotency-key']));
  request.resume();
  response.writeHead(202).end();
});
await new Promise<void>((resolve) => records.listen(0, '127.0.0.1', resolve));
const portOf = (server: { address(): unknown }) => (server.address() as AddressInfo).port;

const installation = await createInstallation();
const { cluster, client, env, home, ports, start } = installation;
env.VELARIUM_SMTP = `127.0.0.1:${portOf(mailbox.server)}`;
const letter = await letterOf(client);
await client.query(
  `UPDATE follow_up SET document = document || '{"notice":{"to":["desk@quillonfell.example"],"rhythm":"atOnce"}}'`,
);
await connect(installation, letter, `http://127.0.0.1:${portOf(records)}/`);
const edge = start('server', ['--role=edge']);
await edge.ready;
let worker = start('server', ['--role=worker']);
await worker.ready;

const acknowledged: string[] = [];
let refusals = 0;
let isLoading = true;
async function send(sender: number): Promise<void> {
  for (let n = sender; isLoading; n += SENDERS) {
    const answer = answerOf(letter.id, n);
    const headers = { ...answer.headers, origin: `http://127.0.0.1:${ports.fell}` };
    // As a visitor would who presses again: the same answer, until it is taken.
    for (let isTaken = false; !isTaken && isLoading; ) {
      try {
        const response = await fetch(`http://127.0.0.1:${ports.edge}/submit`, {
          method: 'POST',
          headers,
          body: answer.body,
        });
        const { status } = response;
        isTaken = status === 204;
        if (status !== 204 && status !== 503)
          throw new Error(`/submit answered ${status}: ${await response.text()}`);
      } catch (error) {
        if (error instanceof Error && error.message.startsWith('/submit')) throw error;
      }
      if (isTaken) acknowledged.push(answer.id);
      else {
        refusals += 1;
        await wait(150);
      }
    }
    await wait(PAUSE_MS);
  }
}
const senders = Array.from({ length: SENDERS }, (_, n) => send(n));

const killed = { worker: 0, database: 0 };
for (let n = 0; n < KILLS; n++) {
  await wait(BETWEEN[0] + Math.random() * (BETWEEN[1] - BETWEEN[0]));
  if (Math.random() < 0.5) {
    killed.worker += 1;
    process.kill(worker.pid, 'SIGKILL');
    await worker.ended;
    worker = start('server', ['--role=worker']);
    await worker.ready;
  } else {
    killed.database += 1;
    const [pid] = readFileSync(`${home}/pg/data/postmaster.pid`, 'utf8').split('\n');
    const { died } = cluster;
    process.kill(Number(pid), 'SIGKILL');
    await died;
    await cluster.restart();
  }
  console.log(`${n + 1} of ${KILLS}; ${acknowledged.length} answers acknowledged`);
}
isLoading = false;
await Promise.all(senders);

const after = new pg.Client({ connectionString: cluster.url });
await after.connect();
const beganMs = Date.now();
for (;;) {
  // What failed while the database was away is tried again now, not in an hour.
  await after.query(
    `UPDATE delivery SET due_at = least(due_at, now() + interval '1 second') WHERE state = 'retrying'`,
  );
  const { rows } = await after.query(
    `SELECT count(*)::integer AS left FROM delivery WHERE state IN ('waiting', 'retrying')`,
  );
  if (rows[0].left === 0 || Date.now() - beganMs > PATIENCE_MS) break;
  await wait(500);
}
const { rows: kept } = await after.query('SELECT id FROM lead WHERE id = ANY($1)', [acknowledged]);
const { rows: due } = await after.query(
  `SELECT lead_id AS lead, kind, state, id FROM delivery WHERE lead_id = ANY($1)`,
  [acknowledged],
);
const known = new Set<string>((await after.query('SELECT id FROM delivery')).rows.map(({ id }) => id));
await after.end();
const missing = due.filter(({ id }) => !arrived.has(id)).length;
const unsent = due.filter(({ state }) => state !== 'sent').length;
const repeats = [...arrived.values()].reduce((sum, count) => sum + count - 1, 0);
const strangers = [...arrived.keys()].filter((id) => !known.has(id)).length;

const text = `# Reliability

Written by \`node --import tsx bench/kills.ts\`: the worker and PostgreSQL are killed (SIGKILL) at random moments while
${SENDERS} senders answer a form that has a welcome mail, a notice to the team and a connection. Senders press again, with the
same answer, until it is taken, as visitors do.

${new Date().toISOString().slice(0, 10)}, Node.js ${process.version}, fsync on.

| | |
|---|---|
| kills | ${KILLS}: the worker ${killed.worker}, PostgreSQL ${killed.database} |
| answers acknowledged | ${acknowledged.length} (${refusals} times a sender had to press again) |
| of them stored | ${kept.length} |
| deliveries due for them, three each | ${due.length} of ${acknowledged.length * 3} written down |
| not arrived | ${missing} |
| not marked as sent | ${unsent} |
| arrived more than once, each under its own id | ${repeats} |
| arrived under an id that no delivery has | ${strangers} |
`;
writeFileSync(FILE, text);
console.log(text);
await installation.end();
mailbox.close();
records.closeAllConnections();
records.close();
const isWhole =
  kept.length === acknowledged.length &&
  due.length === acknowledged.length * 3 &&
  missing === 0 &&
  unsent === 0 &&
  strangers === 0;
process.exit(isWhole ? 0 : 1);
