import { createDataSource } from '../apps/server/src/infra/orm.ts';
import { ensurePartitions } from '../apps/server/src/intake/index.ts';
import { countEvents } from '../apps/server/src/results/index.ts';
import { createServices } from '../apps/server/src/services.ts';
import { createInstallation, letterOf } from './installation.ts';

/**
 * Results over very many events. Run by hand, since it takes a while: `node --import tsx bench/results.ts [events]`; its
 * figures stand in docs/statistics.md.
 */
const EVENTS = Number(process.argv[2] ?? 10_000_000);
const CAMPAIGNS = 100;
const DAYS = 90;
const ASKED = 100;
const PERIODS = ['today', 'yesterday', '7', '28', '90', 'launch'] as const;
/** Asked before that, unmeasured: what nobody has asked for yet is not in memory. */
const WARM = 40;
/** And all questions of the site so often before any: until then a server that has just begun still makes its code fast. */
const WARM_UP_ROUNDS = 2;

/** The median, and what nineteen of twenty take at most. */
function spread(tookMs: readonly number[]): string {
  const sorted = [...tookMs].sort((a, b) => a - b);
  const at = (share: number) => `${(sorted[Math.floor(sorted.length * share)] ?? 0).toFixed(1)} ms`;
  return `median ${at(0.5)}, p95 ${at(0.95)}`;
}
async function timed(times: number, work: (n: number) => Promise<unknown>): Promise<string> {
  for (let n = 0; n < WARM; n++) await work(n);
  const tookMs: number[] = [];
  for (let n = 0; n < times; n++) {
    const beganMs = performance.now();
    await work(n);
    tookMs.push(performance.now() - beganMs);
  }
  return spread(tookMs);
}

const { client, cluster, end } = await createInstallation();
const db = await createDataSource(cluster.url).initialize();
try {
  const letter = await letterOf(client);
  await db.transaction((manager) => ensurePartitions(manager, new Date(), -DAYS - 1, 1));
  const { rows } = await client.query(
    `INSERT INTO campaign (workspace_id, site_id, name, state, draft)
     SELECT $1, $2, 'Campaign ' || n, 'resting', draft FROM campaign, generate_series(1, ${CAMPAIGNS}) AS n
      WHERE campaign.id = $3 RETURNING id`,
    [letter.workspaceId, letter.siteId, letter.id],
  );
  const ids: string[] = rows.map(({ id }) => id);
  let beganMs = performance.now();
  for (let day = DAYS - 1; day >= 0; day--) {
    // A visitor makes five events of a showing; a fifth of them have been there in the last weeks.
    await client.query(
      `INSERT INTO event (id, at, site_id, kind, visitor, session, page, device, campaign_id, version, closed_by, seconds, depth)
       SELECT gen_random_uuid(), now() - ($1 + random()) * interval '1 day', $2,
              (ARRAY['shown', 'viewable', 'closed', 'clicked', 'converted'])[1 + n % 5],
              md5(CASE WHEN n / 5 % 5 = 0 THEN 'old ' || (n / 5 % 20000) ELSE $1 || ' ' || n / 5 END)::uuid,
              gen_random_uuid(), '/page/' || n % 50, CASE WHEN n % 3 = 0 THEN 'mobile' ELSE 'desktop' END,
              ($3::uuid[])[1 + (n / 5) % ${CAMPAIGNS}], 1, CASE WHEN n % 5 = 2 THEN 'button' END, n % 30, n % 100
         FROM generate_series(1, $4::integer) AS n
        WHERE n % 5 < 3 OR random() < 0.2`,
      [day, letter.siteId, ids, Math.round(EVENTS / DAYS / 0.68)],
    );
  }
  await client.query(`UPDATE counted_until SET since = '-infinity'`);
  // As the database does by itself in time, here and below: without it each look for new events reads them all.
  await client.query('VACUUM event');
  const { rows: made } = await client.query('SELECT count(*)::integer AS events FROM event');
  console.log(`${made[0].events} events made in ${((performance.now() - beganMs) / 1000).toFixed(0)} s`);
  beganMs = performance.now();
  await countEvents(db, Number.POSITIVE_INFINITY);
  const seconds = (performance.now() - beganMs) / 1000;
  console.log(`counted in ${seconds.toFixed(0)} s, ${Math.round(made[0].events / seconds)} a second`);
  await client.query('VACUUM ANALYZE');

  const services = createServices(db, {
    secrets: ['x'.repeat(40)],
    edgeOrigin: 'https://edge.example',
    studioOrigin: 'https://studio.example',
  });
  const { reports } = services;
  const askSite = (period: (typeof PERIODS)[number]) =>
    timed(ASKED, () => reports.ofSite(letter.workspaceId, letter.siteId, { period, against: 'before' }));
  for (let round = 0; round < WARM_UP_ROUNDS; round++) for (const period of PERIODS) await askSite(period);
  for (const period of PERIODS) console.log(`the site, ${period}: ${await askSite(period)}`);
  const daysAgo = (days: number) => new Date(Date.now() - days * 86_400_000).toISOString().slice(0, 10);
  const own = { period: 'own', from: daysAgo(71), until: daysAgo(27), against: 'before' } as const;
  console.log(
    `the site, 45 other days: ${await timed(ASKED, () =>
      reports.ofSite(letter.workspaceId, letter.siteId, own),
    )}`,
  );
  for (const period of PERIODS)
    console.log(
      `one campaign, ${period}: ${await timed(ASKED, (n) =>
        reports.ofCampaign(letter.workspaceId, ids[n % ids.length] as string, {
          period,
          against: 'before',
        }),
      )}`,
    );
  for (const by of ['device', 'page', 'group', 'source', 'hour', 'version'] as const)
    for (const period of ['28', '90'] as const)
      console.log(
        `its parts by ${by}, ${period}: ${await timed(ASKED, (n) =>
          reports.partsOfCampaign(letter.workspaceId, ids[n % ids.length] as string, {
            period,
            against: 'before',
            by,
          }),
        )}`,
      );
  // Equal to counting the raw events, for every campaign.
  const found = await reports.ofSite(letter.workspaceId, letter.siteId, { period: '28', against: 'none' });
  const { rows: raw } = await client.query(
    `SELECT campaign_id AS id, count(*) FILTER (WHERE kind = 'shown')::integer AS showings,
            count(DISTINCT visitor) FILTER (WHERE kind IN ('shown', 'converted'))::integer AS visitors,
            count(DISTINCT visitor) FILTER (WHERE kind = 'converted')::integer AS converters
       FROM event WHERE campaign_id IS NOT NULL AND site_id = $4
        AND (at AT TIME ZONE $1)::date BETWEEN $2 AND $3 GROUP BY campaign_id`,
    [found.timeZone, found.period.from, found.period.until, letter.siteId],
  );
  for (const { id, ...counts } of raw) {
    const told = found.campaigns.find((one) => one.id === id)?.counts;
    for (const [name, count] of Object.entries(counts))
      if (told?.[name as 'visitors'] !== count)
        throw new Error(`${id}: expected ${count} ${name}, got ${told?.[name as 'visitors']}`);
  }
  console.log(`equal to the raw events of ${raw.length} campaigns`);
} finally {
  await db.destroy();
  await end();
}
