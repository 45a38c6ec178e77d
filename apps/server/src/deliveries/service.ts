import type {
  Connection,
  FollowUp,
  MailPreview,
  MailTrial,
  SaveConnection,
  SaveSending,
  TriedConnection,
  TriedSending,
} from '@velarium/contract';
import type { DataSource, EntityManager } from 'typeorm';
import type { CampaignService } from '../campaigns/index.ts';
import { type Network, OutsideError } from '../infra/network.ts';
import { ProblemError } from '../infra/problem.ts';
import type { Seal } from '../infra/seal.ts';
import { createSender } from '../infra/send-outside.ts';
import type { LibraryService } from '../library/index.ts';
import type { ForgetSent, PeopleService, PersonRow } from '../people/index.ts';
import type { SiteService } from '../sites/index.ts';
import { type CarryServices, createCarrier, statusWords } from './carry.ts';
import { createConnections, laneOf } from './connections.ts';
import { createDue, onceOf } from './due.ts';
import type { FollowUps } from './follow-ups.ts';
import { createLinks } from './links.ts';
import { createMailDesk } from './mail/desk.ts';
import { createMailSender } from './mail/send-mail.ts';
import { createOutbox, enqueue, forgetDeliveries, mailTo } from './outbox.ts';
import { reseal } from './reseal.ts';
import { createSendDue } from './send-due.ts';
import { createSending, type OwnMailbox } from './sending.ts';
import { callOf, readableCall } from './tell.ts';

export interface DeliveryServices {
  readonly db: DataSource;
  readonly people: PeopleService;
  readonly sites: SiteService;
  readonly campaigns: CampaignService;
  readonly library: LibraryService;
  readonly followUps: FollowUps;
  readonly network: Network;
  readonly seal: Seal;
  readonly edgeOrigin: string;
  readonly ownMailbox: OwnMailbox | null;
  /** What a mail to a member says; see the members' service. */
  readonly memberMail: CarryServices['memberMail'];
  /** What the mail of a site's week says; see the reports. */
  readonly weekMail: CarryServices['weekMail'];
  readonly report: (error: unknown) => void;
}

const DAY_MS = 86_400_000;
/** A connection that has not taken anything for so long is put to rest. */
const FAILING_MS = 3 * DAY_MS;

