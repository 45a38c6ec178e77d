import type { Experiment } from '@velarium/contract';
import { dayAfter, seededRandom, visitorsASide } from '@velarium/core';
import type { DataSource } from 'typeorm';

const DAY_MS = 86_400_000;
/** When it ran, days ago, and what was tried: the letter at 25 seconds and at half of the article. */
const BEGAN = 64;
const ENDED = 22;
const A_DAY = 46;
const RATES = [0.029, 0.058] as const;
const SMALLEST = 0.02;

/** An experiment of the past that found something, as it was kept when it ended. */
export async function seedExperiment(db: DataSource, campaignId: string): Promise<void> {
  const random = seededRandom(31);
  const today = new Date().toISOString().slice(0, 10);
  const arms = RATES.map((_, at) => ({ id: 'ab'[at] as string, weight: 50, visitors: 0, converters: 0 }));
  const days: Experiment['days'] = [];
  for (let ago = BEGAN - 1; ago >= ENDED; ago--) {
    RATES.forEach((rate, at) => {
      const arm = arms[at] as (typeof arms)[number];
      const visitors = Math.round(A_DAY * (0.7 + random() * 0.6));
      arm.visitors += visitors;
      for (let n = 0; n < visitors; n++) if (random() < rate) arm.converters++;
    });
    days.push({ day: dayAfter(today, -ago), arms: arms.map((arm) => ({ ...arm })) });
  }
  const entered = arms.reduce((sum, { visitors }) => sum + visitors, 0);
  await db.query(
    `INSERT INTO experiment (campaign_id, arms, tried, visitors_a_side, smallest, window_hours, started_at, ended_at, ended,
                             adopted, found)
     VALUES ($1, $2, '', $3, $4, 24, $5, $6, 'adopted', 'b', $7)`,
    [
      campaignId,
      JSON.stringify(arms.map(({ id, weight }) => ({ id, weight }))),
      visitorsASide({ rate: RATES[0], wanted: RATES[0] + SMALLEST }),
      SMALLEST,
      new Date(Date.now() - BEGAN * DAY_MS),
      new Date(Date.now() - ENDED * DAY_MS),
      JSON.stringify({ days, entered, undivided: 0, robots: 0 }),
    ],
  );
}

/**
 * What the observatory would like visitors to come to; made before anybody came, so that it counts from the first.
 *
 * @returns The goal of buying something, which events tell of.
 */
export async function seedGoals(db: DataSource, siteId: string): Promise<string> {
  const rows: { id: string }[] = await db.query(
    `INSERT INTO goal (site_id, name, deed, counts, days, created_at)
     VALUES ($1, 'Came to the membership page', $2, 'once', 7, now() - interval '95 days'),
            ($1, 'Bought in the shop', $3, 'each', 14, now() - interval '94 days') RETURNING id`,
    [
      siteId,
      JSON.stringify({ kind: 'page', pages: [{ kind: 'begins', address: '/membership' }] }),
      JSON.stringify({
        kind: 'event',
        name: 'bought',
        condition: null,
        worth: { from: 'data', path: 'total' },
      }),
    ],
  );
  const bought = rows.at(-1);
  if (!bought) throw new Error('expected two goals');
  return bought.id;
}
