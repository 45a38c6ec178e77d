import type { Readable } from 'node:stream';
import type {
  Answer,
  AnswerCounts,
  AnswerFilter,
  AnswerPage,
  DoNotWriteResult,
  ErasureReceipt,
  PeopleNote,
  Person,
} from '@velarium/contract';
import type { DataSource, EntityManager } from 'typeorm';
import { notFound, ProblemError } from '../infra/problem.ts';
import type { Seal } from '../infra/seal.ts';
import type { SiteService } from '../sites/index.ts';
import { attachmentsOf, findAttachment } from './attachments.ts';
import {
  isNeverWrittenTo,
  neverWriteTo,
  readAddressList,
  requireSecretsOfAddresses,
} from './do-not-write.ts';
import { LeadEntity, type LeadRow } from './entities.ts';
import type { ExportFormat } from './export-answers.ts';
import { exportInThread } from './export-in-thread.ts';
import { type AnswerScope, answersOfPerson, countAll, countAnswers, findAnswers } from './find-answers.ts';
import { readMailAddress } from './mail-address.ts';
import { listNotes, noteDeed } from './notes.ts';
import { confirmUntil, languageOf, lockPerson, type PersonRow, recordDeed } from './persons.ts';
import { createStoredAnswers, forgetAnswers, MOST_ANSWERS, meet } from './stored-answers.ts';

/** Who does something with people's answers. */
export interface Actor {
  readonly workspaceId: string;
  readonly name: string;
}
/** Removes what went out to or about people, and because of answers, in the transaction that forgets these. */
export type ForgetSent = (
  manager: EntityManager,
  gone: { readonly persons: readonly string[]; readonly answers: readonly string[] },
) => Promise<void>;

/** Answers gone through at once. */
const READ_AT_ONCE = 1000;
/** What is shown of one person; a file of everything has all. */
const SHOWN = { answers: MOST_ANSWERS, visits: 100 } as const;

