import { randomUUID } from 'node:crypto';
import type { Collect, FormBlock, MessageFile, Submit, VisitorEvent } from '@velarium/contract';
import { LIMITS } from '@velarium/contract/values';
import {
  answerFault,
  blocksOfStep,
  countedPath,
  FORM_WORDS,
  FURTHER_WORDS,
  heldReason,
  isOutdated,
  isSumAnswered,
  type PageParts,
  stepName,
} from '@velarium/core';
import type { DataSource } from 'typeorm';
import type { DeliveryService } from '../deliveries/index.ts';
import { ProblemError } from '../infra/problem.ts';
import {
  type Actor,
  type LeadRow,
  type PeopleService,
  readAttachment,
  readMailAddress,
  searchOf,
} from '../people/index.ts';
import type { PublishingService } from '../publishing/index.ts';
import type { SiteService } from '../sites/index.ts';
import { createBatcher } from './batcher.ts';
import { createHeard, forgetHeard } from './heard.ts';
import {
  ensurePartitions,
  forgetEvents,
  forgetPageDays,
  forgetVisitorDays,
  forgetVisits,
  makeRoom,
} from './keeping.ts';
import { createRecentAnswers } from './recent-answers.ts';
import { storeEvents } from './store-events.ts';
import type { StoredEvent } from './stored-event.ts';
import { type Client, pageAddress, readBegun, readTold, storable } from './visits.ts';

export interface IntakeSite {
  readonly id: string;
  readonly workspaceId: string;
  /** What is recorded of what its pages tell; see the settings of a site. */
  readonly recordedFacts: readonly string[] | null;
  /** How its pages are told apart when they are counted. */
  readonly pageParts: PageParts;
  /** When its manifest was made, milliseconds since 1970. */
  readonly madeMs: number;
}

/** How far an event's own time may lie from ours before ours is taken instead. */
const OLDEST_MS = 3 * 86_400_000;
const NEWEST_MS = 10 * 60_000;
const SEEN_EVERY_MS = 60_000;
/** A day longer than anybody asks for. */
const KEPT_VISITS_MS = 31 * 86_400_000;
/** Of pages and of visitors with campaigns: a year and a month more, so that a season can be held against the last. */
const KEPT_DAYS_MS = 396 * 86_400_000;
const UNKNOWN_CLIENT: Client = { userAgent: '', acceptLanguage: '', country: null };

export interface IntakeServices {
  readonly db: DataSource;
  readonly people: PeopleService;
  readonly deliveries: DeliveryService;
  readonly publishing: PublishingService;
  readonly sites: SiteService;
  readonly clock?: () => Date;
}

