import { nextTryMs } from '@velarium/core';
import type { DataSource } from 'typeorm';
import type { Carry, DueDelivery, TryResult } from './carry.ts';

/** Tries under way in this process: of one lane, of a lane that does not answer, and in all. */
const OF_LANE = 8;
const OF_FAILING_LANE = 1;
const IN_ALL = 256;
/** How often an idle worker looks. */
const LOOK_EVERY_MS = 250;
/** How soon it looks again once there is room: what ends meanwhile is looked for together. */
const LOOK_SOON_MS = 15;
/** How often it looks while the database is away. */
const AWAY_MS = 1000;
/** Whoever has not told of a try by then is taken for dead, and it is tried again. Longer than any try lasts. */
const LOST_AFTER_SECONDS = 60;

export interface SendDueServices {
  readonly db: DataSource;
  readonly carry: Carry;
  /** Told of a connection that wants nothing more, or has failed too long. */
  readonly onFailing: (connectionId: string, isGone: boolean) => Promise<void>;
  readonly report: (error: unknown) => void;
}

/**
 * Sends what is due, lane by lane: a slow or dead receiver takes up room of its own and no other's. A delivery is claimed
 * by setting it due again after {@link LOST_AFTER_SECONDS}, so that what a killed worker had in hand is tried by another;
 * any number of workers share one table.
 */
export function createSendDue({ db, carry, onFailing, report }: SendDueServices) {
  const underWay = new Map<string, number>();
  const failing = new Set<string>();
  const ends = new Set<Promise<void>>();
  let isStopped = false;
  let isLooking = false;
  let timer: NodeJS.Timeout | undefined;
  let isSoon = false;
  let pauseMs = LOOK_EVERY_MS;

  const roomOf = (lane: string) =>
    (failing.has(lane) ? OF_FAILING_LANE : OF_LANE) - (underWay.get(lane) ?? 0);

  /** Takes what is due, the oldest of each lane first, as far as there is room. */
  async function claim(): Promise<DueDelivery[]> {
    const lanes = [...new Set([...underWay.keys(), ...failing])];
    const [rows]: [DueDelivery[]] = await db.query(
      `WITH RECURSIVE lane AS (
         -- From lane to lane by the index, however much waits in each.
         (SELECT lane FROM delivery WHERE state IN ('waiting', 'retrying') ORDER BY lane LIMIT 1)
         UNION ALL
         SELECT (SELECT next.lane FROM delivery next
                  WHERE next.state IN ('waiting', 'retrying') AND next.lane > lane.lane ORDER BY next.lane LIMIT 1)
           FROM lane WHERE lane.lane IS NOT NULL),
       taken AS (
         SELECT one.id FROM lane
           LEFT JOIN unnest($1::text[], $2::integer[]) AS room (lane, free) USING (lane)
          CROSS JOIN LATERAL (
            SELECT id FROM delivery
             WHERE delivery.lane = lane.lane AND state IN ('waiting', 'retrying') AND due_at <= now()
             ORDER BY due_at LIMIT greatest(0, coalesce(free, $3)) FOR UPDATE SKIP LOCKED) AS one
          WHERE lane.lane IS NOT NULL LIMIT $4)
       UPDATE delivery SET due_at = now() + $5 * interval '1 second', tries = tries + 1,
                           begun_at = coalesce(begun_at, now())
        WHERE id IN (SELECT id FROM taken)
       RETURNING id, workspace_id AS "workspaceId", site_id AS "siteId", kind, lane, recipient, payload,
                 person_id AS "personId", lead_id AS "leadId", connection_id AS "connectionId", tries,
                 begun_at AS "begunAt"`,
      [lanes, lanes.map(roomOf), OF_LANE, IN_ALL - ends.size, LOST_AFTER_SECONDS],
    );
    return rows;
  }

  async function attempt(due: DueDelivery): Promise<void> {
    const beganMs = Date.now();
    let tried: TryResult;
    try {
      tried = await carry(due);
    } catch (error) {
      report(error);
      const words = 'Something went wrong here; it has been noted.';
      tried = { outcome: 'failed', words, status: null, answer: '', sent: null, askedMs: 0, isGone: false };
    }
    await settle(db, due, tried, Date.now() - beganMs);
    const isGood = tried.outcome === 'sent' || tried.outcome === 'stopped';
    // Whoever answers at once, be it with a refusal, takes nobody's room.
    if (isGood || tried.status !== null) failing.delete(due.lane);
    else failing.add(due.lane);
    if (!isGood && due.connectionId) await onFailing(due.connectionId, tried.isGone);
  }

  function begin(due: DueDelivery): void {
    underWay.set(due.lane, (underWay.get(due.lane) ?? 0) + 1);
    const end = attempt(due)
      .catch(report)
      .finally(() => {
        const left = (underWay.get(due.lane) ?? 1) - 1;
        if (left > 0) underWay.set(due.lane, left);
        else underWay.delete(due.lane);
        ends.delete(end);
        // There is room again, and perhaps more of the same.
        lookSoon();
      });
    ends.add(end);
  }

  function lookSoon(): void {
    if (isSoon || isStopped) return;
    isSoon = true;
    clearTimeout(timer);
    timer = setTimeout(() => void look(), LOOK_SOON_MS);
  }

  async function look(): Promise<void> {
    isSoon = false;
    if (isStopped || isLooking || ends.size >= IN_ALL) return;
    isLooking = true;
    try {
      const claimed = await claim();
      // Claimed as it was stopped: others try it in a minute.
      if (!isStopped) claimed.forEach(begin);
      pauseMs = LOOK_EVERY_MS;
    } catch (error) {
      // Said once for each time the database is away, and asked less often until it is back.
      if (pauseMs === LOOK_EVERY_MS) report(error);
      pauseMs = AWAY_MS;
    } finally {
      isLooking = false;
      if (!isStopped && !isSoon) timer = setTimeout(() => void look(), pauseMs);
    }
  }

  return {
    start: () => void look(),
    /** Takes nothing more, and waits for what is under way. */
    async stop(): Promise<void> {
      isStopped = true;
      clearTimeout(timer);
      await Promise.all(ends);
    },
  };
}

