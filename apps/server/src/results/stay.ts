import type { StayHistograms, StayQuestion } from '@velarium/contract';
import { STAY_DEPTHS, STAY_SECONDS } from '@velarium/core';
import type { DataSource } from 'typeorm';

/** How long visits lasted and how far they went in the last 30 days. The caller guards the scope. */
export async function readStays(
  db: DataSource,
  siteId: string,
  { paths, device }: StayQuestion,
): Promise<StayHistograms> {
  const rows: { of: 'seconds' | 'depth'; bucket: number; visits: string }[] = await db.query(
    `SELECT of, bucket, sum(visits) AS visits FROM stay_day
      WHERE site_id = $1 AND day > (now() AT TIME ZONE 'UTC')::date - 30 AND ($2::text[] IS NULL OR path = ANY($2))
        AND ($3::text IS NULL OR device = $3)
      GROUP BY of, bucket`,
    [siteId, paths, device],
  );
  const histogram = (of: 'seconds' | 'depth', edges: readonly number[]) => {
    const counts = edges.map(() => 0);
    for (const row of rows) if (row.of === of) counts[row.bucket] = Math.max(0, Number(row.visits));
    return counts;
  };
  return { seconds: histogram('seconds', STAY_SECONDS), depth: histogram('depth', STAY_DEPTHS) };
}
