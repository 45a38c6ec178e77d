import {
  type ArrivedCampaign,
  type Campaign,
  type CampaignFile,
  type CampaignSummary,
  campaignFileSchema,
} from '@velarium/contract';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
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

const manifest = () => server.manifestOf(owner.siteKey);
const move = (campaign: Pick<Campaign, 'id'>, name: string) =>
  owner.ask('POST', `/campaigns/${campaign.id}/${name}`);

describe('drafts', () => {
  it.each<[what: string, change: (campaign: Campaign) => object, path: string]>([
    [
      'a colour that is none',
      ({ document }) => ({
        ...document,
        message: { ...document.message, palette: { ...document.message.palette, ink: 'red;}' } },
      }),
      'document.message.palette.ink',
    ],
    [
      'a link to a script',
      ({ document }) => ({
        ...document,
        message: {
          ...document.message,
          steps: [
            {
              id: 'first',
              role: 'first',
              blocks: [
                {
                  id: 'b',
                  kind: 'button',
                  label: 'x',
                  action: { kind: 'link', address: 'javascript:alert(1)', newTab: false },
                },
              ],
            },
          ],
        },
      }),
      'document.message.steps.0.blocks.0.action.address',
    ],
    ['an unknown field', ({ document }) => ({ ...document, extra: 1 }), 'document'],
    [
      'a negative delay',
      ({ document }) => ({
        ...document,
        rule: {
          ...document.rule,
          moment: { ...document.rule.moment, triggers: [{ kind: 'time', seconds: -1 }] },
        },
      }),
      'document.rule.moment.triggers.0.seconds',
    ],
  ])('%s is refused with its place', async (_what, change, path) => {
    const campaign = await createCampaign(owner);
    const response = await owner.ask('PUT', `/campaigns/${campaign.id}/draft`, {
      revision: campaign.revision,
      document: change(campaign),
    });
    expect(response.statusCode).toBe(422);
    expect(response.json().fields.map((field: { path: string }) => field.path)).toContain(path);
  });

  it('a pattern that could hang a visitor’s page is refused when it is saved, with the reason', async () => {
    const campaign = await createCampaign(owner);
    const { rule } = campaign.document;
    const pages = { include: [{ kind: 'regex', pattern: '(a)\\1' }], exclude: [], follows: null };
    const document = { ...campaign.document, rule: { ...rule, reach: { ...rule.reach, pages } } };
    const response = await owner.ask('PUT', `/campaigns/${campaign.id}/draft`, {
      revision: campaign.revision,
      document,
    });
    expect(response.json()).toMatchObject({
      status: 422,
      fields: [
        {
          path: 'document.rule.reach.pages.include.0.pattern',
          message: expect.stringContaining('cannot be used'),
        },
      ],
    });
  });

  it('an unknown template is refused', async () => {
    const response = await owner.ask('POST', `/sites/${owner.siteId}/campaigns`, {
      name: 'A',
      template: 'none',
    });
    expect(response.json()).toMatchObject({ status: 422, fields: [{ path: 'template' }] });
  });
});

