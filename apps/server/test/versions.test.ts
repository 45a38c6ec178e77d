import type {
  Campaign,
  CampaignDocument,
  CampaignHistory,
  CampaignVersion,
  Look,
  MessageFile,
} from '@velarium/contract';
import { changeBlock, keptDrafts, PLAIN_LOOK } from '@velarium/core';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { createCampaign, createTestServer, createWorkspace, type Member, type TestServer } from './server.ts';

let server: TestServer;
let owner: Member;
let campaign: Campaign;
beforeAll(async () => {
  server = await createTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  owner = await createWorkspace(server);
  campaign = await createCampaign(owner);
});

const again = async (id = campaign.id) => (await owner.ask('GET', `/campaigns/${id}`)).json<Campaign>();
const history = async () =>
  (await owner.ask('GET', `/campaigns/${campaign.id}/history`)).json<CampaignHistory>();
const worded = (document: CampaignDocument, text: string): CampaignDocument => ({
  ...document,
  message: changeBlock(document.message, 'title', (block) =>
    block.kind === 'heading' ? { ...block, text } : block,
  ),
});
/** Saves a draft whose heading says this; answers its revision. */
async function draft(text: string): Promise<number> {
  const now = await again();
  const saved = await owner.ask('PUT', `/campaigns/${campaign.id}/draft`, {
    revision: now.revision,
    document: worded(now.document, text),
  });
  return saved.json<Campaign>().revision;
}
const publish = (revision: number, note = '') =>
  owner.ask('POST', `/campaigns/${campaign.id}/publish`, { revision, note });
const manifest = () => server.manifestOf(owner.siteKey);

describe('a history', () => {
  it('says who did what when and why, the newest first', async () => {
    await publish(await draft('One'), 'The season opens');
    await owner.ask('POST', `/campaigns/${campaign.id}/rest`);
    await owner.ask('POST', `/campaigns/${campaign.id}/run`);
    await publish(await draft('Two'));
    const { entries, live, planned } = await history();
    expect(entries.map(({ what, version, note }) => [what, version, note])).toEqual([
      ['published', 2, ''],
      ['resumed', 1, ''],
      ['rested', 1, ''],
      ['published', 1, 'The season opens'],
    ]);
    expect(entries.every(({ byName }) => byName !== '')).toBe(true);
    expect([live, planned]).toEqual([2, null]);
  });

  it('is read a hundred lines at a time, without losing one or saying one twice', async () => {
    await publish(await draft('One'));
    // Many in one moment: a cursor must tell them apart.
    await server.db.query(
      `INSERT INTO campaign_move (campaign_id, at, what, version, by_name, note)
       SELECT $1, now() - make_interval(mins => n / 50), CASE n % 2 WHEN 0 THEN 'rested' ELSE 'resumed' END, n, 'Ida', ''
         FROM generate_series(1, 249) AS n`,
      [campaign.id],
    );
    const seen: string[] = [];
    const lengths: number[] = [];
    for (let next: string | null = ''; next !== null; ) {
      const path = `/campaigns/${campaign.id}/history?${new URLSearchParams(next ? { cursor: next } : {})}`;
      const page: CampaignHistory = (await owner.ask('GET', path)).json();
      lengths.push(page.entries.length);
      seen.push(...page.entries.map(({ at, what, version }) => `${at} ${what} ${version}`));
      next = page.next;
    }
    expect(lengths).toEqual([100, 100, 50]);
    expect(new Set(seen).size).toBe(250);
    const times = seen.map((line) => line.slice(0, 24));
    expect(times).toEqual([...times].sort().reverse());
    const wrong = await owner.ask('GET', `/campaigns/${campaign.id}/history?cursor=yesterday`);
    expect(wrong.statusCode).toBe(422);
  });
  it('names a message that a Look has drawn anew, and keeps both as they were', async () => {
    const looks = `/sites/${owner.siteId}/looks`;
    const { id } = (await owner.ask('POST', looks, { name: 'Ours', style: PLAIN_LOOK })).json<Look>();
    await owner.ask('POST', `${looks}/${id}/default`);
    await publish(await draft('One'));
    await owner.ask('PUT', `${looks}/${id}`, { name: 'Ours', style: { ...PLAIN_LOOK, textSize: 20 } });
    expect((await history()).entries.map(({ what }) => what)).toEqual(['redrawn', 'published']);
    const { files } = (
      await owner.ask('GET', `/campaigns/${campaign.id}/versions/1`)
    ).json<CampaignVersion>();
    expect(files).toHaveLength(2);
    const sheets = await Promise.all(
      files.map(async ({ hash }) =>
        (await owner.ask('GET', `/campaigns/${campaign.id}/messages/${hash}`)).json<MessageFile>(),
      ),
    );
    expect(new Set(sheets.map(({ sheet }) => sheet)).size).toBe(2);
  });
  it('shows a file only of this campaign', async () => {
    await publish(await draft('One'));
    const other = await createCampaign(owner);
    const [{ message } = { message: '' }] = (await manifest()).campaigns;
    expect((await owner.ask('GET', `/campaigns/${campaign.id}/messages/${message}`)).statusCode).toBe(200);
    expect((await owner.ask('GET', `/campaigns/${other.id}/messages/${message}`)).statusCode).toBe(404);
  });
});