export function createIntakeService({
  db,
  people,
  deliveries,
  publishing,
  sites,
  clock = () => new Date(),
}: IntakeServices) {
  const batcher = createBatcher(db);
  const heard = createHeard(db);
  const recent = createRecentAnswers(() => clock().getTime());
  /** When each site was last noted to be seen, as long as it is the same to us. */
  const notedMs = new WeakMap<IntakeSite, number>();

  /** The form that was answered, with what its step is called. */
  async function findForm(
    siteId: string,
    { event, message: hash, form: id }: Submit,
  ): Promise<(Pick<MessageFile, 'language' | 'words'> & { form: FormBlock; step: string }) | undefined> {
    const { campaign, version, variant } = event;
    const file = await publishing.findAnswered(siteId, { campaign, version, variant, hash });
    if (!file) return undefined;
    for (const step of file.message.steps)
      for (const block of blocksOfStep(step))
        if (block.kind === 'form' && (id === undefined || block.id === id))
          return {
            form: block,
            step: stepName(file.message, step.id),
            language: file.language,
            words: file.words,
          };
    return undefined;
  }

  return {
    /** Resolves once every event is durable. */
    async collect(
      site: IntakeSite,
      { visitor, events, made }: Collect,
      client: Client = UNKNOWN_CLIENT,
    ): Promise<void> {
      const store = eventStorer(site, visitor, client);
      const now = clock();
      const stored = events.map((event) => store(event, now));
      await batcher.add(stored);
      const nowMs = clock().getTime();
      for (const [n, { title }] of events.entries())
        if (title)
          heard.title({ siteId: site.id, visitor, path: stored[n]?.path ?? '', title: storable(title) });
      if (made !== undefined && events.some(({ kind }) => kind === 'pageview'))
        heard.manifest(site.id, isOutdated(made, site.madeMs, nowMs) ? made : null);
      if (nowMs - (notedMs.get(site) ?? 0) < SEEN_EVERY_MS) return;
      notedMs.set(site, nowMs);
      // A sign of life, not a count: it may be lost, and nobody waits for it.
      sites.noteSeen(site.id).catch(() => notedMs.delete(site));
    },

    /** What a robot says is answered and counts nowhere; only how often it was shown something is noted. */
    noteRobot({ id }: IntakeSite, { events }: Collect): void {
      for (const { kind, campaign } of events) if (kind === 'shown' && campaign) heard.robot(id, campaign);
    },

    /**
     * Checks answers against the form of the very message file the visitor had, and stores them with their conversion
     * and the showing that led to it, in one transaction. What a page claims about its own form is never believed.
     */
    async submit(site: IntakeSite, submitted: Submit, address: string): Promise<void> {
      const {
        visitor,
        event,
        showing,
        message,
        fields,
        consent,
        sum = '',
        unseen = '',
        files = {},
      } = submitted;
      const found = await findForm(site.id, submitted);
      if (!found) throw new ProblemError(404, 'no-form', 'No such form', 'This message takes no answers.');
      const { form, step, language, words } = found;
      const { answers, attachments } = await readFiles(
        readAnswers(form, fields, { consent, sum, words }),
        files,
      );
      const now = clock();
      const store = eventStorer(site, visitor, UNKNOWN_CLIENT);
      // The news of the showing may be on its way still, or have been blocked: of one id it counts once.
      const told = showing ? [{ ...event, id: showing, kind: 'shown' as const }, event] : [event];
      const events = told.map((one) => ({ ...store(one, now), language: language ?? null }));
      const held = heldReason({
        milliseconds: showing ? ownTimeMs(event.id) - ownTimeMs(showing) : null,
        isUnseenFilled: unseen !== '',
        ...recent.count({ site: site.id, address, visitor }, event.id),
      });
      const lead: LeadRow = {
        id: event.id,
        workspaceId: site.workspaceId,
        siteId: site.id,
        campaignId: event.campaign,
        version: event.version,
        variant: event.variant ?? null,
        messageHash: message ?? null,
        language: language ?? null,
        form: form.id,
        step,
        visitor,
        session: event.session,
        device: event.device,
        personId: null,
        fields: answers,
        consentText: form.consentText || null,
        consentedAt: form.consentText ? now : null,
        page: pageAddress(event.page),
        submittedAt: now,
        held,
        heldEvents: held === null ? null : events,
        search: searchOf(answers),
      };
      await db.transaction(async (manager) => {
        const answer = await people.add(manager, lead, attachments);
        if (answer && held === null) await deliveries.onAnswer(manager, answer);
        // Last: all answers of an hour count on one row, and wait for it only as long as it takes to be done.
        if (held === null) await storeEvents(manager, events);
      });
    },

    /**
     * Lets answers that were kept apart through, so that they count and are sent on as any other, or throws them away.
     * Answers with how many were still kept apart.
     */
    async judgeHeld(
      actor: Actor,
      siteId: string,
      ids: readonly string[],
      verdict: 'letThrough' | 'throwAway',
    ): Promise<number> {
      await sites.get(actor.workspaceId, siteId);
      return db.transaction(async (manager) => {
        const isThrownAway = verdict === 'throwAway';
        const taken = await people.takeHeld(manager, siteId, ids, isThrownAway);
        if (!isThrownAway)
          for (const answer of taken) {
            const events = revived(answer.lead.heldEvents);
            await makeRoom(
              manager,
              events.map(({ at }) => at),
            );
            await storeEvents(manager, events);
            await deliveries.onAnswer(manager, answer);
          }
        const what = isThrownAway ? 'thrownAway' : 'letThrough';
        await people.note(manager, { siteId, by: actor.name, what, count: taken.length });
        return taken.length;
      });
    },

    /** Room for events from a week ago to a week ahead, and none for visits nobody asks about; safe to repeat. */
    tidy: async (): Promise<void> => {
      await db.transaction((manager) => ensurePartitions(manager, clock(), -7, 7));
      const before = new Date(clock().getTime() - KEPT_VISITS_MS);
      await db.transaction((manager) => forgetVisits(manager, before));
      await db.transaction((manager) => forgetHeard(manager, before));
      const lastYear = new Date(clock().getTime() - KEPT_DAYS_MS);
      await db.transaction((manager) => forgetPageDays(manager, lastYear));
      await db.transaction((manager) => forgetVisitorDays(manager, lastYear));
      await forgetEvents(db, clock());
    },
    /** Writes down what was heard beside events, which else comes a second later. */
    flushHeard: heard.flush,
  };
}
export type IntakeService = ReturnType<typeof createIntakeService>;

/** The instant inside a version 7 id (RFC 9562, 5.7), by the clock of the page that made it. */
const ownTimeMs = (id: string): number => Number.parseInt(id.slice(0, 8) + id.slice(9, 13), 16);

