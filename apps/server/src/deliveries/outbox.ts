import type {
  Delivery,
  DeliveryFilter,
  DeliveryKind,
  DeliveryPage,
  DeliveryTries,
  MoveDeliveries,
  Person,
} from '@velarium/contract';
import type { DataSource, EntityManager } from 'typeorm';
import { notFound } from '../infra/problem.ts';
import type { DeliveryPayload } from './payload.ts';

export interface NewDelivery {
  readonly workspaceId: string;
  readonly siteId: string | null;
  readonly kind: DeliveryKind;
  /** What goes the same way waits in the same lane. */
  readonly lane: string;
  readonly recipient: string;
  readonly payload: DeliveryPayload;
  readonly personId?: string | null;
  readonly leadId?: string | null;
  readonly connectionId?: string | null;
  /** Of two for the same cause one is written down. */
  readonly once?: string;
  readonly dueAt?: Date;
  /** Its connection rests: it waits until that is on again. */
  readonly isHeld?: boolean;
}

/** Mail of one workspace goes by one server. */
export const mailLane = (workspaceId: string): string => `mail ${workspaceId}`;

/** What a mail of a site's is written down with. */
export const mailTo = (workspaceId: string, siteId: string, recipient: string) => ({
  workspaceId,
  siteId,
  recipient,
  lane: mailLane(workspaceId),
});

const LISTED = 100;
/** Of what went to one person; a file of everything has all. */
const SENT_SHOWN = 200;

/** Writes down what must go out, in the transaction that made it due. Answers with how many were not there before. */
export async function enqueue(manager: EntityManager, deliveries: readonly NewDelivery[]): Promise<number> {
  if (deliveries.length === 0) return 0;
  const column = (pick: (one: NewDelivery) => unknown) => deliveries.map(pick);
  const rows: unknown[] = await manager.query(
    `INSERT INTO delivery (workspace_id, site_id, kind, lane, recipient, payload, person_id, lead_id, connection_id, once,
                           due_at, state)
     SELECT workspace_id, site_id, kind, lane, recipient, payload, person_id, lead_id, connection_id, once,
            coalesce(due_at, now()), state
       FROM unnest($1::uuid[], $2::uuid[], $3::text[], $4::text[], $5::text[], $6::jsonb[], $7::uuid[], $8::uuid[],
                   $9::uuid[], $10::text[], $11::timestamptz[], $12::text[])
         AS new (workspace_id, site_id, kind, lane, recipient, payload, person_id, lead_id, connection_id, once, due_at,
                 state)
     ON CONFLICT (once) DO NOTHING RETURNING id`,
    [
      column((one) => one.workspaceId),
      column((one) => one.siteId),
      column((one) => one.kind),
      column((one) => one.lane),
      column((one) => one.recipient),
      column((one) => JSON.stringify(one.payload)),
      column((one) => one.personId ?? null),
      column((one) => one.leadId ?? null),
      column((one) => one.connectionId ?? null),
      column((one) => one.once ?? null),
      column((one) => one.dueAt?.toISOString() ?? null),
      column((one) => (one.isHeld ? 'held' : 'waiting')),
    ],
  );
  return rows.length;
}

interface Where {
  readonly sql: string;
  readonly values: readonly unknown[];
}

/** Whose deliveries: a site's, or those to the members of a workspace, which belong to no site. */
export type OutboxScope =
  | { readonly siteId: string; readonly timeZone: string }
  | { readonly workspaceId: string; readonly timeZone: string };
const isOf = (scope: OutboxScope): Where =>
  'siteId' in scope
    ? { sql: 'd.site_id = $1', values: [scope.siteId] }
    : { sql: 'd.workspace_id = $1 AND d.site_id IS NULL', values: [scope.workspaceId] };