describe('publishing', () => {
  it('puts the compiled rule into the manifest and the message under its hash', async () => {
    const campaign = await createCampaign(owner);
    const published = await owner.publish(campaign.id);
    expect(published.json()).toMatchObject({ state: 'running', hasUnpublishedChanges: false });
    const [live] = (await manifest()).campaigns;
    expect(live).toMatchObject({
      id: campaign.id,
      version: 1,
      includeKeys: ['/tours'],
      devices: 3,
    });
    const message = await server.edge.inject({ url: `/tag/${owner.siteKey}/messages/${live?.message}.json` });
    expect(message.json()).toMatchObject({
      message: campaign.document.message,
      sheet: expect.stringContaining(':host'),
    });
    expect(message.headers['cache-control']).toContain('immutable');
  });

  it('publishes the draft that was looked at, or nothing', async () => {
    const campaign = await createCampaign(owner);
    const publish = (revision: number) =>
      owner.ask('POST', `/campaigns/${campaign.id}/publish`, { revision });
    // Somebody else saves between the look and the press.
    await owner.ask('PUT', `/campaigns/${campaign.id}/draft`, {
      revision: campaign.revision,
      document: onPages(campaign.document, '/new'),
    });
    const refused = await publish(campaign.revision);
    expect(refused.json()).toMatchObject({ status: 409, title: 'Changed since you opened it' });
    expect((await manifest()).campaigns).toEqual([]);
    expect((await publish(campaign.revision + 1)).statusCode).toBe(200);
    expect((await manifest()).campaigns[0]?.includeKeys).toEqual(['/new']);
    // Who does not say what they looked at publishes nothing.
    for (const body of [{ revision: -1 }, {}, undefined])
      expect((await owner.ask('POST', `/campaigns/${campaign.id}/publish`, body)).statusCode).toBe(422);
  });

  it('an edit of a running campaign is not seen until it is published', async () => {
    const campaign = await createCampaign(owner);
    await owner.publish(campaign.id);
    const edited = (
      await owner.ask('PUT', `/campaigns/${campaign.id}/draft`, {
        revision: campaign.revision,
        document: onPages(campaign.document, '/new'),
      })
    ).json<Campaign>();
    expect(edited.hasUnpublishedChanges).toBe(true);
    expect((await manifest()).campaigns[0]?.includeKeys).toEqual(['/tours']);
    await owner.publish(campaign.id);
    expect((await manifest()).campaigns[0]).toMatchObject({ includeKeys: ['/new'], version: 2 });
  });

  it('rested it leaves the manifest, run again it is back with the same version', async () => {
    const campaign = await createCampaign(owner);
    await owner.publish(campaign.id);
    await move(campaign, 'rest');
    expect((await manifest()).campaigns).toEqual([]);
    await move(campaign, 'run');
    expect((await manifest()).campaigns[0]).toMatchObject({ id: campaign.id, version: 1 });
  });

  it('an archive takes it away and its undo brings back what it was', async () => {
    const campaign = await createCampaign(owner);
    await owner.publish(campaign.id);
    await move(campaign, 'archive');
    expect((await manifest()).campaigns).toEqual([]);
    expect((await move(campaign, 'restore')).json().state).toBe('running');
    expect((await manifest()).campaigns).toHaveLength(1);
  });

  it('one whose start is to come is scheduled, one whose end is past has ended, and both can rest', async () => {
    const dated = async (change: object) => {
      const campaign = await createCampaign(owner);
      const { rule } = campaign.document;
      const schedule = {
        zone: 'site',
        start: null,
        end: null,
        days: [],
        hours: [],
        blackouts: [],
        ...change,
      };
      const document = { ...campaign.document, rule: { ...rule, limits: { ...rule.limits, schedule } } };
      await owner.ask('PUT', `/campaigns/${campaign.id}/draft`, { revision: campaign.revision, document });
      return (await owner.publish(campaign.id)).json<Campaign>();
    };
    const scheduled = await dated({ start: '2099-06-01T09:00' });
    const running = await dated({ end: '2099-01-01T00:00' });
    expect(running).toMatchObject({ state: 'running', nextChangeAt: '2099-01-01T00:00:00.000Z' });
    // Years go by.
    await server.db.query(
      `UPDATE campaign_version SET document = jsonb_set(document, '{rule,limits,schedule,end}', '"2020-01-01T00:00"')
        WHERE campaign_id = $1`,
      [running.id],
    );
    const ended = (await owner.ask('GET', `/campaigns/${running.id}`)).json<Campaign>();
    expect(scheduled).toMatchObject({ state: 'scheduled', nextChangeAt: '2099-06-01T08:00:00.000Z' });
    expect(ended).toMatchObject({ state: 'ended', nextChangeAt: null });
    // What is over cannot be published: nobody would meet it.
    expect(await dated({ end: '2020-01-01T00:00' })).toMatchObject({
      status: 422,
      detail: 'Its schedule is over. Choose a later end, or none.',
    });
    expect((await move(scheduled, 'rest')).json()).toMatchObject({ state: 'resting', nextChangeAt: null });
  });

  it('what would open nowhere is refused, with the part to mend', async () => {
    const campaign = await createCampaign(owner);
    const document = onPages(campaign.document);
    await owner.ask('PUT', `/campaigns/${campaign.id}/draft`, { revision: campaign.revision, document });
    const response = await owner.publish(campaign.id);
    expect(response.json()).toMatchObject({
      status: 422,
      code: 'not-launchable',
      fields: [{ path: 'pages' }],
    });
  });

  it.each([
    ['run', 'draft'],
    ['rest', 'draft'],
    ['restore', 'draft'],
  ])('%s of a %s is refused with words', async (name) => {
    expect((await move(await createCampaign(owner), name)).json()).toMatchObject({
      status: 409,
      code: 'wrong-state',
    });
  });

  it('campaigns published at the same moment are all in the manifest', async () => {
    const campaigns = await Promise.all(Array.from({ length: 6 }, () => createCampaign(owner)));
    await Promise.all(campaigns.map((campaign) => owner.publish(campaign.id)));
    expect((await manifest()).campaigns).toHaveLength(6);
  });

  it('a duplicate is a draft of its own with the same document', async () => {
    const campaign = await createCampaign(owner);
    await owner.publish(campaign.id);
    const copy = (await move(campaign, 'duplicate')).json<Campaign>();
    expect(copy).toMatchObject({
      name: 'Campaign, copy',
      state: 'draft',
      document: campaign.document,
      publishedAt: null,
    });
    expect(copy.id).not.toBe(campaign.id);
  });
});

