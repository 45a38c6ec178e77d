import type { Collect, FormBlock, Submit, VisitorEvent } from '@velarium/contract';
import { mailAddressSchema } from '@velarium/contract';
import type { DataSource } from 'typeorm';
import type { CampaignService } from '../campaigns/index.ts';
import { ProblemError } from '../infra/problem.ts';
import type { PeopleService } from '../people/index.ts';
import { createBatcher } from './batcher.ts';
import { ensurePartitions, type StoredEvent, storeEvents } from './queries.ts';

export interface IntakeSite {
  readonly id: string;
  readonly workspaceId: string;
}

/** How far an event's own time may lie from ours before ours is taken instead. */
const OLDEST_MS = 3 * 86_400_000;
const NEWEST_MS = 10 * 60_000;

export interface IntakeServices {
  readonly db: DataSource;
  readonly campaigns: CampaignService;
  readonly people: PeopleService;
  readonly clock?: () => Date;
}

export function createIntakeService({ db, campaigns, people, clock = () => new Date() }: IntakeServices) {
  const batcher = createBatcher(db);
  return {
    /** Resolves once every event is durable. */
    collect: (site: IntakeSite, { visitor, events }: Collect): Promise<void> =>
      batcher.add(events.map((event) => storedEvent(site, visitor, event, clock()))),

    /** Checks answers against the published form and stores them with their conversion, in one transaction. */
    async submit(site: IntakeSite, { visitor, event, fields, consent }: Submit): Promise<void> {
      const version = await campaigns.findVersion(site.id, event.campaign, event.version);
      const form = version?.document.message.steps
        .flatMap((step) => step.blocks)
        .find((block) => block.kind === 'form');
      if (!form) throw new ProblemError(404, 'no-form', 'No such form', 'This message takes no answers.');
      const answers = readAnswers(form, fields, consent);
      const now = clock();
      await db.transaction(async (manager) => {
        await storeEvents(manager, [storedEvent(site, visitor, event, now)]);
        await people.add(manager, {
          id: event.id,
          workspaceId: site.workspaceId,
          siteId: site.id,
          campaignId: event.campaign,
          version: event.version,
          visitor,
          fields: answers,
          consentText: form.consentText || null,
          consentedAt: form.consentText ? now : null,
          page: event.page,
          submittedAt: now,
        });
      });
    },

    /** Room for events from a week ago to a week ahead; safe to repeat. */
    preparePartitions: (): Promise<void> =>
      db.transaction((manager) => ensurePartitions(manager, clock(), -7, 7)),
  };
}
export type IntakeService = ReturnType<typeof createIntakeService>;

/** The instant inside a version 7 id, unless the visitor's clock is too far off; then the server's. */
function eventTime(id: string, now: Date): Date {
  const atMs = Number.parseInt(id.slice(0, 8) + id.slice(9, 13), 16);
  const ageMs = now.getTime() - atMs;
  return ageMs <= OLDEST_MS && ageMs >= -NEWEST_MS ? new Date(atMs) : now;
}

function storedEvent(site: IntakeSite, visitor: string, event: VisitorEvent, now: Date): StoredEvent {
  return {
    id: event.id,
    at: eventTime(event.id, now),
    siteId: site.id,
    kind: event.kind,
    visitor,
    session: event.session,
    page: event.page,
    device: event.device,
    campaign: event.campaign ?? null,
    version: event.version ?? null,
    closedBy: event.closedBy ?? null,
  };
}

/** Reads answers as the form asks for them. What a page claims about its own form is never believed. */
function readAnswers(form: FormBlock, given: Readonly<Record<string, string>>, consent: boolean) {
  const wrong: { path: string; message: string }[] = [];
  const known = new Set(form.fields.map((field) => field.id));
  for (const id of Object.keys(given)) {
    if (!known.has(id)) wrong.push({ path: `fields.${id}`, message: 'This form has no such field.' });
  }
  const answers = form.fields.flatMap((field) => {
    const value = (given[field.id] ?? '').trim();
    if (value === '') {
      if (field.required)
        wrong.push({ path: `fields.${field.id}`, message: `${field.label}: please fill this in.` });
      return [];
    }
    if (field.kind === 'email' && !mailAddressSchema.safeParse(value).success) {
      wrong.push({
        path: `fields.${field.id}`,
        message: `${field.label}: please write it as name@example.org.`,
      });
    }
    return [{ label: field.label, value }];
  });
  if (form.consentText && !consent)
    wrong.push({ path: 'consent', message: 'Please tick the consent to go on.' });
  const [first] = wrong;
  if (first)
    throw new ProblemError(422, 'invalid-input', 'Something in this is not right', first.message, wrong);
  return answers;
}