function whereOf(scope: OutboxScope, filter: Omit<DeliveryFilter, 'of' | 'cursor'>): Where {
  const own = isOf(scope);
  const { timeZone } = scope;
  const values: unknown[] = [...own.values];
  const put = (value: unknown) => `$${values.push(value)}`;
  const parts = [own.sql];
  if (filter.kind) parts.push(`d.kind = ${put(filter.kind)}`);
  if (filter.state) parts.push(`d.state = ${put(filter.state)}`);
  if (filter.connection) parts.push(`d.connection_id = ${put(filter.connection)}`);
  if (filter.q) {
    const word = put(`%${filter.q.toLowerCase().replace(/[\\%_]/g, '\\$&')}%`);
    parts.push(
      `(lower(d.recipient) LIKE ${word} OR lower(p.address) LIKE ${word} OR lower(d.words) LIKE ${word})`,
    );
  }
  if (filter.from)
    parts.push(`d.created_at >= ${put(filter.from)}::date::timestamp AT TIME ZONE ${put(timeZone)}`);
  if (filter.until)
    parts.push(`d.created_at < (${put(filter.until)}::date + 1)::timestamp AT TIME ZONE ${put(timeZone)}`);
  return { sql: parts.join(' AND '), values };
}

interface DeliveryRow extends Omit<Delivery, 'createdAt' | 'dueAt' | 'sentAt'> {
  readonly createdAt: Date;
  readonly dueAt: Date;
  readonly sentAt: Date | null;
  readonly at: string;
}

/** What went and will go out of a site: read, sent again, stopped. Callers have made sure that the site is the workspace's. */
export function createOutbox(db: DataSource) {
  return {
    async list(scope: OutboxScope, { cursor, ...filter }: DeliveryFilter): Promise<DeliveryPage> {
      const { sql, values } = whereOf(scope, filter);
      const own = isOf(scope);
      const [at, id] = cursor?.split('~') ?? [];
      const after = cursor
        ? `AND (d.created_at, d.id) < ($${values.length + 1}::timestamptz, $${values.length + 2}::uuid)`
        : '';
      const rows: DeliveryRow[] = await db.query(
        `SELECT d.id, d.kind, d.state, d.recipient, p.address AS about, c.settings ->> 'name' AS connection,
                d.created_at AS "createdAt", d.due_at AS "dueAt", d.sent_at AS "sentAt", d.tries, d.words,
                d.created_at::text AS at
           FROM delivery d LEFT JOIN person p ON p.id = d.person_id LEFT JOIN connection c ON c.id = d.connection_id
          WHERE ${sql} ${after} ORDER BY d.created_at DESC, d.id DESC LIMIT ${LISTED + 1}`,
        [...values, ...(cursor ? [at, id] : [])],
      );
      const counts: { state: string; count: number }[] = await db.query(
        // What was sent grows for ever, and nobody acts on how much it is.
        `SELECT state, count(*)::integer AS count FROM delivery d WHERE ${own.sql} AND state <> 'sent' GROUP BY state`,
        [...own.values],
      );
      const page = rows.slice(0, LISTED);
      const last = page.at(-1);
      return {
        deliveries: page.map(({ at: _at, ...row }) => ({
          ...row,
          createdAt: row.createdAt.toISOString(),
          dueAt: row.dueAt.toISOString(),
          sentAt: row.sentAt?.toISOString() ?? null,
        })),
        next: rows.length > LISTED && last ? `${last.at}~${last.id}` : null,
        counts: {
          waiting: 0,
          retrying: 0,
          givenUp: 0,
          held: 0,
          stopped: 0,
          ...Object.fromEntries(counts.map(({ state, count }) => [state, count])),
        },
      };
    },

    async tries(scope: OutboxScope, id: string): Promise<DeliveryTries> {
      const own = isOf(scope);
      const [row]: { sent: string | null }[] = await db.query(
        `SELECT sent FROM delivery d WHERE ${own.sql} AND d.id = $2`,
        [...own.values, id],
      );
      if (!row) throw notFound('delivery');
      const tries: (Omit<DeliveryTries['tries'][number], 'at'> & { at: Date })[] = await db.query(
        `SELECT at, milliseconds, is_good AS "isGood", status, words, answer FROM delivery_try
          WHERE delivery_id = $1 ORDER BY at DESC LIMIT 100`,
        [id],
      );
      return { sent: row.sent, tries: tries.map((one) => ({ ...one, at: one.at.toISOString() })) };
    },

    /** Sends again or stops these, or all that fit a filter. Answers with how many that were. */
    async move(
      scope: OutboxScope,
      { move, ids, filter }: Pick<MoveDeliveries, 'move' | 'ids' | 'filter'>,
    ): Promise<number> {
      const own = isOf(scope);
      const { sql, values } = ids
        ? { sql: `${own.sql} AND d.id = ANY($2)`, values: [...own.values, ids] }
        : whereOf(scope, filter ?? { q: '' });
      const change =
        move === 'again'
          ? // Its three days begin anew; what rests with its connection goes when that is on again.
            `state = CASE WHEN c.state = 'resting' THEN 'held' ELSE 'waiting' END, due_at = now(), begun_at = NULL, tries = 0`
          : `state = 'stopped', words = 'Stopped by hand.'`;
      const from =
        move === 'again'
          ? `d.state IN ('retrying', 'sent', 'givenUp', 'stopped')`
          : `d.state IN ('waiting', 'retrying', 'held')`;
      const [, count]: [unknown, number] = await db.query(
        `UPDATE delivery SET ${change}
           FROM (SELECT d.id, c.state FROM delivery d LEFT JOIN person p ON p.id = d.person_id
                   LEFT JOIN connection c ON c.id = d.connection_id WHERE ${sql} AND ${from}) AS c
          WHERE delivery.id = c.id`,
        [...values],
      );
      return count;
    },

    /** What went or will go to a person, or about them, newest first. */
    async sentTo(personId: string, isWhole = false): Promise<Person['sent']> {
      const rows: {
        id: string;
        kind: string;
        state: string;
        dueAt: Date;
        sentAt: Date | null;
        words: string | null;
      }[] = await db.query(
        `SELECT id, kind, state, due_at AS "dueAt", sent_at AS "sentAt", words FROM delivery
            WHERE person_id = $1 ORDER BY created_at DESC LIMIT $2`,
        [personId, isWhole ? null : SENT_SHOWN],
      );
      return rows.map((row) => ({
        ...row,
        dueAt: row.dueAt.toISOString(),
        sentAt: row.sentAt?.toISOString() ?? null,
      }));
    },
  };
}