describe('an old version', () => {
  it('comes back live as a new one that equals it, while the draft stays', async () => {
    await publish(await draft('One'));
    await publish(await draft('Two'));
    await draft('Three, not yet');
    const back = await owner.ask('POST', `/campaigns/${campaign.id}/versions/1/publish`, { note: '' });
    expect(back.json<Campaign>()).toMatchObject({ state: 'running', hasUnpublishedChanges: true });
    const { entries, live } = await history();
    expect([live, entries[0]?.note]).toEqual([3, 'Version 1 again']);
    const version = async (n: number) =>
      (await owner.ask('GET', `/campaigns/${campaign.id}/versions/${n}`)).json<CampaignVersion>();
    expect((await version(3)).document).toEqual((await version(1)).document);
    // Drawn alike too: visitors are given the very same file.
    expect((await version(3)).files[0]?.hash).toBe((await version(1)).files[0]?.hash);
    expect(JSON.stringify((await again()).document)).toContain('Three, not yet');
  });
  it('that there is not is said not to be', async () => {
    expect(
      (await owner.ask('POST', `/campaigns/${campaign.id}/versions/7/publish`, { note: '' })).statusCode,
    ).toBe(404);
  });
});

describe('a launch for later', () => {
  const HOUR_MS = 3_600_000;
  const plan = (revision: number, at = new Date(Date.now() + HOUR_MS), note = '') =>
    owner.ask('PUT', `/campaigns/${campaign.id}/plan`, { revision, at: at.toISOString(), note });
  const planId = async (): Promise<string> =>
    (await server.db.query('SELECT id FROM planned_launch WHERE campaign_id = $1', [campaign.id]))[0]?.id;
  const due = async (id?: string) =>
    server.services.versions.launchPlanned({ campaignId: campaign.id, planId: id ?? (await planId()) });

  it('publishes the draft as it was when it was planned, and nothing that was edited later', async () => {
    await plan(await draft('As planned'), undefined, 'For Monday');
    expect((await again()).plannedAt).not.toBeNull();
    await draft('An afterthought');
    await due();
    const { document } = (
      await owner.ask('GET', `/campaigns/${campaign.id}/versions/1`)
    ).json<CampaignVersion>();
    expect(JSON.stringify(document)).toContain('As planned');
    expect(await again()).toMatchObject({ state: 'running', hasUnpublishedChanges: true, plannedAt: null });
    expect((await history()).entries[0]).toMatchObject({ what: 'published', note: 'For Monday' });
  });
  it('that two workers take at once is published once', async () => {
    await plan(await draft('As planned'));
    const id = await planId();
    await Promise.all([due(id), due(id)]);
    expect((await history()).entries.map(({ version }) => version)).toEqual([1]);
    await due(id);
    expect((await history()).live).toBe(1);
  });
  it('is due at its time by itself', async () => {
    await plan(await draft('Soon'), new Date(Date.now() + HOUR_MS));
    const [job] = await server.db.query(
      "SELECT start_after AS at FROM job.job WHERE name = 'launch-planned' AND data ->> 'campaignId' = $1",
      [campaign.id],
    );
    expect(new Date(job.at).toISOString()).toBe((await again()).plannedAt);
  });
  it('counts as published where nothing has been edited since', async () => {
    await plan(await draft('As planned'));
    await due();
    expect((await again()).hasUnpublishedChanges).toBe(false);
  });
  it('called off or planned anew does not come', async () => {
    await plan(await draft('One'));
    const first = await planId();
    await plan((await again()).revision, new Date(Date.now() + 2 * HOUR_MS));
    await due(first);
    expect((await again()).state).toBe('draft');
    await owner.ask('DELETE', `/campaigns/${campaign.id}/plan`);
    await due(first);
    expect(await again()).toMatchObject({ state: 'draft', plannedAt: null });
  });
  it('that cannot be launched when its time has come says why, and waits for a person', async () => {
    await plan(await draft('One'));
    await owner.ask('POST', `/campaigns/${campaign.id}/archive`);
    await due();
    expect((await history()).planned?.failure).toContain('archive');
  });
  it.each([
    ['of the past', () => plan(campaign.revision, new Date(Date.now() - 1)), 422],
    ['too far ahead', () => plan(campaign.revision, new Date(Date.now() + 500 * 24 * HOUR_MS)), 422],
    ['of a draft that has changed', () => plan(campaign.revision + 3), 409],
  ])('%s is refused in words', async (_, ask, status) => {
    const answer = await ask();
    expect(answer.statusCode).toBe(status);
    expect(answer.json().detail).not.toBe('');
    expect(await planId()).toBeUndefined();
  });
});