/** Writes down what became of a try, and when the next is, in one statement. */
async function settle(
  db: DataSource,
  due: DueDelivery,
  tried: TryResult,
  milliseconds: number,
): Promise<void> {
  const nowMs = Date.now();
  const nextMs =
    tried.outcome === 'failed'
      ? nextTryMs({
          tries: due.tries,
          begunMs: due.begunAt.getTime(),
          nowMs,
          askedMs: tried.askedMs,
          random: Math.random(),
        })
      : null;
  const isSent = tried.outcome === 'sent';
  const state = tried.outcome === 'failed' ? (nextMs === null ? 'givenUp' : 'retrying') : tried.outcome;
  await db.query(
    `WITH tried AS (
       INSERT INTO delivery_try (delivery_id, connection_id, milliseconds, is_good, status, words, answer)
       SELECT id, $2, $3, $4, $5, $6, $7 FROM delivery WHERE id = $1 AND $8 <> 'stopped'),
     health AS (
       UPDATE connection
          SET last_good_at = CASE WHEN $4 THEN now() ELSE last_good_at END,
              failing_since = CASE WHEN $4 THEN NULL ELSE coalesce(failing_since, now()) END
        -- Written no oftener than anybody would notice: every try of a busy connection would wait for this row.
        WHERE id = $2 AND $8 <> 'stopped' AND (NOT $4 OR failing_since IS NOT NULL OR last_good_at IS NULL
                           OR last_good_at < now() - interval '5 seconds'))
     UPDATE delivery
        -- Put to rest or stopped meanwhile it stays so, unless it has gone out all the same.
        SET state = CASE WHEN $4 THEN 'sent' WHEN state IN ('waiting', 'retrying') THEN $8 ELSE state END,
            due_at = coalesce($9::timestamptz, due_at), words = $6, sent = coalesce($10, sent),
            sent_at = CASE WHEN $4 THEN now() ELSE sent_at END
      WHERE id = $1`,
    [
      due.id,
      due.connectionId,
      milliseconds,
      isSent,
      tried.status,
      tried.words,
      tried.answer.slice(0, 2048),
      state,
      nextMs === null ? null : new Date(nextMs).toISOString(),
      tried.sent,
    ],
  );
}
