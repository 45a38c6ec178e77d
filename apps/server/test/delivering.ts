import type {
  Answer,
  Campaign,
  Delivery,
  DeliveryPage,
  FollowUp,
  MailDraft,
  SaveConnection,
  ShownSecret,
} from '@velarium/contract';
import { afterAll, beforeAll, beforeEach, expect, vi } from 'vitest';
import { createMailbox, createReceiver } from './receivers.ts';
import {
  BROWSER,
  createCampaign,
  createTestServer,
  createWorkspace,
  eventId,
  type Member,
  ORIGIN,
  randomVisitor,
  type TestServer,
} from './server.ts';

// What the tests of deliveries share: a server that sends, a mailbox, a receiver, and a campaign whose form is answered.

export let server: TestServer;
export let mailbox: Awaited<ReturnType<typeof createMailbox>>;
export let receiver: Awaited<ReturnType<typeof createReceiver>>;
let sending: { stop(): Promise<void> };
export let owner: Member;
export let campaign: Campaign;
export let form: string;

/** Registers what each file of these tests begins and ends with. */
export function sharesDeliveries(): void {
  beforeAll(async () => {
    mailbox = await createMailbox();
    receiver = await createReceiver();
    server = await createTestServer({
      ownMailbox: { server: `127.0.0.1:${mailbox.port}`, from: 'letters@quillonfell.example' },
    });
    sending = server.services.deliveries.startSending();
  });
  afterAll(async () => {
    await sending.stop();
    await server.close();
    await mailbox.close();
    await receiver.close();
  });
  beforeEach(async () => {
    mailbox.mails.length = 0;
    mailbox.refuse(null);
    receiver.calls.length = 0;
    receiver.answer({ status: 202 });
    owner = await createWorkspace(server);
    campaign = await createCampaign(owner);
    await owner.publish(campaign.id);
    form =
      campaign.document.message.steps.flatMap(({ blocks }) => blocks).find(({ kind }) => kind === 'form')
        ?.id ?? '';
  });
}

/** Where a mail to somebody leads, the `nth` that came to them. */
export async function linkTo(address: string, nth = 1): Promise<URL> {
  const mails = () => mailbox.mails.filter(({ to }) => to.includes(address));
  await vi.waitFor(() => expect(mails().length).toBeGreaterThanOrEqual(nth), { timeout: 8000, interval: 40 });
  const text = mails()[nth - 1]?.mail.text ?? '';
  return new URL(/https:\/\/studio\.example\/\S+/.exec(text)?.[0] ?? '');
}
export const tokenOf = (link: URL): string => link.searchParams.get('token') ?? '';

export const mail = (subject: string, more: Partial<MailDraft> = {}): MailDraft => ({
  subject,
  preview: 'Clear skies',
  heading: 'Hello {{answer.email|you}}',
  text: [[{ text: 'The dome is open on ' }, { text: 'Friday', bold: true }, { text: '.' }]],
  picture: null,
  button: { label: 'See the dates', address: 'https://quillonfell.example/dates' },
  ...more,
});

export const follow = (followUp: Partial<FollowUp>) =>
  owner.ask('PUT', `/campaigns/${campaign.id}/follow-ups/${form}`, {
    confirmation: null,
    welcome: [],
    notice: null,
    ...followUp,
  });

export async function answer(
  email: string,
  { version = 1, ...more }: { readonly version?: number; readonly [name: string]: unknown } = {},
): Promise<string> {
  const id = eventId();
  const response = await server.edge.inject({
    method: 'POST',
    url: '/submit',
    headers: { origin: ORIGIN, 'content-type': 'text/plain', 'user-agent': BROWSER },
    payload: JSON.stringify({
      site: owner.siteKey,
      visitor: randomVisitor(),
      event: {
        id,
        kind: 'converted',
        session: eventId(),
        page: '/tours',
        device: 'desktop',
        campaign: campaign.id,
        version,
      },
      showing: eventId(Date.now() - 20_000),
      fields: { email },
      consent: true,
      ...more,
    }),
  });
  expect(response.statusCode, response.body).toBe(204);
  return id;
}

export const site = (path: string) => `/sites/${owner.siteId}/${path}`;
export const outbox = async (query = ''): Promise<readonly Delivery[]> =>
  (await owner.ask('GET', site(`deliveries${query}`))).json<DeliveryPage>().deliveries;
export const answers = async (query = ''): Promise<readonly Answer[]> =>
  (await owner.ask('GET', site(`answers${query}`))).json().answers;
/** As soon as something holds; the worker looks several times a second. */
export const soon = (check: () => unknown) => vi.waitFor(check, { timeout: 8000, interval: 40 });
/** Lets the time come at which what failed is tried again. */
export const hurry = () =>
  server.db.query(
    `UPDATE delivery SET due_at = now() WHERE site_id = $1 AND state IN ('waiting', 'retrying')`,
    [owner.siteId],
  );

export const connect = async (settings: Partial<SaveConnection> = {}): Promise<ShownSecret> =>
  (
    await owner.ask('POST', site('connections'), {
      kind: 'events',
      name: 'Records',
      address: receiver.address,
      events: ['answer.stored', 'person.confirmed', 'person.left', 'person.erased'],
      campaigns: null,
      ...settings,
    })
  ).json<ShownSecret>();

/** A receiver in the place of one that must not keep the worker busy any longer. */
export async function renewReceiver(): Promise<void> {
  await receiver.close();
  receiver = await createReceiver();
}