describe('several together', () => {
  it('are published in one go, or none is', async () => {
    const others = [await createCampaign(owner), await createCampaign(owner)];
    const all = [campaign, ...others];
    const launch = (changed: number) =>
      owner.ask('POST', `/sites/${owner.siteId}/launches`, {
        campaigns: all.map(({ id, revision }, n) => ({ id, revision: revision + (n === 1 ? changed : 0) })),
        note: 'Winter',
      });
    const refused = await launch(1);
    expect([refused.statusCode, refused.json().code]).toEqual([409, 'newer-revision']);
    expect((await manifest()).campaigns).toEqual([]);
    expect((await launch(0)).statusCode).toBe(204);
    expect((await manifest()).campaigns.map(({ id }) => id).sort()).toEqual(all.map(({ id }) => id).sort());
    expect((await history()).entries[0]?.note).toBe('Winter');
  });
  it('the same ones asked for twice at once, in two orders: neither waits for the other in a circle, and it is one launch', async () => {
    const other = await createCampaign(owner);
    const body = {
      campaigns: [campaign, other].map(({ id, revision }) => ({ id, revision })),
      note: '',
    };
    const answers = await Promise.all(
      [body, { ...body, campaigns: [...body.campaigns].reverse() }].map((one) =>
        owner.ask('POST', `/sites/${owner.siteId}/launches`, one),
      ),
    );
    expect(answers.map(({ statusCode }) => statusCode)).toEqual([204, 204]);
    expect((await history()).live).toBe(1);
  });
  it('one that another of them always hides keeps all of them back', async () => {
    const ruled = async (limits: object, seconds: number, of: Campaign) => {
      const { rule } = of.document;
      const saved = await owner.ask('PUT', `/campaigns/${of.id}/draft`, {
        revision: of.revision,
        document: {
          ...of.document,
          rule: {
            ...rule,
            moment: { ...rule.moment, triggers: [{ kind: 'time', seconds }] },
            limits: { ...rule.limits, ...limits },
          },
        },
      });
      return saved.json<Campaign>();
    };
    const always = { caps: [], afterClose: 'none', afterNo: 'none', afterConversion: 'none' };
    const first = await ruled({ ...always, stopAfterUnanswered: null, holdout: 0 }, 0, campaign);
    const second = await ruled({ whenBusy: 'yield' }, 10, await createCampaign(owner));
    const launch = (...chosen: readonly Campaign[]) =>
      owner.ask('POST', `/sites/${owner.siteId}/launches`, {
        campaigns: chosen.map(({ id, revision }) => ({ id, revision })),
        note: '',
      });
    expect((await launch(first, second)).json()).toMatchObject({
      code: 'not-launchable',
      detail: expect.stringContaining('always open first'),
      fields: [{ path: 'busy' }],
    });
    expect((await manifest()).campaigns).toEqual([]);
    // The same by themselves, one after the other: what runs is what is in the way.
    expect((await launch(first)).statusCode).toBe(204);
    expect((await owner.publish(second.id)).statusCode).toBe(422);
    const running = await owner.ask('GET', `/sites/${owner.siteId}/campaigns/running`);
    expect(running.json()).toMatchObject([{ id: first.id, name: first.name }]);
  });
  it('of another site are refused', async () => {
    const stranger = await createWorkspace(server);
    const theirs = await createCampaign(stranger);
    const answer = await owner.ask('POST', `/sites/${owner.siteId}/launches`, {
      campaigns: [{ id: theirs.id, revision: theirs.revision }],
      note: '',
    });
    expect(answer.statusCode).toBe(404);
  });
});

