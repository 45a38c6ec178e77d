import { spawn } from 'node:child_process';
import type { Campaign, Cast, KeptRehearsal, Rehearsal, Rehearsed, Site } from '@velarium/contract';
import { beginPage, beginRehearsal } from '@velarium/core';
import { afterAll, beforeAll, beforeEach, describe, expect, it, test } from 'vitest';
import {
  addColleague,
  createCampaign,
  createTestServer,
  createWorkspace,
  type Member,
  onPages,
  type TestServer,
} from './server.ts';

let server: TestServer;
let owner: Member;
let campaign: Campaign;
beforeAll(async () => {
  server = await createTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  owner = await createWorkspace(server);
  const made = await createCampaign(owner);
  const draft = onPages(made.document, '/tours');
  const timed = { ...draft.rule.moment, triggers: [{ kind: 'time' as const, seconds: 5 }] };
  campaign = (
    await owner.ask('PUT', `/campaigns/${made.id}/draft`, {
      revision: made.revision,
      document: { ...draft, rule: { ...draft.rule, moment: timed } },
    })
  ).json();
  await owner.publish(campaign.id);
});

const at = (path: string) => `/sites/${owner.siteId}/${path}`;
const visit = (expectations: Rehearsal['expectations'] = []): Rehearsal => ({
  ...beginRehearsal(beginPage('/tours'), '2026-11-25T20:00'),
  expectations,
});
const opensBy = (bySecond: number) => ({ kind: 'opens', campaign: campaign.id, page: 0, bySecond }) as const;

it('what must hold is kept, and asked of what runs and of a draft among what runs', async () => {
  const kept = (
    await owner.ask('POST', at('rehearsals'), { name: 'A first visit', rehearsal: visit([opensBy(10)]) })
  ).json<KeptRehearsal>();
  expect((await owner.ask('GET', at('rehearsals'))).json()).toMatchObject([
    { id: kept.id, name: 'A first visit' },
  ]);
  const played = async (of: string) =>
    (await owner.ask('GET', at(`rehearsals/played?of=${of}`))).json<Rehearsed[]>()[0]?.expectations[0];
  expect(await played('live')).toMatchObject({ holds: true, why: '' });
  // A draft that would break it is seen before it is published.
  const { document } = campaign;
  const late = { ...document.rule.moment, triggers: [{ kind: 'time' as const, seconds: 12 }] };
  await owner.ask('PUT', `/campaigns/${campaign.id}/draft`, {
    revision: (await owner.ask('GET', `/campaigns/${campaign.id}`)).json<Campaign>().revision,
    document: { ...document, rule: { ...document.rule, moment: late } },
  });
  expect(await played('live')).toMatchObject({ holds: true });
  expect(await played(campaign.id)).toMatchObject({ holds: false, why: 'It opens only at 0:12.' });
  expect(await played('drafts')).toMatchObject({ holds: false });
  await owner.ask('POST', `/campaigns/${campaign.id}/rest`);
  expect(await played('live')).toMatchObject({
    holds: false,
    why: expect.stringContaining('not among the campaigns'),
  });
});

