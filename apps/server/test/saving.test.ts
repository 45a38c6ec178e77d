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

/** Versions of a campaign as they were published, the first first, with what was said of each. */
const launchesOf = async (id: string): Promise<(readonly [version: number, note: string])[]> =>
  (
    await server.db.query(
      "SELECT version, note FROM campaign_move WHERE campaign_id = $1 AND what = 'published' ORDER BY at",
      [id],
    )
  ).map((move: { version: number; note: string }) => [move.version, move.note]);

it('a launch that comes again, since its answer was lost, is the same launch', async () => {
  const { id, document, revision } = await createCampaign(owner);
  const saved = await owner.ask('PUT', `/campaigns/${id}/draft`, {
    revision,
    document: onPages(document, '/a'),
  });
  const launched = saved.json<Campaign>().revision;
  const launch = (note: string) =>
    owner.ask('POST', `/campaigns/${id}/publish`, { revision: launched, note });
  const answers = [...(await Promise.all([launch('First'), launch('First')])), await launch('First')];
  expect(answers.map(({ statusCode }) => statusCode)).toEqual([200, 200, 200]);
  expect(await launchesOf(id)).toEqual([[1, 'First']]);
  // With other words, long after, or once it has rested, it is another, be it that it runs again.
  await launch('Again');
  await server.db.query("UPDATE campaign_move SET at = at - interval '11 minutes' WHERE campaign_id = $1", [
    id,
  ]);
  await launch('Again');
  await owner.ask('POST', `/campaigns/${id}/rest`);
  await owner.ask('POST', `/campaigns/${id}/run`);
  await launch('Again');
  expect(await launchesOf(id)).toEqual([
    [1, 'First'],
    [2, 'Again'],
    [3, 'Again'],
    [4, 'Again'],
  ]);
});

it('what is launched together, and a version of before, are launched once however often their answer is lost', async () => {
  const first = await createCampaign(owner);
  const second = await createCampaign(owner);
  const together = () =>
    owner.ask('POST', `/sites/${owner.siteId}/launches`, {
      campaigns: [first, second].map(({ id, revision }) => ({ id, revision })),
      note: 'Both',
    });
  const both = [...(await Promise.all([together(), together()])), await together()];
  expect(both.map(({ statusCode }) => statusCode)).toEqual([204, 204, 204]);
  for (const { id } of [first, second]) expect(await launchesOf(id)).toEqual([[1, 'Both']]);

  const { id, document, revision } = first;
  const changed = await owner.ask('PUT', `/campaigns/${id}/draft`, {
    revision,
    document: onPages(document, '/a'),
  });
  await owner.ask('POST', `/campaigns/${id}/publish`, {
    revision: changed.json<Campaign>().revision,
    note: 'Elsewhere',
  });
  const back = () => owner.ask('POST', `/campaigns/${id}/versions/1/publish`, { note: '' });
  const again = [...(await Promise.all([back(), back()])), await back()];
  expect(again.map(({ statusCode }) => statusCode)).toEqual([200, 200, 200]);
  expect(await launchesOf(id)).toEqual([
    [1, 'Both'],
    [2, 'Elsewhere'],
    [3, 'Version 1 again'],
  ]);
});

it('a draft that was changed and changed back is published by the launch that made no second version of it', async () => {
  const { id, document, revision } = await createCampaign(owner);
  const save = async (at: number, address: string) =>
    (
      await owner.ask('PUT', `/campaigns/${id}/draft`, {
        revision: at,
        document: onPages(document, address),
      })
    ).json<Campaign>().revision;
  const launch = (of: number) => owner.ask('POST', `/campaigns/${id}/publish`, { revision: of, note: '' });
  const first = await save(revision, '/a');
  await launch(first);
  const back = await save(await save(first, '/b'), '/a');
  expect((await launch(back)).statusCode).toBe(200);
  expect(await launchesOf(id)).toEqual([[1, '']]);
  const [row] = await server.db.query('SELECT published_revision AS published FROM campaign WHERE id = $1', [
    id,
  ]);
  expect(row.published).toBe(back);
});