describe('earlier drafts', () => {
  const drafts = async () =>
    (await owner.ask('GET', `/campaigns/${campaign.id}/drafts`)).json<
      { revision: number; at: string; byName: string }[]
    >();

  it('are listed with who saved them, and each says what the draft said then', async () => {
    const [first] = [await draft('One evening'), await draft('Another evening')];
    const listed = await drafts();
    expect(listed.map(({ revision }) => revision)).toEqual([0, 1, 2, 3]);
    expect(listed.every(({ byName }) => byName !== '')).toBe(true);
    const document = (
      await owner.ask('GET', `/campaigns/${campaign.id}/drafts/${first}`)
    ).json<CampaignDocument>();
    expect(JSON.stringify(document)).toContain('One evening');
    expect((await owner.ask('GET', `/campaigns/${campaign.id}/drafts/99`)).statusCode).toBe(404);
  });

  it('grow ever fewer by core’s own law; what is published and what is drafted stays', async () => {
    for (let n = 0; n < 8; n++) await draft(`Evening ${n}`);
    const { revision: published } = await again();
    await owner.publish(campaign.id);
    for (let n = 8; n < 24; n++) await draft(`Evening ${n}`);
    const { revision: last } = await again();
    const now = new Date(Math.floor(Date.now() / 1000) * 1000);
    // From half a year back to now, in pairs a second apart.
    await server.db.query(
      `UPDATE campaign_revision SET saved_at = $2::timestamptz - (round(3 * 3.6 ^ (($3 - revision) / 2)) + ($3 - revision) % 2) * interval '1 second'
        WHERE campaign_id = $1`,
      [campaign.id, now, last],
    );
    const at = Array.from({ length: last + 1 }, (_, revision) => {
      const back = last - revision;
      return now.getTime() / 1000 - Math.round(3 * 3.6 ** Math.floor(back / 2)) - (back % 2);
    });
    const wanted = keptDrafts(at, now.getTime() / 1000);
    await server.services.campaigns.tidy(now);
    const kept = (await drafts()).map((one) => Date.parse(one.at) / 1000);
    expect(kept).toEqual(at.filter((one, revision) => wanted.includes(one) || revision === published));
    expect(kept.length).toBeLessThan(at.length);
    await server.services.campaigns.tidy(now);
    expect((await drafts()).length).toBe(kept.length);
  });
});

it('message files that no version had any more are forgotten, and those of a version are not', async () => {
  await owner.publish(campaign.id);
  const files = () => server.db.query('SELECT hash FROM message_file WHERE site_id = $1', [owner.siteId]);
  const [had] = await files();
  await server.db.query(
    `INSERT INTO message_file (site_id, hash, body) VALUES ($1, '00000000000000000000000000000000', '{}')`,
    [owner.siteId],
  );
  await server.services.publishing.tidy();
  expect(await files()).toEqual([had]);
});