it('one that fails says since when, and what is otherwise: a rule, who runs, the site’s limits, the visit itself', async () => {
  const body = { name: 'A first visit', rehearsal: visit([opensBy(10)]) };
  const kept = (await owner.ask('POST', at('rehearsals'), body)).json<KeptRehearsal>();
  const since = async (of = 'live') =>
    (await owner.ask('GET', at(`rehearsals/played?of=${of}`))).json<Rehearsed[]>()[0]?.since;
  const publishAt = async (seconds: number) => {
    const { document, revision } = (await owner.ask('GET', `/campaigns/${campaign.id}`)).json<Campaign>();
    const moment = { ...document.rule.moment, triggers: [{ kind: 'time' as const, seconds }] };
    await owner.ask('PUT', `/campaigns/${campaign.id}/draft`, {
      revision,
      document: { ...document, rule: { ...document.rule, moment } },
    });
    await owner.publish(campaign.id);
  };
  // Nobody has seen it hold yet: of a draft that is asked nothing is noted.
  await publishAt(12);
  expect(await since('drafts')).toBeNull();
  expect(await since()).toBeNull();
  await publishAt(5);
  expect(await since()).toBeNull();
  await publishAt(14);
  const first = await since();
  expect(first?.changes).toEqual([`“${campaign.name}”: “after 5 seconds” has become “after 14 seconds”.`]);
  expect(Date.now() - Date.parse(first?.heldAt ?? '')).toBeLessThan(60_000);
  // It stands as long as it fails, and gathers what comes.
  const [site] = (await owner.ask('GET', '/sites')).json<Site[]>();
  await owner.ask('PUT', at('settings'), {
    ...site?.settings,
    limits: { ...site?.settings.limits, perSession: 1 },
  });
  await owner.ask('PUT', at(`rehearsals/${kept.id}`), { ...body, rehearsal: visit([opensBy(9)]) });
  expect(await since()).toMatchObject({
    heldAt: first?.heldAt,
    changes: [
      'The visit, or what is expected of it, has been changed.',
      expect.stringContaining('“after 14 seconds”'),
      expect.stringMatching(/^The site’s limits: .* has become .*1 in a session/),
    ],
  });
  await owner.ask('POST', `/campaigns/${campaign.id}/rest`);
  expect((await since())?.changes).toContain(`“${campaign.name}” is no longer among them.`);
});

it('a draft is cast under another rule among those that run, and nothing of it is kept', async () => {
  const other = await createCampaign(owner);
  const { rule } = campaign.document;
  const late = { ...rule, moment: { ...rule.moment, triggers: [{ kind: 'time' as const, seconds: 12 }] } };
  const castWith = (of: string, asked: object) => owner.ask('POST', at('cast'), { of, rule: asked });
  const momentsOf = (cast: Cast) =>
    Object.fromEntries(cast.manifest.campaigns.map(({ id, moment }) => [id, moment.triggers]));
  const five = [{ kind: 'time', seconds: 5 }];
  const twelve = [{ kind: 'time', seconds: 12 }];
  expect(momentsOf((await castWith(campaign.id, late)).json())).toEqual({ [campaign.id]: twelve });
  expect(momentsOf((await castWith(other.id, late)).json())).toEqual({
    [campaign.id]: five,
    [other.id]: twelve,
  });
  expect((await owner.ask('GET', `/campaigns/${campaign.id}`)).json<Campaign>().document.rule).toEqual(rule);
  expect((await castWith(campaign.id, { ...late, reach: null })).statusCode).toBe(422);
  await owner.ask('POST', `/campaigns/${other.id}/archive`);
  expect((await castWith(other.id, late)).statusCode).toBe(404);
});
it('a cast names its campaigns: those that run, or every draft', async () => {
  const other = await createCampaign(owner);
  const cast = async (of: string) => (await owner.ask('GET', at(`cast?of=${of}`))).json<Cast>();
  expect((await cast('live')).campaigns.map(({ id }) => id)).toEqual([campaign.id]);
  expect((await cast('drafts')).campaigns.map(({ id }) => id).sort()).toEqual([campaign.id, other.id].sort());
  expect((await cast(other.id)).manifest.campaigns).toHaveLength(2);
});

test.each<[string, (rehearsal: Rehearsal) => object]>([
  ['no page', (rehearsal) => ({ ...rehearsal, pages: [] })],
  ['a form of a newer Velarium', (rehearsal) => ({ ...rehearsal, form: 2 })],
  [
    'a day without a time',
    (rehearsal) => ({ ...rehearsal, visitor: { ...rehearsal.visitor, begins: '2026-11-25' } }),
  ],
  [
    'a day there is none of',
    (rehearsal) => ({ ...rehearsal, visitor: { ...rehearsal.visitor, begins: '2026-13-01T25:00' } }),
  ],
  ['five hours', (rehearsal) => ({ ...rehearsal, pages: Array(5).fill(beginPage('/', { seconds: 3600 })) })],
  ['a page elsewhere', (rehearsal) => ({ ...rehearsal, pages: [beginPage('https://x.example/')] })],
])('a visit of %s is refused', async (_what, change) => {
  const body = { name: 'V', rehearsal: change(visit()) };
  expect((await owner.ask('POST', at('rehearsals'), body)).statusCode).toBe(422);
});