/** Events as they were kept beside a held answer, their instants read again. */
const revived = (kept: unknown): StoredEvent[] =>
  (kept as StoredEvent[]).map((event) => ({
    ...event,
    at: new Date(event.at),
    ownAt: event.ownAt && new Date(event.ownAt),
  }));

/** The instant inside a version 7 id, unless it is too far off; then when it came. See decision 0016. */
function eventTime(id: string, now: Date): Pick<StoredEvent, 'at' | 'isLate' | 'ownAt'> {
  const ownMs = ownTimeMs(id);
  const ageMs = now.getTime() - ownMs;
  const isLate = ageMs > OLDEST_MS || ageMs < -NEWEST_MS;
  return isLate
    ? { at: now, isLate, ownAt: ageMs > 0 ? new Date(ownMs) : null }
    : { at: new Date(ownMs), isLate, ownAt: null };
}

const boundedStay = (stay: VisitorEvent['stay']): StoredEvent['stay'] =>
  stay ? [Math.min(LIMITS.staySeconds, stay[0]), Math.min(100, stay[1])] : null;

/** Makes rows of what one visitor of a site sends; how the site's pages are counted is made out once for all of it. */
function eventStorer(site: IntakeSite, visitor: string, client: Client) {
  const counted = countedPath(site.pageParts);
  const read = (address: string) => {
    const page = pageAddress(address);
    return { address, page, path: counted(page) };
  };
  /** Nearly all that is sent together is of one page. */
  let last: ReturnType<typeof read> | undefined;
  return (event: VisitorEvent, now: Date): StoredEvent => {
    if (last?.address !== event.page) last = read(event.page);
    return {
      id: event.id,
      ...eventTime(event.id, now),
      siteId: site.id,
      kind: event.kind,
      visitor,
      session: event.session,
      page: last.page,
      path: last.path,
      device: event.device,
      campaign: event.campaign ?? null,
      version: event.version ?? null,
      closedBy: event.closedBy ?? null,
      // None where nobody divided them.
      variant: event.variant ?? null,
      stay: boundedStay(event.stay),
      view: event.view ?? null,
      cause: event.cause ?? null,
      language: event.language ?? null,
      part: event.part ?? null,
      goal: event.goal ?? null,
      worth: event.worth ?? null,
      begun: readBegun(event.begun, client),
      told: readTold(event.told, site.recordedFacts),
    };
  };
}

/** Reads answers as the form asks for them. What a page claims about its own form is never believed. */
function readAnswers(
  form: FormBlock,
  given: Readonly<Record<string, string>>,
  { consent, sum, words = {} }: { consent: boolean; sum: string; words: MessageFile['words'] },
) {
  const wrong: { path: string; message: string }[] = [];
  const known = new Set(form.fields.map((field) => field.id));
  for (const id of Object.keys(given)) {
    if (!known.has(id)) wrong.push({ path: `fields.${id}`, message: 'This form has no such field.' });
  }
  const answers = form.fields.flatMap((field) => {
    const value = storable(given[field.id] ?? '').trim();
    const fault = answerFault(field, value, (mail) => readMailAddress(mail) !== undefined, words);
    if (fault !== '') {
      const words = fault.charAt(0).toLowerCase() + fault.slice(1);
      wrong.push({ path: `fields.${field.id}`, message: `${field.label}: ${words}` });
    }
    return value === '' ? [] : [{ id: field.id, kind: field.kind, label: field.label, value }];
  });
  if (form.asksSum && !isSumAnswered(sum))
    wrong.push({ path: 'sum', message: words.sumWrong ?? FURTHER_WORDS.sumWrong });
  if (form.consentText && !consent) wrong.push({ path: 'consent', message: words.agree ?? FORM_WORDS.agree });
  const [first] = wrong;
  if (first)
    throw new ProblemError(422, 'invalid-input', 'Something in this is not right', first.message, wrong);
  return answers;
}

/** Puts the pictures that came beside the answers of the fields that ask for one; others are not looked at. */
async function readFiles(answers: ReturnType<typeof readAnswers>, files: Readonly<Record<string, string>>) {
  const attachments: { id: string; bytes: Buffer }[] = [];
  const read: LeadRow['fields'] = [];
  for (const answer of answers) {
    if (answer.kind !== 'file') {
      read.push(answer);
      continue;
    }
    const attachment = randomUUID();
    const bytes = await readAttachment(answer.id, answer.label, files[answer.id] ?? '');
    attachments.push({ id: attachment, bytes });
    read.push({ ...answer, attachment });
  }
  return { answers: read, attachments };
}
