import type { DeliveryKind, MailDraft, MailPreview } from '@velarium/contract';
import { mailIn, mayBeWrittenTo, retryAfterMs } from '@velarium/core';
import type { DataSource } from 'typeorm';
import type { CampaignService } from '../campaigns/index.ts';
import { OutsideError } from '../infra/network.ts';
import type { SendOutside } from '../infra/send-outside.ts';
import { type PeopleService, readableAddress, type StoredAnswer } from '../people/index.ts';
import type { SiteService } from '../sites/index.ts';
import type { ConnectionService } from './connections.ts';
import type { FollowUps } from './follow-ups.ts';
import type { Links } from './links.ts';
import type { MailDeskService, MailPurpose } from './mail/desk.ts';
import type { MailLinks } from './mail/fill-places.ts';
import type { MailSender, MailWay, OutgoingMail } from './mail/send-mail.ts';
import { alertMail, digestMail, noticeMail } from './mail/team-mail.ts';
import type { DeliveryPayload, MemberMail, WeekMail } from './payload.ts';
import type { SendingService } from './sending.ts';
import { callOf, readableCall, type Told } from './tell.ts';

/** A delivery whose turn it is. */
export interface DueDelivery {
  readonly id: string;
  readonly workspaceId: string;
  readonly siteId: string | null;
  readonly kind: DeliveryKind;
  readonly lane: string;
  readonly recipient: string;
  readonly payload: DeliveryPayload;
  readonly personId: string | null;
  readonly leadId: string | null;
  readonly connectionId: string | null;
  readonly tries: number;
  readonly begunAt: Date;
}

/** What became of one try. `stopped`: by a law, not by a fault; nothing was sent and nothing will be. */
export interface TryResult {
  readonly outcome: 'sent' | 'failed' | 'givenUp' | 'stopped';
  readonly status: number | null;
  readonly words: string;
  readonly answer: string;
  readonly sent: string | null;
  /** What the other side asked to wait, milliseconds. */
  readonly askedMs: number;
  /** The other side wants nothing more, ever. */
  readonly isGone: boolean;
}

const result = (outcome: TryResult['outcome'], words: string, more: Partial<TryResult> = {}): TryResult => ({
  outcome,
  words,
  status: null,
  answer: '',
  sent: null,
  askedMs: 0,
  isGone: false,
  ...more,
});
const stopped = (words: string) => result('stopped', words);

export interface CarryServices {
  readonly db: DataSource;
  readonly people: PeopleService;
  readonly sites: SiteService;
  readonly campaigns: CampaignService;
  readonly connections: ConnectionService;
  readonly followUps: FollowUps;
  readonly sending: SendingService;
  readonly desk: MailDeskService;
  readonly mails: MailSender;
  readonly links: Links;
  readonly sendOutside: SendOutside;
  /** What a mail to a member says; `undefined` where it has no reason any more. */
  readonly memberMail: (payload: MemberMail) => Promise<MailDraft | undefined>;
  /** What the mail of a site's week says; `undefined` for who wants it no more. */
  readonly weekMail: (
    of: { readonly workspaceId: string; readonly siteId: string },
    payload: WeekMail,
  ) => Promise<MailDraft | undefined>;
}

type SiteDelivery = DueDelivery & { readonly siteId: string };