it('is named once, changed and removed by editors, and read by viewers', async () => {
  const body = { name: 'V', rehearsal: visit() };
  const { id } = (await owner.ask('POST', at('rehearsals'), body)).json<KeptRehearsal>();
  expect((await owner.ask('POST', at('rehearsals'), body)).json()).toMatchObject({ code: 'name-taken' });
  expect((await owner.ask('PUT', at(`rehearsals/${id}`), { ...body, name: 'W' })).json()).toMatchObject({
    name: 'W',
  });
  const twice = await Promise.all([1, 2].map(() => owner.ask('POST', at('rehearsals'), body)));
  expect(twice.map(({ statusCode }) => statusCode).sort()).toEqual([201, 409]);
  const viewer = await addColleague(server, owner, 'viewer');
  expect((await viewer.ask('GET', at('rehearsals'))).json()).toHaveLength(2);
  expect((await viewer.ask('POST', at('rehearsals'), body)).statusCode).toBe(403);
  expect((await viewer.ask('DELETE', at(`rehearsals/${id}`))).statusCode).toBe(403);
  expect((await owner.ask('DELETE', at(`rehearsals/${id}`))).statusCode).toBe(204);
  expect((await owner.ask('DELETE', at(`rehearsals/${id}`))).statusCode).toBe(404);
});

describe('a site’s own build', () => {
  const keyFor = async (reads: 'people' | 'rehearsals'): Promise<string> =>
    (await owner.ask('POST', '/tokens', { name: 'Build', siteId: owner.siteId, reads })).json().secret;
  const keep = (name: string, ...expectations: Rehearsal['expectations']) =>
    owner.ask('POST', at('rehearsals'), { name, rehearsal: visit(expectations) });
  const outcome = async (key: string, of = 'live') =>
    server.studio.inject({
      url: `/api${at(`rehearsals/outcome?of=${of}`)}`,
      headers: { authorization: `Bearer ${key}` },
    });

  it('reads with a key whether everything holds, and nothing else with it', async () => {
    const key = await keyFor('rehearsals');
    expect((await outcome(key)).json()).toEqual({ exitCode: 0, asked: 0, failing: [] });
    await keep('Nothing asked');
    await keep('In time', opensBy(10));
    expect((await outcome(key)).json()).toEqual({ exitCode: 0, asked: 1, failing: [] });
    await keep('Too soon', opensBy(10), opensBy(2));
    expect((await outcome(key)).json()).toEqual({
      exitCode: 1,
      asked: 2,
      failing: [
        {
          name: 'Too soon',
          expectations: [{ words: expect.stringContaining('0:02'), why: 'It opens only at 0:05.' }],
        },
      ],
    });
    expect((await outcome(await keyFor('people'))).statusCode).toBe(403);
    for (const other of ['rehearsals', 'rehearsals/played', 'answers', 'cast'])
      expect(
        (
          await server.studio.inject({
            url: `/api${at(other)}`,
            headers: { authorization: `Bearer ${key}` },
          })
        ).statusCode,
        other,
      ).toBe(403);
    expect((await owner.ask('POST', '/tokens', { name: 'x', siteId: null, reads: 'all' })).statusCode).toBe(
      422,
    );
  });

  it('asks by a script that ends as it should, and says what does not hold', async () => {
    const origin = await server.studio.listen({ port: 0, host: '127.0.0.1' });
    const run = (key: string | undefined, ...given: string[]) =>
      new Promise<{ code: number | null; said: string }>((resolve) => {
        const { VELARIUM_KEY: _, ...env } = process.env;
        const child = spawn('node', ['scripts/rehearse.mjs', ...given], {
          env: { ...env, ...(key ? { VELARIUM_KEY: key } : {}) },
        });
        let said = '';
        for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => (said += text));
        child.on('exit', (code) => resolve({ code, said }));
      });
    const key = await keyFor('rehearsals');
    await keep('In time', opensBy(10));
    expect(await run(key, origin, owner.siteId)).toEqual({ code: 0, said: '1 of 1 rehearsals hold.\n' });
    await keep('Too soon', opensBy(2));
    const late = await run(key, origin, owner.siteId, 'live');
    expect(late.code).toBe(1);
    expect(late.said).toMatch(
      /^✗ Too soon\n {4}.*0:02.* It opens only at 0:05\.\n1 of 2 rehearsals hold\.\n$/s,
    );
    expect(await run('velarium_wrong', origin, owner.siteId)).toEqual({
      code: 2,
      said: 'Nothing was rehearsed: Not this key. The key is unknown, or was taken back.\n',
    });
    expect((await run(key, 'http://127.0.0.1:9', owner.siteId)).code).toBe(2);
    expect((await run(undefined, origin, owner.siteId)).said).toContain('VELARIUM_KEY is not set');
    expect((await run(key)).said).toContain('Usage');
  });
});

