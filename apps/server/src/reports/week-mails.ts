import type { MailDraft } from '@velarium/contract';
import { weekMail } from '@velarium/core';
import type { DataSource } from 'typeorm';
import { type enqueue, mailLane, type WeekMail } from '../deliveries/index.ts';
import type { SiteService } from '../sites/index.ts';
import type { Reports } from './service.ts';

/** In the site's own zone: it goes out on Monday from this hour on, and where nobody was there to send it, by the end of Tuesday. */
const HOUR = 7;

interface WeekMailServices {
  readonly db: DataSource;
  readonly sites: SiteService;
  readonly reports: Pick<Reports, 'ofSite'>;
  readonly studioOrigin: string;
}

/** What a site's campaigns did, mailed every Monday to who wants it. */
export function createWeekMails({ db, sites, reports, studioOrigin }: WeekMailServices) {
  return {
    async isOn(workspaceId: string, siteId: string, accountId: string): Promise<boolean> {
      await sites.get(workspaceId, siteId);
      const rows: unknown[] = await db.query('SELECT FROM week_mail WHERE site_id = $1 AND account_id = $2', [
        siteId,
        accountId,
      ]);
      return rows.length > 0;
    },
    async set(workspaceId: string, siteId: string, accountId: string, isOn: boolean): Promise<boolean> {
      await sites.get(workspaceId, siteId);
      await db.query(
        isOn
          ? 'INSERT INTO week_mail (site_id, account_id) VALUES ($1, $2) ON CONFLICT DO NOTHING'
          : 'DELETE FROM week_mail WHERE site_id = $1 AND account_id = $2',
        [siteId, accountId],
      );
      return isOn;
    },

    /** Queues the mails whose Monday it is, each once, however often this is asked. */
    async queue(put: typeof enqueue, now = new Date()): Promise<void> {
      const due: (Omit<WeekMail, 'of'> & { workspaceId: string; siteId: string; email: string })[] =
        await db.query(
          `SELECT site.workspace_id AS "workspaceId", site.id AS "siteId", account.id AS account, account.email,
                to_char(monday - interval '7 days', 'YYYY-MM-DD') AS from, to_char(monday - interval '1 day', 'YYYY-MM-DD') AS until
           FROM week_mail JOIN site ON site.id = week_mail.site_id JOIN account ON account.id = week_mail.account_id
           JOIN membership ON membership.account_id = account.id AND membership.workspace_id = site.workspace_id,
           LATERAL (SELECT $1::timestamptz AT TIME ZONE site.time_zone AS local) AS here,
           LATERAL (SELECT date_trunc('week', local) AS monday) AS week
          WHERE local >= monday + $2 * interval '1 hour' AND local < monday + interval '2 days'`,
          [now, HOUR],
        );
      await put(
        db.manager,
        due.map(({ workspaceId, siteId, email, account, from, until }) => ({
          workspaceId,
          siteId,
          kind: 'week' as const,
          lane: mailLane(workspaceId),
          recipient: email,
          payload: { of: 'week' as const, account, from, until },
          once: `week ${siteId} ${account} ${from}`,
        })),
      );
    },

    /** What a mail says at the moment it goes out; `undefined` for who does not want it any more, or has left the team. */
    async mailOf(
      { workspaceId, siteId }: { readonly workspaceId: string; readonly siteId: string },
      { account, from, until }: WeekMail,
    ): Promise<MailDraft | undefined> {
      const wants: unknown[] = await db.query(
        `SELECT FROM week_mail JOIN membership USING (account_id) WHERE site_id = $1 AND account_id = $2 AND workspace_id = $3`,
        [siteId, account, workspaceId],
      );
      if (wants.length === 0) return undefined;
      const { name } = await sites.get(workspaceId, siteId);
      const results = await reports.ofSite(workspaceId, siteId, {
        period: 'own',
        from,
        until,
        against: 'before',
      });
      const days = new URLSearchParams({ period: 'own', from, until });
      return weekMail(results, { site: name, address: `${studioOrigin}/sites/${siteId}/results?${days}` });
    },
  };
}
export type WeekMails = ReturnType<typeof createWeekMails>;