/** Makes one try of a delivery: what is sent is made of what is true at that moment. */
export function createCarrier(services: CarryServices) {
  const {
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
  } = services;

  async function post(
    due: SiteDelivery,
    draft: MailDraft,
    purpose: MailPurpose,
    more: {
      readonly to: readonly string[];
      readonly answer?: StoredAnswer | undefined;
      /** What it is written in, and what is said to its reader below it. */
      readonly language?: string | null;
      readonly reader?: string | null;
      readonly links?: MailLinks;
      readonly replyTo?: string | null;
      readonly attachments?: OutgoingMail['attachments'];
    },
  ): Promise<TryResult> {
    const way = await sending.way(due.workspaceId);
    if (!way) return noWay();
    const written = await desk.write(due, draft, purpose, {
      fields: more.answer?.lead.fields,
      links: more.links,
      language: more.language,
      reader: more.reader,
    });
    return send(due, way, written, {
      to: more.to,
      replyTo: more.replyTo ?? null,
      leaveAddress: more.links?.leave ?? null,
      attachments: more.attachments ?? [],
      covered: Object.values(more.links ?? {}).map((link) => link.slice(link.lastIndexOf('/') + 1)),
    });
  }

  const noWay = () => result('failed', 'Nobody has said yet where mail goes out: Outbox, Sending.');
  async function send(
    due: DueDelivery,
    way: MailWay,
    written: MailPreview,
    rest: Omit<OutgoingMail, 'id' | keyof MailPreview>,
  ): Promise<TryResult> {
    const { isGood, isFinal, ...said } = await mails.send(due.lane, way, { ...written, ...rest, id: due.id });
    return result(isGood ? 'sent' : isFinal ? 'givenUp' : 'failed', said.words, said);
  }

  /** A mail to somebody who answered, where it may be sent to them. */
  async function writeToPerson(
    due: SiteDelivery,
    payload: Extract<DeliveryPayload, { of: 'person' | 'confirmation' }>,
  ): Promise<TryResult> {
    const answer = due.leadId ? await people.find(db.manager, due.leadId) : undefined;
    const person = answer?.person;
    if (!person) return stopped('The answer it belongs to is gone.');
    const isConfirmation = payload.of === 'confirmation';
    if (!mayBeWrittenTo(person.state, isConfirmation))
      return stopped(
        person.state === 'left'
          ? 'They have unsubscribed.'
          : isConfirmation
            ? 'They have confirmed.'
            : 'They have not confirmed.',
      );
    if (await people.isNeverWrittenTo(db.manager, due.siteId, person.addressKey))
      return stopped('This address is never written to.');
    const followUp = await followUps.find(payload.campaignId, payload.form);
    const written = isConfirmation ? followUp?.confirmation : followUp?.welcome[payload.at];
    if (!written) return stopped('This mail was taken away.');
    const { language: reader } = answer.lead;
    const mail = mailIn(written, reader);
    // One that is not written in what was answered in is the original, and laid out as that is written.
    const language =
      reader === null || mail !== written.mail
        ? reader
        : await campaigns.originalLanguageOf(payload.campaignId);
    return post(due, mail, isConfirmation ? 'confirmation' : 'welcome', {
      to: [person.addressKey],
      answer,
      language,
      reader,
      links: isConfirmation
        ? { confirm: links.confirm(answer.lead.id, new Date(payload.endsAt)) }
        : { leave: links.leave(person.id) },
    });
  }

  async function tellTeam(
    due: SiteDelivery,
    payload: Extract<DeliveryPayload, { of: 'notice' }>,
  ): Promise<TryResult> {
    const answer = due.leadId ? await people.find(db.manager, due.leadId) : undefined;
    if (!answer) return stopped('The answer it is about is gone.');
    const attachments: OutgoingMail['attachments'][number][] = [];
    for (const { attachment } of answer.lead.fields)
      if (attachment)
        attachments.push({
          name: `${attachment}.webp`,
          type: 'image/webp',
          bytes: await people.attachment(due.workspaceId, due.siteId, attachment),
        });
    const draft = noticeMail(await campaigns.nameOf(payload.campaignId), answer.lead);
    return post(due, draft, 'team', {
      to: payload.to,
      replyTo: answer.person?.addressKey ?? null,
      attachments,
    });
  }

  async function tellTheDay(
    due: SiteDelivery,
    payload: Extract<DeliveryPayload, { of: 'digest' }>,
  ): Promise<TryResult> {
    const [from, until] = [new Date(payload.from), new Date(payload.until)];
    const [leads, count] = await people.since(db.manager, payload.campaignId, payload.form, from, until);
    if (leads.length === 0) return stopped('None of the day’s answers is left.');
    const { timeZone } = await sites.get(due.workspaceId, due.siteId);
    const day = new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', timeZone }).format(from);
    const draft = digestMail(await campaigns.nameOf(payload.campaignId), day, leads, count);
    return post(due, draft, 'team', { to: payload.to });
  }

  /** A mail to a member: of no site, and with a link that acts for them. */
  async function writeToMember(due: DueDelivery, payload: MemberMail): Promise<TryResult> {
    const draft = await memberMail(payload);
    if (!draft) return stopped('It was withdrawn.');
    const way = await sending.way(due.workspaceId);
    if (!way) return noWay();
    return send(due, way, await desk.writePlain(draft), {
      to: [due.recipient],
      replyTo: null,
      leaveAddress: null,
      attachments: [],
      covered: [/token=(.*)$/.exec(draft.button?.address ?? '')?.[1] ?? ''].filter(Boolean),
    });
  }

  /** What is told of an event, with the answer it is about as it stands now. */
  async function toldOf(
    due: SiteDelivery,
    payload: Extract<DeliveryPayload, { of: 'event' }>,
  ): Promise<Told | undefined> {
    const site = await sites.get(due.workspaceId, due.siteId);
    const answer = due.leadId ? await people.find(db.manager, due.leadId) : undefined;
    if (payload.event === 'answer.stored' && !answer) return undefined;
    const person =
      answer?.person ?? (due.personId ? await people.lockPerson(db.manager, due.personId) : undefined);
    const campaign = answer ? await campaigns.nameOf(answer.lead.campaignId) : undefined;
    return {
      id: due.id,
      event: payload.event,
      at: new Date(payload.at),
      source: site.origins[0] ?? `/sites/${site.id}`,
      fields: answer?.lead.fields ?? [],
      data: {
        site: site.name,
        ...payload.data,
        ...(person
          ? { person: person.id, mail: readableAddress(person.addressKey), state: person.state }
          : {}),
        ...(answer
          ? {
              answer: answer.lead.id,
              campaign,
              page: answer.lead.page,
              fields: answer.lead.fields.map(({ id, label, value }) => ({ id: id ?? null, label, value })),
              consent: answer.lead.consentText,
            }
          : {}),
      },
    };
  }

  async function tell(
    due: SiteDelivery,
    payload: Extract<DeliveryPayload, { of: 'event' }>,
  ): Promise<TryResult> {
    const connection = await connections.find(due.siteId, due.connectionId ?? '');
    const told = await toldOf(due, payload);
    if (!told) return stopped('The answer it is about is gone.');
    const call = callOf(connection.settings, connections.secretsOf(connection), told);
    const sent = readableCall(call, connection.settings);
    try {
      const { status, retryAfter, text } = await sendOutside(call);
      const isGood = status >= 200 && status < 300;
      return result(isGood ? 'sent' : status === 410 ? 'givenUp' : 'failed', statusWords(status), {
        status,
        answer: text,
        sent,
        askedMs: retryAfterMs(retryAfter, Date.now()),
        isGone: status === 410,
      });
    } catch (error) {
      if (!(error instanceof OutsideError)) throw error;
      return result('failed', `${error.message}.`, { sent });
    }
  }

  return async (due: DueDelivery): Promise<TryResult> => {
    const { payload, siteId } = due;
    if (payload.of === 'invitation' || payload.of === 'password' || payload.of === 'agreement')
      return writeToMember(due, payload);
    if (siteId === null) return stopped('The site is gone.');
    const ofSite = { ...due, siteId };
    switch (payload.of) {
      case 'person':
      case 'confirmation':
        return writeToPerson(ofSite, payload);
      case 'notice':
        return tellTeam(ofSite, payload);
      case 'digest':
        return tellTheDay(ofSite, payload);
      case 'trial':
        return post(ofSite, payload.mail, payload.isConfirmation ? 'confirmation' : 'welcome', {
          to: [due.recipient],
          language: payload.language ?? null,
          reader: payload.reader ?? null,
        });
      case 'alert':
        return post(ofSite, alertMail(payload.subject, payload.words), 'team', {
          to: due.recipient.split(', '),
        });
      case 'event':
        return tell(ofSite, payload);
      case 'week': {
        const draft = await weekMail(ofSite, payload);
        return draft
          ? post(ofSite, draft, 'team', { to: [due.recipient] })
          : stopped('They do not want it any more, or have left the team.');
      }
    }
  };
}
export type Carry = ReturnType<typeof createCarrier>;

/** What an HTTP status means for whoever wants to know why nothing arrived. Source: RFC 9110, 15. */
export function statusWords(status: number): string {
  if (status >= 200 && status < 300) return `Taken (${status}).`;
  if (status >= 300 && status < 400) return `It leads elsewhere (${status}); redirects are not followed.`;
  if (status === 401 || status === 403) return `It does not let us in (${status}).`;
  if (status === 404) return 'There is nothing at this address (404).';
  if (status === 410) return 'It wants nothing more (410).';
  if (status === 429) return 'It is asked too often (429).';
  return status >= 500 ? `It failed (${status}).` : `It refused this (${status}).`;
}