it('whatever changes what runs has the rehearsals played by the worker, so that it is known when they last held', async () => {
  const asked = async () =>
    (
      await server.db.query(`SELECT data FROM job.job WHERE name = 'rehearse' AND data ->> 'siteId' = $1`, [
        owner.siteId,
      ])
    ).map(({ data }: { data: object }) => data);
  const move = (what: string) => owner.ask('POST', `/campaigns/${campaign.id}/${what}`);
  await move('rest');
  // Nothing is kept that could be asked.
  expect(await asked()).toEqual([]);
  const { id } = (
    await owner.ask('POST', at('rehearsals'), { name: 'First', rehearsal: visit([opensBy(10)]) })
  ).json<KeptRehearsal>();
  const data = { workspaceId: owner.workspaceId, siteId: owner.siteId };
  await move('run');
  await owner.publish(campaign.id);
  expect(await asked()).toEqual([data, data]);
  const [site] = (await owner.ask('GET', '/sites')).json<Site[]>();
  const limit = (perSession: number) =>
    owner.ask('PUT', at('settings'), {
      ...site?.settings,
      limits: { ...site?.settings.limits, perSession },
    });
  await limit(2);
  expect(await asked()).toHaveLength(3);
  // What has not changed need not be played again.
  await limit(2);
  expect(await asked()).toHaveLength(3);
  const group = { name: 'Tours', rules: [{ kind: 'exact', address: '/tours' }] };
  const { id: groupId } = (await owner.ask('POST', at('groups'), group)).json<{ id: string }>();
  const now = (await owner.ask('GET', `/campaigns/${campaign.id}`)).json<Campaign>();
  const { rule } = now.document;
  const pages = { ...rule.reach.pages, include: [{ kind: 'group', id: groupId }] };
  await owner.ask('PUT', `/campaigns/${campaign.id}/draft`, {
    revision: now.revision,
    document: { ...now.document, rule: { ...rule, reach: { ...rule.reach, pages } } },
  });
  await owner.publish(campaign.id);
  expect(await asked()).toHaveLength(4);
  await owner.ask('PUT', at(`groups/${groupId}`), { ...group, rules: [{ kind: 'every' }] });
  expect(await asked()).toHaveLength(5);

  const heldAt = async () =>
    (await server.db.query('SELECT held_at AS at FROM rehearsal WHERE id = $1', [id]))[0]?.at;
  expect(await heldAt()).toBeNull();
  await server.services.jobs.work('rehearse', async ({ workspaceId, siteId }) => {
    await server.services.rehearsals.rehearse(workspaceId, siteId, 'live');
  });
  await expect.poll(heldAt, { timeout: 10_000 }).not.toBeNull();
});
