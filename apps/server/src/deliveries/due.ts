import type { DeliveryKind, FollowUp, ToldEvent } from '@velarium/contract';
import type { DataSource, EntityManager } from 'typeorm';
import type { PeopleService, StoredAnswer } from '../people/index.ts';
import type { SiteService } from '../sites/index.ts';
import { type ConnectionService, laneOf } from './connections.ts';
import type { FollowUps } from './follow-ups.ts';
import type { Links } from './links.ts';
import { enqueue, mailTo, type NewDelivery, stopForPerson } from './outbox.ts';
import type { DeliveryPayload } from './payload.ts';

const DAY_MS = 86_400_000;
/** A connection is told of an answer once, whether as it came or later. */
export const onceOf = (connectionId: string, leadId: string): string => `answer ${connectionId} ${leadId}`;
const TO_PERSON: readonly DeliveryKind[] = ['confirmation', 'reminder', 'welcome'];

/** What became of following a link in a mail. */
export type LinkOutcome = 'done' | 'already' | 'ended' | 'gone';

/** Something that other services may want to be told of. */
interface Happening {
  readonly workspaceId: string;
  readonly siteId: string;
  readonly event: ToldEvent;
  readonly campaignId: string | null;
  readonly data: Readonly<Record<string, unknown>>;
  readonly leadId?: string | null;
  readonly personId?: string | null;
}

interface DueServices {
  readonly db: DataSource;
  readonly people: PeopleService;
  readonly sites: SiteService;
  readonly connections: ConnectionService;
  readonly followUps: FollowUps;
  readonly links: Links;
}