describe('a campaign travels', () => {
  const labelled = async () => {
    const campaign = await createCampaign(owner);
    await owner.ask('PATCH', `/campaigns/${campaign.id}`, { labels: ['autumn', 'autumn', 'letters'] });
    return campaign;
  };
  const secondSite = async () =>
    (
      await owner.ask('POST', '/sites', {
        name: 'Second',
        origins: ['https://second.example'],
        timeZone: 'UTC',
      })
    ).json<{ id: string }>().id;

  it('into a file and back, whole, with its labels, as a draft', async () => {
    const campaign = await labelled();
    const file = (await owner.ask('GET', `/campaigns/${campaign.id}/file`)).json<CampaignFile>();
    expect(campaignFileSchema.parse(file).labels).toEqual(['autumn', 'letters']);
    const arrived = await owner.ask('POST', `/sites/${owner.siteId}/campaigns/file`, file);
    const { campaign: made, lost } = arrived.json<ArrivedCampaign>();
    expect(lost).toEqual([]);
    expect(made).toMatchObject({ name: campaign.name, state: 'draft', labels: ['autumn', 'letters'] });
    expect(made.document).toEqual(campaign.document);
  });
  it('to another site, told first what it lacks, which a trial makes nothing of', async () => {
    const campaign = await labelled();
    const group = { name: 'Tours', rules: [{ kind: 'begins', address: '/tours/' }] };
    const { id } = (await owner.ask('POST', `/sites/${owner.siteId}/groups`, group)).json<{ id: string }>();
    const { document } = campaign;
    const pages = { ...document.rule.reach.pages, include: [{ kind: 'group' as const, id }] };
    const reach = { ...document.rule.reach, pages };
    await owner.ask('PUT', `/campaigns/${campaign.id}/draft`, {
      revision: campaign.revision,
      document: { ...document, rule: { ...document.rule, reach } },
    });
    const siteId = await secondSite();
    const copy = (isTrial: boolean) =>
      owner.ask('POST', `/campaigns/${campaign.id}/copy`, { siteId, isTrial });
    const there = async () => (await owner.ask('GET', `/sites/${siteId}/campaigns`)).json<Campaign[]>();
    expect((await copy(true)).json().lost).toEqual([expect.stringContaining('“Tours”')]);
    expect(await there()).toEqual([]);
    const { campaign: made } = (await copy(false)).json<ArrivedCampaign>();
    expect(made.document.rule.reach.pages.include).toEqual(group.rules);
    expect((await there()).map(({ name }) => name)).toEqual([campaign.name]);
  });
  it.each([
    ['of another version', { version: 2 }],
    ['that is none', { velarium: 'sheet' }],
    ['with more in it', { script: 'alert(1)' }],
  ])('a file %s is refused and leaves nothing', async (_what, change) => {
    const campaign = await labelled();
    const file = (await owner.ask('GET', `/campaigns/${campaign.id}/file`)).json();
    const response = await owner.ask('POST', `/sites/${owner.siteId}/campaigns/file`, { ...file, ...change });
    expect(response.statusCode).toBe(422);
    expect((await owner.ask('GET', `/sites/${owner.siteId}/campaigns`)).json()).toHaveLength(1);
  });
});

