import type { Campaign } from '@velarium/contract';
import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest';
import {
  createCampaign,
  createTestServer,
  createWorkspace,
  type Member,
  onPages,
  type TestServer,
} from './server.ts';

let server: TestServer;
let owner: Member;
beforeAll(async () => {
  server = await createTestServer();
});
beforeEach(async () => {
  owner = await createWorkspace(server);
});
afterAll(() => server.close());

it('a save on an older revision is refused and loses nothing', async () => {
  const campaign = await createCampaign(owner);
  const save = (address: string) =>
    owner.ask('PUT', `/campaigns/${campaign.id}/draft`, {
      revision: campaign.revision,
      document: onPages(campaign.document, address),
    });
  const [first, second] = await Promise.all([save('/a'), save('/b')]);
  expect([first.statusCode, second.statusCode].sort()).toEqual([200, 409]);
  const winner = first.statusCode === 200 ? '/a' : '/b';
  const now = (await owner.ask('GET', `/campaigns/${campaign.id}`)).json<Campaign>();
  expect(now.document.rule.reach.pages.include).toEqual([{ kind: 'exact', address: winner }]);
  expect(now.revision).toBe(campaign.revision + 1);
  const revisions = await server.db.query(
    'SELECT revision FROM campaign_revision WHERE campaign_id = $1 ORDER BY 1',
    [campaign.id],
  );
  expect(revisions).toHaveLength(3);
});

it('a save that comes again, since its answer was lost, is the same save', async () => {
  const campaign = await createCampaign(owner);
  const { revision } = campaign;
  const save = (address: string) =>
    owner.ask('PUT', `/campaigns/${campaign.id}/draft`, {
      revision,
      document: onPages(campaign.document, address),
    });
  const answers = [...(await Promise.all([save('/a'), save('/a')])), await save('/a')];
  expect(answers.map((answer) => [answer.statusCode, answer.json().revision])).toEqual(
    answers.map(() => [200, revision + 1]),
  );
  const [kept] = await server.db.query(
    'SELECT count(*)::int AS count FROM campaign_revision WHERE campaign_id = $1 AND revision > $2',
    [campaign.id, revision],
  );
  expect(kept).toEqual({ count: 1 });
  // What says something else is not.
  expect((await save('/b')).statusCode).toBe(409);
});