/** What an answer, a press of a link and a move of a campaign make due: written down with what made it so. */
export function createDue({ db, people, sites, connections, followUps, links }: DueServices) {
  /** Writes down that every connection that wants it is to be told. */
  async function tell(manager: EntityManager, happening: Happening): Promise<void> {
    const { workspaceId, siteId, event, campaignId, data, leadId = null, personId = null } = happening;
    const at = new Date().toISOString();
    const wanting = await connections.wanting(manager, siteId, event, campaignId);
    await enqueue(
      manager,
      wanting.map(
        ({ id, settings, state }): NewDelivery => ({
          workspaceId,
          siteId,
          kind: settings.kind === 'events' ? 'event' : 'request',
          lane: laneOf(id),
          recipient: settings.address,
          payload: { of: 'event', event, at, data },
          personId,
          leadId,
          connectionId: id,
          isHeld: state === 'resting',
          ...(event === 'answer.stored' && leadId ? { once: onceOf(id, leadId) } : {}),
        }),
      ),
    );
  }

  /** The mails of the series to somebody who may have them, each once for an answer. */
  const welcomes = ({ lead, person }: StoredAnswer, { welcome }: FollowUp): NewDelivery[] =>
    person === null
      ? []
      : welcome.map(({ afterDays }, at) => ({
          ...mailTo(lead.workspaceId, lead.siteId, person.address),
          kind: 'welcome',
          payload: { of: 'person', campaignId: lead.campaignId, form: lead.form ?? '', at },
          personId: person.id,
          leadId: lead.id,
          once: `welcome ${lead.id} ${at}`,
          dueAt: new Date(Date.now() + afterDays * DAY_MS),
        }));

  /** Asks somebody to confirm, and reminds them once. */
  async function confirmations(
    manager: EntityManager,
    { lead, person }: StoredAnswer,
    { confirmation }: FollowUp,
  ): Promise<NewDelivery[]> {
    if (!person || !confirmation) return [];
    const endsAt = new Date(Date.now() + confirmation.endsAfterDays * DAY_MS).toISOString();
    await people.confirmUntil(manager, person.id, endsAt);
    const payload: DeliveryPayload = {
      of: 'confirmation',
      campaignId: lead.campaignId,
      form: lead.form ?? '',
      endsAt,
    };
    const common = {
      ...mailTo(lead.workspaceId, lead.siteId, person.address),
      payload,
      personId: person.id,
      leadId: lead.id,
    };
    return [
      { ...common, kind: 'confirmation', once: `confirmation ${lead.id}` },
      ...(confirmation.remindAfterDays === null
        ? []
        : [
            {
              ...common,
              kind: 'reminder' as const,
              once: `reminder ${lead.id}`,
              dueAt: new Date(Date.now() + confirmation.remindAfterDays * DAY_MS),
            },
          ]),
    ];
  }

  /** Tells the team: at once, or with all of the site's day the morning after. */
  async function notices(
    manager: EntityManager,
    { lead }: StoredAnswer,
    { notice }: FollowUp,
  ): Promise<NewDelivery[]> {
    if (!notice) return [];
    const { to } = notice;
    const common = mailTo(lead.workspaceId, lead.siteId, to.join(', '));
    const about = { campaignId: lead.campaignId, form: lead.form ?? '', to };
    if (notice.rhythm === 'atOnce')
      return [
        {
          ...common,
          kind: 'notice',
          payload: { of: 'notice', ...about },
          leadId: lead.id,
          once: `notice ${lead.id}`,
        },
      ];
    const timeZone = await sites.zoneOf(manager, lead.siteId);
    const [day]: { day: string; from: Date; until: Date; due: Date }[] = await manager.query(
      `SELECT day::text, day::timestamp AT TIME ZONE $1 AS from, (day + 1)::timestamp AT TIME ZONE $1 AS until,
              (day + 1 + time '07:00') AT TIME ZONE $1 AS due
         FROM (SELECT (now() AT TIME ZONE $1)::date AS day) AS today`,
      [timeZone],
    );
    if (!day) return [];
    return [
      {
        ...common,
        kind: 'digest',
        payload: { of: 'digest', ...about, from: day.from.toISOString(), until: day.until.toISOString() },
        once: `digest ${lead.campaignId} ${lead.form} ${day.day}`,
        dueAt: day.due,
      },
    ];
  }

  /** Writes down everything that an answer makes due, in the transaction that stores it. */
  async function onAnswer(manager: EntityManager, answer: StoredAnswer): Promise<void> {
    const { lead, person } = answer;
    await tell(manager, {
      ...lead,
      event: 'answer.stored',
      data: {},
      leadId: lead.id,
      personId: person?.id ?? null,
    });
    const followUp =
      lead.form === null ? undefined : await followUps.find(lead.campaignId, lead.form, manager);
    if (!followUp) return;
    const isAsked = followUp.confirmation !== null && person !== null;
    const state =
      person && (await people.recordDeed(manager, person, isAsked ? 'askedToConfirm' : 'answered'));
    await enqueue(manager, [
      ...(state === 'waiting' ? await confirmations(manager, answer, followUp) : []),
      ...(state === 'agreed' || state === 'confirmed' ? welcomes(answer, followUp) : []),
      ...(await notices(manager, answer, followUp)),
    ]);
  }

  /** Presses the button of a confirmation. What was waiting for it becomes due. */
  async function confirm(token: string): Promise<LinkOutcome> {
    const read = links.readConfirm(token);
    if (!read) return 'gone';
    return db.transaction(async (manager) => {
      const answer = await people.find(manager, read.answerId);
      if (!answer?.person || answer.person.state === 'left') return 'gone';
      const { lead, person } = answer;
      if (person.state === 'confirmed') return 'already';
      if (read.hasEnded) return 'ended';
      await people.recordDeed(manager, person, 'confirmed');
      await stopForPerson(manager, person.id, ['confirmation', 'reminder'], 'They have confirmed.');
      // Whatever else they answered while they were asked waited for this too; what was written down once stays once.
      for (const one of await people.answersOf(manager, person.id)) {
        const followUp = await followUps.find(one.campaignId, one.form ?? '', manager);
        if (followUp) await enqueue(manager, welcomes({ lead: one, person }, followUp));
      }
      await tell(manager, {
        ...lead,
        event: 'person.confirmed',
        data: {},
        leadId: lead.id,
        personId: person.id,
      });
      return 'done';
    });
  }

  /** Lets somebody leave: nothing more is sent to them. */
  async function leave(token: string): Promise<LinkOutcome> {
    const personId = links.readLeave(token);
    if (!personId) return 'gone';
    return db.transaction(async (manager) => {
      const person = await people.lockPerson(manager, personId);
      if (!person) return 'gone';
      if (person.state === 'left') return 'already';
      await people.recordDeed(manager, person, 'left');
      await stopForPerson(manager, person.id, TO_PERSON, 'They have unsubscribed.');
      await tell(manager, {
        ...person,
        event: 'person.left',
        campaignId: null,
        data: {},
        personId: person.id,
      });
      return 'done';
    });
  }

  return { tell, onAnswer, confirm, leave };
}