export function createPeopleService({
  db,
  sites,
  seal,
}: {
  readonly db: DataSource;
  readonly sites: SiteService;
  readonly seal: Seal;
}) {
  async function scopeOf(workspaceId: string, siteId: string): Promise<AnswerScope> {
    const { timeZone } = await sites.get(workspaceId, siteId);
    return { workspaceId, siteId, timeZone };
  }

  async function ofSite(manager: EntityManager, siteId: string, personId: string): Promise<PersonRow> {
    const person = await lockPerson(manager, personId);
    if (person?.siteId !== siteId) throw notFound('person');
    return person;
  }

  const idsOf = async (sql: string): Promise<string[]> =>
    (await db.query(sql)).map(({ id }: { id: string }) => id);

  return {
    ...createStoredAnswers(db),
    lockPerson,
    languageOf,
    recordDeed,
    confirmUntil,
    note: noteDeed,

    /** @throws {Error} Where addresses that must not be written to could no longer be known again. */
    requireSecrets: () => requireSecretsOfAddresses(db.manager, seal),
    /** Whether an address is one that is never written to. */
    isNeverWrittenTo: (manager: EntityManager, siteId: string, key: string) =>
      isNeverWrittenTo(manager, seal, siteId, key),

    /** What came with an answer, as WebP. */
    async attachment(workspaceId: string, siteId: string, id: string): Promise<Buffer> {
      await sites.get(workspaceId, siteId);
      return findAttachment(db, siteId, id);
    },

    async list(
      workspaceId: string,
      siteId: string,
      filter: AnswerFilter,
      cursor: string | null,
    ): Promise<AnswerPage> {
      return findAnswers(db.manager, await scopeOf(workspaceId, siteId), filter, cursor);
    },
    async counts(workspaceId: string, siteId: string, filter: AnswerFilter): Promise<AnswerCounts> {
      return countAnswers(db.manager, await scopeOf(workspaceId, siteId), filter);
    },

    /** How many answers an export of these would hold. */
    async countAll(workspaceId: string, siteId: string, filter: AnswerFilter): Promise<number> {
      return countAll(db.manager, await scopeOf(workspaceId, siteId), filter);
    },

    /** Every answer that fits as a file, newest first, with gzip where that is wanted; it is noted who took it. */
    async export(
      actor: Actor,
      siteId: string,
      filter: AnswerFilter,
      format: ExportFormat,
      isCompressed: boolean,
    ): Promise<Readable> {
      const scope = await scopeOf(actor.workspaceId, siteId);
      const { url: databaseUrl = '' } = db.options as { url?: string };
      return exportInThread({ databaseUrl, scope, filter, format, isCompressed }, (count) =>
        noteDeed(db.manager, { siteId, by: actor.name, what: 'exported', count }),
      );
    },

    /** Everything known of a person but what was sent to them, which the Outbox knows. */
    async person(
      workspaceId: string,
      siteId: string,
      id: string,
      isWhole = false,
    ): Promise<Omit<Person, 'sent'>> {
      await sites.get(workspaceId, siteId);
      const [row]: (PersonRow & { stateAt: Date })[] = await db.query(
        'SELECT id, address, state, state_at AS "stateAt" FROM person WHERE id = $1 AND site_id = $2',
        [id, siteId],
      );
      if (!row) throw notFound('person');
      const answers = await answersOfPerson(db.manager, id, isWhole ? null : SHOWN.answers);
      const before: { leadId: string; at: Date; by: string; fields: Answer['fields'] }[] = await db.query(
        `SELECT lead_id AS "leadId", at, by_name AS by, fields FROM lead_before
          WHERE lead_id = ANY($1) ORDER BY at DESC`,
        [answers.map((answer) => answer.id)],
      );
      const visits: { startedAt: Date; landing: string | null; views: number }[] = await db.query(
        `SELECT started_at AS "startedAt", landing, views FROM visit
          WHERE site_id = $1 AND visitor IN (SELECT visitor FROM lead WHERE person_id = $2)
          ORDER BY started_at DESC LIMIT $3`,
        [siteId, id, isWhole ? null : SHOWN.visits],
      );
      return {
        id: row.id,
        address: row.address,
        state: row.state,
        stateAt: row.stateAt.toISOString(),
        answers: answers.map((answer) => ({
          ...answer,
          before: before
            .filter(({ leadId }) => leadId === answer.id)
            .map(({ at, by, fields }) => ({ at: at.toISOString(), by, fields })),
        })),
        visits: visits.map((visit) => ({ ...visit, startedAt: visit.startedAt.toISOString() })),
      };
    },

    /** Puts right what somebody answered; what they answered first is kept beside it. */
    async correct(actor: Actor, siteId: string, leadId: string, values: readonly string[]): Promise<void> {
      await sites.get(actor.workspaceId, siteId);
      await db.transaction(async (manager) => {
        const leads = manager.getRepository(LeadEntity);
        const lead = await leads.findOne({
          where: { id: leadId, siteId },
          lock: { mode: 'pessimistic_write' },
        });
        if (!lead) throw notFound('answer');
        if (values.length !== lead.fields.length) throw notFound('answer in this shape');
        await manager.query('INSERT INTO lead_before (lead_id, by_name, fields) VALUES ($1, $2, $3)', [
          leadId,
          actor.name,
          JSON.stringify(lead.fields),
        ]);
        const fields = lead.fields.map((field, at) => ({ ...field, value: (values[at] as string).trim() }));
        const isOfAddress = ({ kind }: LeadRow['fields'][number]) => kind === 'email';
        const typed = fields.find(isOfAddress)?.value;
        if (typed !== undefined && !readMailAddress(typed)) {
          const message = 'This is no mail address. Write it as name@example.org.';
          throw new ProblemError(422, 'invalid-input', 'Something in this is not right', message);
        }
        const next = { ...lead, fields };
        await leads.update({ id: leadId }, { fields, search: searchOf(fields) });
        // A corrected address is another person; whoever has no answer left is nobody.
        const person = await meet(manager, next);
        if (lead.personId && person?.id !== lead.personId)
          await manager.query(
            'DELETE FROM person WHERE id = $1 AND NOT EXISTS (SELECT FROM lead WHERE person_id = $1)',
            [lead.personId],
          );
        await noteDeed(manager, { siteId, by: actor.name, what: 'corrected', count: 1 });
      });
    },

    /**
     * Removes every trace of a person but the numbers. The address is never written to again; the receipt says nothing of
     * whose it was.
     *
     * @param forget Removes what was sent to them, in the same transaction, and says how many mails that was.
     */
    async erase(
      actor: Actor,
      siteId: string,
      personId: string,
      forget: (manager: EntityManager, person: PersonRow) => Promise<number>,
    ): Promise<ErasureReceipt> {
      await sites.get(actor.workspaceId, siteId);
      return db.transaction(async (manager) => {
        const person = await ofSite(manager, siteId, personId);
        const mails = await forget(manager, person);
        const leads: { id: string }[] = await manager.query('SELECT id FROM lead WHERE person_id = $1', [
          personId,
        ]);
        await forgetAnswers(
          manager,
          leads.map(({ id }) => id),
        );
        await manager.query('DELETE FROM person WHERE id = $1', [personId]);
        await neverWriteTo(manager, seal, siteId, [person.addressKey], 'erased');
        const note = await noteDeed(manager, {
          siteId,
          by: actor.name,
          what: 'erased',
          count: leads.length,
          mails,
        });
        return { id: note.id, at: note.at.toISOString(), answers: leads.length, mails };
      });
    },

    /** Takes in addresses that are never to be written to. */
    async importDoNotWrite(actor: Actor, siteId: string, text: string): Promise<DoNotWriteResult> {
      await sites.get(actor.workspaceId, siteId);
      const { keys, faults } = readAddressList(text);
      return db.transaction(async (manager) => {
        const added = await neverWriteTo(manager, seal, siteId, keys, 'list');
        await noteDeed(manager, { siteId, by: actor.name, what: 'imported', count: added });
        return { added, known: keys.length - added, faults: faults.slice(0, 100) };
      });
    },

    /** Everything known of a person, pictures they sent among it, for when they ask; it is noted who took it. */
    async everything(actor: Actor, siteId: string, id: string) {
      const person = await this.person(actor.workspaceId, siteId, id, true);
      const attachments = await attachmentsOf(db, siteId, id);
      await noteDeed(db.manager, { siteId, by: actor.name, what: 'told', count: 1 });
      return {
        ...person,
        attachments: attachments.map(({ bytes, ...one }) => ({
          ...one,
          type: 'image/webp',
          base64: bytes.toString('base64'),
        })),
      };
    },

    async notes(workspaceId: string, siteId: string): Promise<PeopleNote[]> {
      await sites.get(workspaceId, siteId);
      return listNotes(db.manager, siteId);
    },

    keptDays: sites.keptDays,
    keepFor: sites.keepAnswers,

    /** Forgets answers older than their site keeps them, people of whom none is left, and what went out because of them. */
    async tidy(forget: ForgetSent): Promise<void> {
      for (let count = READ_AT_ONCE; count === READ_AT_ONCE; ) {
        const answers = await idsOf(
          `SELECT l.id FROM lead l JOIN site s ON s.id = l.site_id
            WHERE s.answers_kept_days IS NOT NULL AND l.submitted_at < now() - s.answers_kept_days * interval '1 day'
            LIMIT ${READ_AT_ONCE}`,
        );
        count = answers.length;
        await db.transaction(async (manager) => {
          await forget(manager, { persons: [], answers });
          await forgetAnswers(manager, answers);
        });
      }
      const persons: Pick<PersonRow, 'id' | 'siteId' | 'addressKey' | 'state'>[] = await db.query(
        `SELECT p.id, p.site_id AS "siteId", p.address_key AS "addressKey", p.state
           FROM person p JOIN site s ON s.id = p.site_id
          WHERE s.answers_kept_days IS NOT NULL AND NOT EXISTS (SELECT FROM lead WHERE person_id = p.id)`,
      );
      const ids = persons.map(({ id }) => id);
      await db.transaction(async (manager) => {
        // Whoever left is not written to again, though nobody knows any more who that was.
        for (const { siteId, addressKey, state } of persons)
          if (state === 'left') await neverWriteTo(manager, seal, siteId, [addressKey], 'left');
        await forget(manager, { persons: ids, answers: [] });
        await manager.query(
          'DELETE FROM person WHERE id = ANY($1) AND NOT EXISTS (SELECT FROM lead WHERE person_id = person.id)',
          [ids],
        );
      });
    },
  };
}
export type PeopleService = ReturnType<typeof createPeopleService>;

/** Every answer in lower case, with a blank between. */
export const searchOf = (fields: LeadRow['fields']): string =>
  fields
    .map(({ value }) => value)
    .join(' ')
    .toLowerCase();
