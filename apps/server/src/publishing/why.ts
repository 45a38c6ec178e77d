import { randomInt, randomUUID } from 'node:crypto';
import type { TellWhy, Why } from '@velarium/contract';
import type { DataSource } from 'typeorm';
import { ProblemError } from '../infra/problem.ts';

const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';
const LENGTH = 6;
const CODE_DAYS = 7;
/** What visitors have sent is kept so long; so many of a code at most. */
const REPORT_DAYS = 31;
const MOST_REPORTS = 20;

const newCode = () => Array.from({ length: LENGTH }, () => LETTERS[randomInt(LETTERS.length)]).join('');

/** Lets a visitor see why a message does not show to them, and tell the studio. Who asks has been found to own the campaign. */
export function createWhy(db: DataSource) {
  return {
    async makeCode(
      siteId: string,
      campaignId: string,
      byName: string,
    ): Promise<{ code: string; expiresAt: Date }> {
      for (;;) {
        const code = newCode();
        const [made]: { expiresAt: Date }[] = await db.query(
          `INSERT INTO why_code (code, site_id, campaign_id, by_name, expires_at)
           VALUES ($1, $2, $3, $4, now() + make_interval(days => $5))
           ON CONFLICT DO NOTHING RETURNING expires_at AS "expiresAt"`,
          [code, siteId, campaignId, byName, CODE_DAYS],
        );
        // Another campaign may have it.
        if (made) return { code, ...made };
      }
    },

    /** The campaign a code is for, on the site it was made for, while it lasts. */
    async campaignOf(siteId: string, code: string): Promise<string | undefined> {
      const [row]: { campaignId: string }[] = await db.query(
        `SELECT campaign_id AS "campaignId" FROM why_code WHERE code = $1 AND site_id = $2 AND expires_at > now()`,
        [code, siteId],
      );
      return row?.campaignId;
    },

    /** Keeps what a visitor's panel says; refused once a code has brought more than anybody would send by hand. */
    async tell(
      siteId: string,
      { code, page, lines }: Pick<TellWhy, 'code' | 'page' | 'lines'>,
    ): Promise<boolean> {
      const campaignId = await this.campaignOf(siteId, code);
      if (!campaignId) return false;
      const [kept] = await db.query(
        `INSERT INTO why_report (id, campaign_id, code, page, lines)
         SELECT $1, $2, $3, $4, $5::jsonb
          WHERE (SELECT count(*) FROM why_report WHERE campaign_id = $2 AND code = $3) < $6 RETURNING id`,
        [randomUUID(), campaignId, code, page, JSON.stringify(lines), MOST_REPORTS],
      );
      if (!kept)
        throw new ProblemError(429, 'too-many', 'Sent often enough', 'It has arrived. Ask for another code.');
      return true;
    },

    async of(campaignId: string): Promise<Why> {
      const codes: { code: string; byName: string; expiresAt: Date }[] = await db.query(
        `SELECT code, by_name AS "byName", expires_at AS "expiresAt" FROM why_code
          WHERE campaign_id = $1 AND expires_at > now() ORDER BY expires_at DESC LIMIT 20`,
        [campaignId],
      );
      const reports: (Omit<Why['reports'][number], 'at'> & { at: Date })[] = await db.query(
        `SELECT id, at, code, page, lines FROM why_report
          WHERE campaign_id = $1 AND at > now() - make_interval(days => $2) ORDER BY at DESC LIMIT 100`,
        [campaignId, REPORT_DAYS],
      );
      return {
        codes: codes.map(({ expiresAt, ...one }) => ({ ...one, expiresAt: expiresAt.toISOString() })),
        reports: reports.map(({ at, ...one }) => ({ ...one, at: at.toISOString() })),
      };
    },

    async tidy(): Promise<void> {
      await db.query('DELETE FROM why_code WHERE expires_at < now()');
      await db.query('DELETE FROM why_report WHERE at < now() - make_interval(days => $1)', [REPORT_DAYS]);
    },
  };
}
