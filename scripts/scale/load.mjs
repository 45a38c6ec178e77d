import { randomBytes } from 'node:crypto';
import { answerOf } from '../../bench/installation.ts';

const SENDERS = 8;
const SITE = 'quillonfell2';
const PATIENCE_MS = 8000;

const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
/** A version 7 id (RFC 9562) of this instant. */
function eventId() {
  const time = Date.now().toString(16).padStart(12, '0');
  const some = (digits) => randomBytes(8).toString('hex').slice(0, digits);
  return `${time.slice(0, 8)}-${time.slice(8)}-7${some(3)}-8${some(3)}-${some(12)}`;
}

/**
 * Sends events and answers of visitors to edges in turn, and asks them for the manifest, until it is stopped.
 *
 * @param {{ edges: () => readonly string[], campaign: string, origin: string }} of The edges there are at the moment, the
 *   campaign that is answered, and the page's origin.
 */
export function startLoad({ edges, campaign, origin }) {
  let isSending = true;
  const kept = { events: [], answers: [] };
  /** Instants at which something was refused, by `performance.now()`. */
  const refused = [];
  const manifests = { served: 0, unserved: 0 };
  const address = (n) => {
    const there = edges();
    return there[n % there.length];
  };
  const send = async (n) => {
    for (let at = 0; isSending; at++) {
      const edge = address(n + at);
      const answer = answerOf(campaign, n * 10_000 + at);
      const id = eventId();
      const event = { id, kind: 'pageview', session: id, page: '/journal', device: 'desktop' };
      const post = async (path, body, list, sent) => {
        const isTaken = await fetch(`${edge}${path}`, {
          method: 'POST',
          headers: { ...answer.headers, origin },
          body,
          signal: AbortSignal.timeout(PATIENCE_MS),
        }).then(
          ({ ok }) => ok,
          () => false,
        );
        if (isTaken) list.push(sent);
        else refused.push(performance.now());
      };
      const visitor = randomBytes(16).toString('hex');
      await post('/collect', JSON.stringify({ site: SITE, visitor, events: [event] }), kept.events, id);
      await post('/submit', answer.body, kept.answers, answer.id);
      await wait(20);
    }
  };
  const look = async () => {
    for (let at = 0; isSending; at++) {
      const isThere = await fetch(`${address(at)}/tag/${SITE}/manifest.json`).then(
        async (answer) => (await answer.text()) !== '' && answer.ok,
        () => false,
      );
      manifests[isThere ? 'served' : 'unserved'] += 1;
      await wait(10);
    }
  };
  const busy = [...Array.from({ length: SENDERS }, (_, n) => send(n)), look()];
  return {
    kept,
    refused,
    manifests,
    async stop() {
      isSending = false;
      await Promise.all(busy);
    },
  };
}

/** How many of these ids a table has not. */
export async function missingOf(client, ids, table) {
  const { rows } = await client.query(
    `SELECT count(*)::int AS count FROM unnest($1::uuid[]) AS id WHERE NOT EXISTS (SELECT FROM ${table} one WHERE one.id = id.id)`,
    [ids],
  );
  return rows[0].count;
}
