import { type DataSource, type EntityManager, IsNull } from 'typeorm';
import { type NewAttachment, storeAttachment } from './attachments.ts';
import { LeadEntity, type LeadRow } from './entities.ts';
import { type MailAddress, readMailAddress } from './mail-address.ts';
import { lockPerson, meetPerson, type PersonRow } from './persons.ts';

/** An answer as it was stored, with who gave it. */
export interface StoredAnswer {
  readonly lead: LeadRow;
  readonly person: PersonRow | null;
}

/** Answers gone through at once. */
const READ_AT_ONCE = 1000;
/** Answers of one person that are looked at; a file of everything has all. */
export const MOST_ANSWERS = 500;
/** Answers told of in one mail. */
const TOLD_AT_ONCE = 500;
const NO_ID = '00000000-0000-0000-0000-000000000000';

/** Who gave an answer that is not kept apart: whoever its mail address belongs to. */
export async function meet(manager: EntityManager, lead: LeadRow): Promise<PersonRow | null> {
  const address = addressIn(lead);
  if (!address) return null;
  const person = await meetPerson(manager, lead, address);
  await manager.query('UPDATE lead SET person_id = $2 WHERE id = $1', [lead.id, person.id]);
  return person;
}

/** Answers as what takes them in and what sends because of them know them; much of it in the caller's transaction. */
export function createStoredAnswers(db: DataSource) {
  return {
    /**
     * Stores an answer in the caller's transaction. One already stored under its id stays as it is, with what came with
     * it then, and is answered with `undefined`.
     */
    async add(
      manager: EntityManager,
      lead: LeadRow,
      attachments: readonly Pick<NewAttachment, 'id' | 'bytes'>[] = [],
    ): Promise<StoredAnswer | undefined> {
      const { raw } = await manager
        .getRepository(LeadEntity)
        .createQueryBuilder()
        .insert()
        .values(lead as never)
        .orIgnore()
        .returning('id')
        .execute();
      if (raw.length === 0) return undefined;
      for (const one of attachments)
        await storeAttachment(manager, { ...one, siteId: lead.siteId, leadId: lead.id });
      return { lead, person: lead.held === null ? await meet(manager, lead) : null };
    },

    /** Takes answers out from among those kept apart: to be let through, or to be thrown away. */
    async takeHeld(
      manager: EntityManager,
      siteId: string,
      ids: readonly string[],
      isThrownAway: boolean,
    ): Promise<StoredAnswer[]> {
      const leads = await manager
        .getRepository(LeadEntity)
        .createQueryBuilder('lead')
        .where('lead.siteId = :siteId AND lead.id IN (:...ids) AND lead.held IS NOT NULL', { siteId, ids })
        .setLock('pessimistic_write')
        .orderBy('lead.id')
        .getMany();
      const taken: StoredAnswer[] = [];
      for (const lead of leads) {
        if (isThrownAway) {
          await forgetAnswers(manager, [lead.id]);
          taken.push({ lead, person: null });
          continue;
        }
        await manager.query('UPDATE lead SET held = NULL, held_events = NULL WHERE id = $1', [lead.id]);
        taken.push({ lead, person: await meet(manager, lead) });
      }
      return taken;
    },

    /** An answer with who gave it; `undefined` when it is gone. */
    async find(manager: EntityManager, leadId: string): Promise<StoredAnswer | undefined> {
      const lead = await manager.getRepository(LeadEntity).findOneBy({ id: leadId });
      if (!lead) return undefined;
      return { lead, person: lead.personId ? ((await lockPerson(manager, lead.personId)) ?? null) : null };
    },

    /** The answers of a person that are not kept apart, newest first. */
    answersOf: (manager: EntityManager, personId: string): Promise<LeadRow[]> =>
      manager.getRepository(LeadEntity).find({
        where: { personId, held: IsNull() },
        order: { submittedAt: 'DESC' },
        take: MOST_ANSWERS,
      }),

    /** The first answers to one form of a campaign that came in a stretch of time, and how many came in all. */
    async since(manager: EntityManager, campaignId: string, form: string, from: Date, until: Date) {
      return manager
        .getRepository(LeadEntity)
        .createQueryBuilder('lead')
        .where('lead.campaignId = :campaignId AND lead.form = :form AND lead.held IS NULL', {
          campaignId,
          form,
        })
        .andWhere('lead.submittedAt >= :from AND lead.submittedAt < :until', { from, until })
        .orderBy('lead.submittedAt')
        .limit(TOLD_AT_ONCE)
        .getManyAndCount();
    },

    /** Every answer of a site that is not kept apart, a piece at a time, oldest first. */
    async *stored(
      siteId: string,
      campaigns: readonly string[] | null,
    ): AsyncGenerator<readonly Pick<LeadRow, 'id' | 'personId' | 'submittedAt'>[]> {
      for (let [after, count] = [NO_ID, READ_AT_ONCE]; count === READ_AT_ONCE; ) {
        const rows: Pick<LeadRow, 'id' | 'personId' | 'submittedAt'>[] = await db.query(
          `SELECT id, person_id AS "personId", submitted_at AS "submittedAt" FROM lead
            WHERE site_id = $1 AND held IS NULL AND id > $2 AND ($3::uuid[] IS NULL OR campaign_id = ANY($3))
            ORDER BY id LIMIT ${READ_AT_ONCE}`,
          [siteId, after, campaigns],
        );
        count = rows.length;
        after = rows.at(-1)?.id ?? after;
        yield rows;
      }
    },
  };
}

/** Removes answers with all that came with them. */
export async function forgetAnswers(manager: EntityManager, ids: readonly string[]): Promise<void> {
  await manager.query('DELETE FROM attachment WHERE lead_id = ANY($1)', [ids]);
  await manager.query('DELETE FROM lead WHERE id = ANY($1)', [ids]);
}

/** The first mail address an answer gives. */
const addressIn = ({ fields }: LeadRow): MailAddress | undefined =>
  readMailAddress(fields.find(({ kind }) => kind === 'email')?.value ?? '');
