import { readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createSeal } from '../apps/server/src/infra/seal.ts';
import { answerOf, createInstallation, type Installation, letterOf } from './installation.ts';
import { type Figure, perSecond, times } from './measure.ts';

const ANSWERS = 1500;
const CONNECTIONS = 20;
const FLOODED = 600;
const OF_EACH = 1200;
const TAKES_MS = 50;

/** What answers and deliveries cost: storing with what they make due, and carrying it out beside a dead receiver. */
export async function measureDeliveries(): Promise<Figure[]> {
  const installation = await createInstallation();
  try {
    return [
      await measureSubmit(installation),
      await measureFlood(installation),
      ...(await measureCarrying(installation)),
    ];
  } finally {
    await installation.end();
  }
}

/** `/submit` with a welcome mail, a notice and an event written down, beside the same with none. Nothing is sent meanwhile. */
async function measureSubmit(installation: Installation): Promise<Figure> {
  const { client, ports, start } = installation;
  const letter = await letterOf(client);
  const none = { confirmation: null, welcome: [], notice: null };
  const { rows } = await client.query('SELECT document FROM follow_up WHERE campaign_id = $1', [letter.id]);
  const all = { ...rows[0].document, notice: { to: ['desk@quillonfell.example'], rhythm: 'atOnce' } };
  const set = (document: object) =>
    client.query('UPDATE follow_up SET document = $2 WHERE campaign_id = $1', [
      letter.id,
      JSON.stringify(document),
    ]);
  const edge = start('server', ['--role=edge']);
  await edge.ready;
  const run = () => sendAnswers(ports, letter.id);
  await set(none);
  await run();
  const bare = await run();
  await set(all);
  await connect(installation, letter, 'http://127.0.0.1:9/hook');
  const full = await run();
  const due = await client.query(`SELECT count(*)::integer AS due FROM delivery WHERE state = 'waiting'`);
  if (due.rows[0].due < ANSWERS * 3) throw new Error(`expected ${ANSWERS * 3} due, got ${due.rows[0].due}`);
  await edge.stop();
  await client.query('DELETE FROM delivery; DELETE FROM connection');
  return {
    what: '`/submit`, each with a welcome mail, a notice and an event written down',
    ours: perSecond(full),
    reference: `with none of them ${perSecond(bare)}`,
    ratio: times(full / bare),
    target: 'at least 0.5x',
    isMet: full / bare >= 0.5,
  };
}

/** Sends answers over so many connections, and says how many a second were taken. */
async function sendAnswers(
  ports: Installation['ports'],
  campaign: string,
  { count = ANSWERS, connections = CONNECTIONS, from = '' } = {},
): Promise<number> {
  const answers = Array.from({ length: count }, (_, n) => answerOf(campaign, n));
  const beganMs = performance.now();
  await Promise.all(
    Array.from({ length: connections }, async () => {
      for (let answer = answers.pop(); answer; answer = answers.pop()) {
        const { status } = await fetch(`http://127.0.0.1:${ports.edge}/submit`, {
          method: 'POST',
          headers: {
            ...answer.headers,
            origin: `http://127.0.0.1:${ports.fell}`,
            ...(from ? { 'x-forwarded-for': from } : {}),
          },
          body: answer.body,
        });
        // Past the limit of an address the door says so before anything is read.
        if (status !== 204 && !(from && status === 429)) throw new Error(`/submit: got status ${status}`);
      }
    }),
  );
  return count / ((performance.now() - beganMs) / 1000);
}

/** What a flood from one address costs those who answer meanwhile, and what of it is stored. */
async function measureFlood({ client, ports, start }: Installation): Promise<Figure> {
  const letter = await letterOf(client);
  const edge = start('server', ['--role=edge']);
  await edge.ready;
  const honest = { count: FLOODED, connections: CONNECTIONS / 2 };
  await sendAnswers(ports, letter.id, honest);
  const alone = await sendAnswers(ports, letter.id, honest);
  const { rows: before } = await client.query(
    'SELECT count(*)::integer AS held FROM lead WHERE held IS NOT NULL',
  );
  let isOver = false;
  let flooded = 0;
  const flood = (async () => {
    while (!isOver) {
      await sendAnswers(ports, letter.id, { count: 200, connections: CONNECTIONS / 2, from: '192.0.2.66' });
      flooded += 200;
    }
  })();
  const beside = await sendAnswers(ports, letter.id, honest);
  isOver = true;
  await flood;
  const { rows } = await client.query('SELECT count(*)::integer AS held FROM lead WHERE held IS NOT NULL');
  await edge.stop();
  return {
    what: `honest answers while one address sends ${flooded.toLocaleString('en-GB')} of its own (${(rows[0].held - before[0].held).toLocaleString('en-GB')} kept apart, none sent on)`,
    ours: perSecond(beside),
    reference: `without the flood ${perSecond(alone)}`,
    ratio: times(beside / alone),
    target: 'at least 0.3x',
    isMet: beside / alone >= 0.3,
  };
}

