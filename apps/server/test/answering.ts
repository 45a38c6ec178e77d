import type { Answer, AnswerCounts, AnswerPage, Campaign } from '@velarium/contract';
import { afterAll, beforeAll, beforeEach, expect } from 'vitest';
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

// What the tests of people share: a server, and a campaign whose form is answered.

export let server: TestServer;
export let owner: Member;
export let campaign: Campaign;

/** Registers what each file of these tests begins and ends with. */
export function sharesAnswering(): void {
  beforeAll(async () => {
    server = await createTestServer();
  });
  afterAll(() => server.close());
  beforeEach(async () => {
    owner = await createWorkspace(server);
    campaign = await createCampaign(owner);
    await owner.publish(campaign.id);
  });
}

export interface Sent {
  readonly id?: string;
  readonly visitor?: string;
  readonly shownAgoMs?: number | null;
  readonly unseen?: string;
  readonly address?: string;
}
export async function answer(
  email: string,
  { id = eventId(), shownAgoMs = 9000, ...sent }: Sent = {},
): Promise<string> {
  const response = await server.edge.inject({
    method: 'POST',
    url: '/submit',
    remoteAddress: sent.address ?? '203.0.113.9',
    headers: { origin: ORIGIN, 'content-type': 'text/plain', 'user-agent': BROWSER },
    payload: JSON.stringify({
      site: owner.siteKey,
      visitor: sent.visitor ?? randomVisitor(),
      event: {
        id,
        kind: 'converted',
        session: eventId(),
        page: '/tours',
        device: 'mobile',
        campaign: campaign.id,
        version: 1,
      },
      ...(shownAgoMs === null ? {} : { showing: eventId(Date.now() - shownAgoMs) }),
      ...(sent.unseen ? { unseen: sent.unseen } : {}),
      fields: { email },
      consent: true,
    }),
  });
  expect(response.statusCode, response.body).toBe(204);
  return id;
}
export const site = (path: string) => `/sites/${owner.siteId}/${path}`;
export const list = async (query = ''): Promise<readonly Answer[]> =>
  (await owner.ask('GET', site(`answers${query}`))).json<AnswerPage>().answers;
export const counts = async (query = '') =>
  (await owner.ask('GET', site(`answers/counts${query}`))).json<AnswerCounts>();
