import type { CampaignSummary, Message } from '@velarium/contract';
import { deriveState, instantOf, miniatureOf, PLAIN_LOOK } from '@velarium/core';
import type { DataSource } from 'typeorm';
import type { LibraryService } from '../library/index.ts';
import type { ResultService } from '../results/index.ts';
import { type CampaignRow, CampaignVersionEntity, type CampaignVersionRow } from './entities.ts';

const endOf = (end: string, zone: string): number => instantOf(Date.parse(`${end}:00Z`), zone);

export interface SummaryServices {
  readonly db: DataSource;
  readonly results: ResultService;
  readonly library: LibraryService;
}

export function createSummaries({ db, results, library }: SummaryServices) {
  async function liveVersions(rows: readonly CampaignRow[]): Promise<Map<string, CampaignVersionRow>> {
    const live = rows.filter((row) => row.liveVersion !== null);
    if (!live.length) return new Map();
    const versions = await db
      .getRepository(CampaignVersionEntity)
      .find({ where: live.map((row) => ({ campaignId: row.id, version: row.liveVersion as number })) });
    return new Map(versions.map((version) => [version.campaignId, version]));
  }

  /** When drafts are published by themselves, and which wait for a second person. */
  async function plannedLaunches(rows: readonly CampaignRow[]) {
    const found: { id: string; at: Date | null; awaits: boolean }[] = await db.query(
      'SELECT campaign_id AS id, at, awaits FROM planned_launch WHERE campaign_id = ANY($1::uuid[])',
      [rows.map(({ id }) => id)],
    );
    return new Map(found.map((one) => [one.id, one]));
  }

  /** Showings of the site's last seven days, and what was given up of that which answers of thirty days sent out. */
  async function happenedLately(
    rows: readonly CampaignRow[],
    timeZone: string,
  ): Promise<Map<string, { readonly shown: number; readonly givenUp: number }>> {
    const [first] = rows;
    if (!first) return new Map();
    // From the few that were given up to their answers: a campaign may have a hundred thousand of those.
    const found: { id: string; shown: string; given_up: string }[] = await db.query(
      `SELECT campaign_id AS id, sum(shown) AS shown, sum(given_up) AS given_up FROM (
         SELECT campaign_id, shown, 0 AS given_up FROM campaign_day
          WHERE campaign_id = ANY($1::uuid[]) AND day > (now() AT TIME ZONE $2)::date - 7
         UNION ALL
         SELECT lead.campaign_id, 0, 1 FROM delivery JOIN lead ON lead.id = delivery.lead_id
          WHERE delivery.site_id = $3 AND delivery.state = 'givenUp'
            AND delivery.created_at > now() - interval '30 days' AND lead.campaign_id = ANY($1::uuid[])) AS part
        GROUP BY campaign_id`,
      [rows.map(({ id }) => id), timeZone, first.siteId],
    );
    return new Map(found.map((one) => [one.id, { shown: Number(one.shown), givenUp: Number(one.given_up) }]));
  }

  /** What the studio's lists say of campaigns, all of one site. */
  return async function summaries(
    rows: readonly CampaignRow[],
    timeZone: string,
  ): Promise<CampaignSummary[]> {
    const [numbersOf, live, planned, looks, lately] = await Promise.all([
      results.numbers(rows.map((row) => row.id)),
      liveVersions(rows),
      plannedLaunches(rows),
      rows[0] ? library.looks.list(rows[0].siteId) : [],
      happenedLately(rows, timeZone),
    ]);
    const lookOf = ({ look }: Message) =>
      (looks.find(({ id }) => id === look) ?? looks.find(({ isDefault }) => isDefault))?.style ?? PLAIN_LOOK;
    const nowMs = Date.now();
    return rows.map((row) => {
      const version = live.get(row.id);
      // What visitors meet is the published version, so its schedule says what the state is.
      const schedule = version?.document.rule.limits.schedule ?? null;
      const { state, nextChangeMs } = deriveState(row.state, schedule, nowMs, timeZone);
      return {
        id: row.id,
        siteId: row.siteId,
        name: row.name,
        state,
        format: row.draft.message.format,
        anchor: row.draft.message.anchor,
        closing: {
          afterSeconds: row.draft.message.close.afterSeconds,
          means: row.draft.message.close.means,
        },
        labels: row.labels,
        note: row.note,
        rule: row.draft.rule,
        variants: row.draft.variants.map(({ id, weight }) => ({ id, weight })),
        revision: row.revision,
        hasUnpublishedChanges: version !== undefined && row.publishedRevision !== row.revision,
        publishedAt: version?.publishedAt.toISOString() ?? null,
        plannedAt: planned.get(row.id)?.at?.toISOString() ?? null,
        awaits: planned.get(row.id)?.awaits ?? false,
        nextChangeAt: nextChangeMs === null ? null : new Date(nextChangeMs).toISOString(),
        endsAt: schedule?.end ? new Date(endOf(schedule.end, timeZone)).toISOString() : null,
        updatedAt: row.updatedAt.toISOString(),
        numbers: numbersOf(row.id),
        miniature: miniatureOf(row.draft.message, lookOf(row.draft.message)),
        shownLately: lately.get(row.id)?.shown ?? 0,
        givenUp: lately.get(row.id)?.givenUp ?? 0,
      };
    });
  };
}