export const connect = async (
  { client, env }: Pick<Installation, 'client' | 'env'>,
  { siteId, workspaceId }: { siteId: string; workspaceId: string },
  address: string,
): Promise<string> => {
  const settings = {
    kind: 'request',
    name: address,
    address,
    events: ['answer.stored'],
    campaigns: null,
    method: 'POST',
    body: 'json',
    headers: [],
    names: [],
  };
  const seal = createSeal([readFileSync(env.VELARIUM_SECRET_FILE ?? '', 'utf8').trim()]);
  const { rows } = await client.query(
    'INSERT INTO connection (workspace_id, site_id, settings, sealed) VALUES ($1, $2, $3, $4) RETURNING id',
    [workspaceId, siteId, JSON.stringify(settings), seal.close({ signing: [], headers: {} })],
  );
  return rows[0].id;
};

async function receiver(isDead: boolean): Promise<{ address: string; server: Server }> {
  const server = createServer((_request, response) => {
    if (!isDead) setTimeout(() => response.writeHead(202).end(), TAKES_MS);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return { address: `http://127.0.0.1:${(server.address() as AddressInfo).port}/`, server };
}

/** Two workers over three connections that take 50 ms, and the same with a fourth that never answers. */
async function measureCarrying(installation: Installation): Promise<Figure[]> {
  const { client, start } = installation;
  const letter = await letterOf(client);
  const alive = await Promise.all([receiver(false), receiver(false), receiver(false)]);
  const dead = await receiver(true);
  const ids: string[] = [];
  for (const { address } of [...alive, dead]) ids.push(await connect(installation, letter, address));
  const workers = [start('server', ['--role=worker']), start('server', ['--role=worker'])];
  await Promise.all(workers.map(({ ready }) => ready));
  const run = async (connections: readonly string[]): Promise<number> => {
    await client.query('DELETE FROM delivery');
    const beganMs = performance.now();
    await client.query(
      `INSERT INTO delivery (workspace_id, site_id, kind, lane, state, recipient, connection_id, payload)
       SELECT $1, $2, 'request', 'connection ' || one, 'waiting', 'x', one::uuid,
              '{"of":"event","event":"campaign.published","at":"2026-11-27T09:00:00Z","data":{}}'
         FROM unnest($3::text[]) AS one, generate_series(1, $4)`,
      [letter.workspaceId, letter.siteId, connections, OF_EACH],
    );
    const whole = alive.length * OF_EACH;
    for (;;) {
      const { rows } = await client.query(
        `SELECT count(*)::integer AS sent FROM delivery WHERE state = 'sent'`,
      );
      if (rows[0].sent >= whole) return whole / ((performance.now() - beganMs) / 1000);
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  };
  const living = ids.slice(0, 3);
  await run(living);
  const alone = await run(living);
  const beside = await run(ids);
  const again = await run(living);
  for (const { server } of [...alive, dead]) {
    server.closeAllConnections();
    server.close();
  }
  const mean = (alone + again) / 2;
  return [
    {
      what: `deliveries by two workers, each taken in ${TAKES_MS} ms, a fourth connection dead`,
      ours: perSecond(beside),
      reference: '300 /s',
      ratio: times(beside / 300),
      target: 'at least 1x',
      isMet: beside >= 300,
    },
    {
      what: 'the same beside without the dead one',
      ours: perSecond(beside),
      reference: perSecond(mean),
      ratio: times(beside / mean),
      target: 'at least 0.95x',
      isMet: beside / mean >= 0.95,
    },
  ];
}