/** Everything that goes out: what follows an answer, what other services are told, and its fate. */
export function createDeliveryService({
  db,
  people,
  sites,
  campaigns,
  library,
  followUps,
  network,
  seal,
  edgeOrigin,
  ownMailbox,
  memberMail,
  weekMail,
  report,
}: DeliveryServices) {
  const outbox = createOutbox(db);
  const connections = createConnections(db, seal);
  const sending = createSending(db, seal, ownMailbox);
  const links = createLinks(seal, edgeOrigin);
  const mails = createMailSender(network);
  const desk = createMailDesk({ sites, library, edgeOrigin });
  const sendOutside = createSender(network);
  const carry = createCarrier({
    db,
    people,
    sites,
    campaigns,
    connections,
    followUps,
    sending,
    desk,
    mails,
    links,
    sendOutside,
    memberMail,
    weekMail,
  });

  const due = createDue({ db, people, sites, connections, followUps, links });

  /** The site whose page a link of a mail opens; `undefined` for a link that is not ours or whose person is gone. */
  async function siteOfLink(token: string) {
    const answerId = links.readConfirm(token)?.answerId;
    const answer = answerId ? await people.find(db.manager, answerId) : undefined;
    const personId = links.readLeave(token);
    const ofSite = answer?.lead ?? (personId ? await people.lockPerson(db.manager, personId) : undefined);
    if (!ofSite) return undefined;
    const site = await sites.get(ofSite.workspaceId, ofSite.siteId);
    const language = answer
      ? answer.lead.language
      : personId
        ? await people.languageOf(db.manager, personId)
        : null;
    return { name: site.name, look: (await library.looks.reader(site.id))(null), language };
  }

  /** Puts a connection to rest that wants nothing more or has failed for days, and warns the owners. */
  async function onFailing(connectionId: string, isGone: boolean): Promise<void> {
    await db.transaction(async (manager) => {
      const [row]: { workspaceId: string; siteId: string; name: string; sinceMs: number; state: string }[] =
        await manager.query(
          `SELECT workspace_id AS "workspaceId", site_id AS "siteId", settings ->> 'name' AS name, state,
                  extract(epoch FROM now() - failing_since)::double precision * 1000 AS "sinceMs"
             FROM connection WHERE id = $1 FOR UPDATE`,
          [connectionId],
        );
      if (!row || row.state === 'resting' || (!isGone && row.sinceMs < FAILING_MS)) return;
      const words = isGone
        ? 'The other side said that it wants nothing more (410).'
        : 'It had failed for three days.';
      await connections.rest(manager, connectionId, words);
      const owners: { email: string }[] = await manager.query(
        `SELECT a.email FROM membership m JOIN account a ON a.id = m.account_id
          WHERE m.workspace_id = $1 AND m.role = 'owner'`,
        [row.workspaceId],
      );
      await enqueue(manager, [
        {
          ...mailTo(row.workspaceId, row.siteId, owners.map(({ email }) => email).join(', ')),
          kind: 'alert',
          payload: {
            of: 'alert',
            subject: `The connection “${row.name}” was put to rest`,
            words: `${words} What is for it is kept until you put it on again, in the Outbox under Connections.`,
          },
        },
      ]);
    });
  }

  const timeZoneOf = async (workspaceId: string, siteId: string) =>
    (await sites.get(workspaceId, siteId)).timeZone;

  return {
    /** Seals anew what an older secret has sealed. */
    reseal: () => reseal(db, seal),
    outbox,
    connections,
    sending,
    onAnswer: due.onAnswer,
    confirm: due.confirm,
    leave: due.leave,
    siteOfLink,
    timeZoneOf,

    /** Tells of a campaign's move, in its transaction. */
    onCampaign: (
      manager: EntityManager,
      {
        workspaceId,
        siteId,
        campaignId,
        name,
        event,
      }: {
        readonly workspaceId: string;
        readonly siteId: string;
        readonly campaignId: string;
        readonly name: string;
        readonly event: 'campaign.published' | 'campaign.rested';
      },
    ): Promise<void> =>
      due.tell(manager, { workspaceId, siteId, event, campaignId, data: { campaign: name } }),

    /** Removes what went to or about a person, and tells whoever wants to know that they are gone. */
    async forget(manager: EntityManager, person: PersonRow): Promise<number> {
      const mailsGone = await forgetDeliveries(manager, { persons: [person.id], answers: [] });
      await due.tell(manager, {
        ...person,
        event: 'person.erased',
        campaignId: null,
        data: { person: person.id },
      });
      return mailsGone;
    },

    /** Removes what went out because of answers and people that are kept no longer. */
    forgetOld: (async (manager, gone) => {
      await forgetDeliveries(manager, gone);
    }) satisfies ForgetSent,

    async followUp(workspaceId: string, campaignId: string, form: string): Promise<FollowUp> {
      await campaigns.siteOf(workspaceId, campaignId);
      return (await followUps.find(campaignId, form)) ?? { confirmation: null, welcome: [], notice: null };
    },
    async saveFollowUp(
      workspaceId: string,
      campaignId: string,
      form: string,
      followUp: FollowUp,
    ): Promise<void> {
      await campaigns.siteOf(workspaceId, campaignId);
      await followUps.save(campaignId, form, followUp);
    },

    /** A mail as it would go out. */
    async previewMail(
      workspaceId: string,
      siteId: string,
      { mail, isConfirmation, language, reader }: MailTrial,
    ): Promise<MailPreview> {
      return desk.write({ workspaceId, siteId }, mail, isConfirmation ? 'confirmation' : 'welcome', {
        links: { confirm: '#', leave: '#' },
        language,
        reader,
      });
    },
    /** Sends a mail to whoever asks, through the Outbox as any other. */
    async tryMail(workspaceId: string, siteId: string, to: string, trial: MailTrial): Promise<void> {
      await sites.get(workspaceId, siteId);
      await enqueue(db.manager, [
        { ...mailTo(workspaceId, siteId, to), kind: 'trial', payload: { of: 'trial', ...trial } },
      ]);
    },

    async trySending(workspaceId: string, saved: SaveSending): Promise<TriedSending> {
      return mails.verify(await sending.wayWith(workspaceId, saved));
    },

    /** Sends the latest answer by a connection as it would be, and shows what came back. Not in the Outbox, and no try. */
    async tryConnection(
      workspaceId: string,
      siteId: string,
      saved: SaveConnection,
      connectionId: string | null,
    ): Promise<TriedConnection> {
      const site = await sites.get(workspaceId, siteId);
      const row = connectionId ? await connections.find(siteId, connectionId) : null;
      const { settings, sealed } = connections.taken(saved, row);
      const { answers } = await people.list(workspaceId, siteId, { q: '', isHeld: 'no' }, null);
      const [latest] = answers;
      if (!latest)
        throw new ProblemError(
          409,
          'no-answer',
          'Nobody has answered yet',
          'A connection is tried on the latest answer. Answer one of your own messages first.',
        );
      const call = callOf(settings, connections.secretsOf({ sealed }), {
        id: latest.id,
        event: 'answer.stored',
        at: new Date(latest.submittedAt),
        source: site.origins[0] ?? `/sites/${siteId}`,
        fields: latest.fields,
        data: {
          site: site.name,
          isTrial: true,
          mail: latest.person?.address ?? '',
          page: latest.page,
          campaign: latest.campaignName,
          fields: latest.fields.map(({ id, label, value }) => ({ id: id ?? null, label, value })),
        },
      });
      const sent = readableCall(call, settings);
      const beganMs = Date.now();
      try {
        const { status, text } = await sendOutside(call);
        return { status, words: statusWords(status), answer: text, sent, milliseconds: Date.now() - beganMs };
      } catch (error) {
        if (!(error instanceof OutsideError)) throw error;
        const words = `${error.message}.`;
        return { status: null, words, answer: '', sent, milliseconds: Date.now() - beganMs };
      }
    },

    /** Tells a connection of the answers that were there before it, each once. Answers with how many it had not heard of. */
    async sendEarlier(workspaceId: string, siteId: string, id: string): Promise<number> {
      await sites.get(workspaceId, siteId);
      const { settings, state } = await connections.find(siteId, id);
      if (!settings.events.includes('answer.stored'))
        throw new ProblemError(
          409,
          'not-of-answers',
          'It is not told of answers',
          'Choose “somebody answered” among what it is told of, save it, and try again.',
        );
      let count = 0;
      for await (const answers of people.stored(siteId, settings.campaigns))
        count += await enqueue(
          db.manager,
          answers.map(({ id: leadId, personId, submittedAt }) => ({
            workspaceId,
            siteId,
            kind: settings.kind === 'events' ? 'event' : 'request',
            lane: laneOf(id),
            recipient: settings.address,
            payload: { of: 'event', event: 'answer.stored', at: submittedAt.toISOString(), data: {} },
            personId,
            leadId,
            connectionId: id,
            once: onceOf(id, leadId),
            isHeld: state === 'resting',
          })),
        );
      return count;
    },

    async restConnection(siteId: string, id: string): Promise<Connection> {
      await connections.find(siteId, id);
      await db.transaction((manager) => connections.rest(manager, id, 'Put to rest by hand.'));
      return connections.one(siteId, id);
    },
    async wakeConnection(siteId: string, id: string): Promise<Connection> {
      await connections.find(siteId, id);
      await db.transaction((manager) => connections.wake(manager, id));
      return connections.one(siteId, id);
    },

    /** Begins to send what is due, until it is stopped. */
    startSending(): { stop(): Promise<void> } {
      const sendDue = createSendDue({ db, carry, onFailing, report });
      sendDue.start();
      return {
        async stop() {
          await sendDue.stop();
          mails.close();
        },
      };
    },
  };
}
export type DeliveryService = ReturnType<typeof createDeliveryService>;