it('the list says what happened lately: showings of seven days, what never arrived of thirty, when its schedule ends it', async () => {
  const campaign = await createCampaign(owner);
  const [{ day: today } = { day: '' }]: { day: string }[] = await server.db.query(
    `SELECT (now() AT TIME ZONE time_zone)::date::text AS day FROM site WHERE id = $1`,
    [owner.siteId],
  );
  for (const [ago, events] of [
    [0, 3],
    [6, 4],
    [7, 100],
  ])
    await server.db.query(
      `INSERT INTO campaign_day (campaign_id, day, shown) VALUES ($1, $2::date - $3::int, $4)`,
      [campaign.id, today, ago, events],
    );
  const lead = '10000000-0000-4000-8000-000000000001';
  await server.db.query(
    `INSERT INTO lead (id, workspace_id, site_id, campaign_id, version, visitor, fields, page, submitted_at)
     SELECT $1, workspace_id, site_id, id, 1, $1, '{}', '/', now() FROM campaign WHERE id = $2`,
    [lead, campaign.id],
  );
  for (const [state, age] of [
    ['givenUp', '1 day'],
    ['givenUp', '29 days'],
    ['givenUp', '31 days'],
    ['sent', '1 day'],
    ['retrying', '1 day'],
  ])
    await server.db.query(
      `INSERT INTO delivery (workspace_id, site_id, kind, lane, state, recipient, payload, lead_id, created_at)
       SELECT workspace_id, site_id, 'notice', 'mail', $2, 'a@example.org', '{}', id, now() - $3::interval
         FROM lead WHERE id = $1`,
      [lead, state, age],
    );
  const [listed] = (await owner.ask('GET', `/sites/${owner.siteId}/campaigns`)).json<CampaignSummary[]>();
  expect(listed).toMatchObject({ shownLately: 7, givenUp: 2, endsAt: null });
  expect(listed?.miniature.rows.length).toBeGreaterThan(0);
});

it('the list that is asked for every few seconds is answered with 304 while it is the same', async () => {
  await createCampaign(owner);
  const list = `/sites/${owner.siteId}/campaigns`;
  const first = await owner.ask('GET', list);
  const again = (etag: unknown) => owner.ask('GET', list, undefined, { 'if-none-match': String(etag) });
  const same = await again(first.headers.etag);
  expect([same.statusCode, same.body]).toEqual([304, '']);
  await createCampaign(owner);
  expect((await again(first.headers.etag)).statusCode).toBe(200);
  // No cache on the way keeps it; who asks remembers.
  expect(first.headers['cache-control']).toBe('no-store');
});