/**
 * Removes what went out to or about people and because of answers, with every byte of it, and says how many mails to
 * people that were. To be called while the answers are there still.
 */
export async function forgetDeliveries(
  manager: EntityManager,
  { persons, answers }: { readonly persons: readonly string[]; readonly answers: readonly string[] },
): Promise<number> {
  const leads = '(SELECT id FROM lead WHERE person_id = ANY($1) OR id = ANY($2))';
  // A day's digest tells of others too: what it said is forgotten, that it went out is not.
  await manager.query(
    `UPDATE delivery SET sent = NULL FROM lead
      WHERE kind = 'digest' AND sent IS NOT NULL AND lead.id IN ${leads}
        AND (payload ->> 'campaignId')::uuid = lead.campaign_id
        AND (payload ->> 'from')::timestamptz <= lead.submitted_at AND lead.submitted_at < (payload ->> 'until')::timestamptz`,
    [persons, answers],
  );
  const [rows]: [{ kind: DeliveryKind }[]] = await manager.query(
    `DELETE FROM delivery WHERE person_id = ANY($1) OR lead_id IN ${leads} RETURNING kind`,
    [persons, answers],
  );
  return rows.filter(({ kind }) => kind === 'confirmation' || kind === 'reminder' || kind === 'welcome')
    .length;
}

/** Stops what was still to go to a person, with the reason. */
export const stopForPerson = (
  manager: EntityManager,
  personId: string,
  kinds: readonly DeliveryKind[],
  words: string,
): Promise<unknown> =>
  manager.query(
    `UPDATE delivery SET state = 'stopped', words = $3
      WHERE person_id = $1 AND kind = ANY($2) AND state IN ('waiting', 'retrying', 'held')`,
    [personId, kinds, words],
  );
