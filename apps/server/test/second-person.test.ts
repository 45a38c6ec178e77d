import type {
  Campaign,
  CampaignHistory,
  CampaignResults,
  CampaignSummary,
  PlannedDocument,
} from '@velarium/contract';
import { changeBlock } from '@velarium/core';
import { beforeEach, describe, expect, it } from 'vitest';
import { campaign, mailbox, outbox, owner, server, sharesDeliveries, soon } from './delivering.ts';
import { addColleague, createCampaign, type Member } from './server.ts';

const HOUR_MS = 3_600_000;

sharesDeliveries();
let editor: Member;
let viewer: Member;
beforeEach(async () => {
  editor = await addColleague(server, owner, 'editor');
  viewer = await addColleague(server, owner, 'viewer');
  await asks(true);
});

const asks = (asksSecond: boolean, by = owner) => by.ask('PUT', '/workspace', { asksSecond });
const again = async () => (await owner.ask('GET', `/campaigns/${campaign.id}`)).json<Campaign>();
/** Saves a draft whose heading says this; answers its revision. */
async function draft(text: string, by = editor): Promise<number> {
  const { revision, document } = await again();
  const message = changeBlock(document.message, 'title', (block) =>
    block.kind === 'heading' ? { ...block, text } : block,
  );
  const saved = await by.ask('PUT', `/campaigns/${campaign.id}/draft`, {
    revision,
    document: { ...document, message },
  });
  return saved.json<Campaign>().revision;
}
/** Drafts it, and asks for agreement to it. */
async function ask(text: string, at: Date | null = null, by = editor) {
  return by.ask('PUT', `/campaigns/${campaign.id}/plan`, {
    revision: await draft(text, by),
    at: at?.toISOString() ?? null,
    note: 'For the season',
  });
}
const plan = async (by = owner) =>
  (await by.ask('GET', `/campaigns/${campaign.id}/plan`)).json<PlannedDocument>();
const agree = async (by: Member, id?: string) =>
  by.ask('POST', `/campaigns/${campaign.id}/plan/agree`, { id: id ?? (await plan()).id });
const decline = async (by: Member, note: string) =>
  by.ask('POST', `/campaigns/${campaign.id}/plan/decline`, { id: (await plan()).id, note });
const history = async () =>
  (await owner.ask('GET', `/campaigns/${campaign.id}/history`)).json<CampaignHistory>();
const isLive = async (text: string) => {
  const [{ message } = { message: '' }] = (await server.manifestOf(owner.siteKey)).campaigns;
  return (await owner.ask('GET', `/campaigns/${campaign.id}/messages/${message}`)).body.includes(text);
};

describe('where a second person must agree', () => {
  it('nothing is launched alone, by whatever way', async () => {
    const { revision } = await again();
    const other = await createCampaign(owner);
    const ways: [path: string, body: object][] = [
      [`/campaigns/${campaign.id}/publish`, { revision, note: '' }],
      [`/campaigns/${campaign.id}/versions/1/publish`, { note: '' }],
      [
        `/sites/${owner.siteId}/launches`,
        { campaigns: [{ id: other.id, revision: other.revision }], note: '' },
      ],
    ];
    for (const [path, body] of ways) {
      const answer = await owner.ask('POST', path, body);
      expect([path, answer.statusCode]).toEqual([path, 403]);
      expect(answer.json()).toMatchObject({
        code: 'second-person',
        title: 'A second person must agree first',
      });
    }
    // To rest needs nobody, and neither does what was agreed to once.
    expect((await owner.ask('POST', `/campaigns/${campaign.id}/rest`)).statusCode).toBe(200);
    expect((await owner.ask('POST', `/campaigns/${campaign.id}/run`)).statusCode).toBe(200);
    await asks(false);
    expect((await owner.publish(campaign.id)).statusCode).toBe(200);
  });

  it('it is asked for, stands on the Board, is agreed to by another, and is launched as it was asked for', async () => {
    expect((await ask('As asked')).json()).toMatchObject({ at: null, awaits: true, isMine: true });
    expect(await isLive('As asked')).toBe(false);
    const [summary] = (await viewer.ask('GET', `/sites/${owner.siteId}/campaigns`)).json<CampaignSummary[]>();
    expect(summary).toMatchObject({ awaits: true, plannedAt: null });
    const seen = await plan();
    expect(seen).toMatchObject({ isMine: false, byName: 'Editor', note: 'For the season' });
    expect(JSON.stringify(seen.document)).toContain('As asked');
    // What is edited meanwhile does not slip in.
    await draft('Edited since');
    const agreed = await agree(owner);
    expect(agreed.json()).toMatchObject({ awaits: false, state: 'running', hasUnpublishedChanges: true });
    expect(await isLive('As asked')).toBe(true);
    // On the chart of its results stands what visitors met.
    const { marks } = (
      await owner.ask('GET', `/campaigns/${campaign.id}/results?period=7`)
    ).json<CampaignResults>();
    expect(new Set(marks.map(({ what }) => what))).toEqual(new Set(['published']));
    const { entries, planned } = await history();
    expect(planned).toBeNull();
    expect(entries.slice(0, 2)).toMatchObject([
      { what: 'published', byName: 'Editor, agreed to by Owner', note: 'For the season' },
      { what: 'asked', byName: 'Editor' },
    ]);
  });

  it('nobody agrees to their own, nor a viewer to anything, nor anybody to what was changed since', async () => {
    await ask('First wording');
    const { id } = await plan();
    expect((await agree(editor)).json()).toMatchObject({ code: 'second-person' });
    expect((await agree(viewer)).statusCode).toBe(403);
    await ask('Second wording');
    expect((await agree(owner, id)).statusCode).toBe(409);
    expect(await isLive('First wording')).toBe(false);
    const answers = await Promise.all([agree(owner), agree(owner)]);
    expect(answers.map(({ statusCode }) => statusCode).sort()).toEqual([200, 409]);
    expect(await isLive('Second wording')).toBe(true);
  });

  describe('several together', () => {
    const at = (id: string, path = '') => `/campaigns/${id}${path}`;
    let others: Campaign[];
    beforeEach(async () => {
      others = [await createCampaign(owner), await createCampaign(owner)];
    });
    const askAll = (revision: number) =>
      editor.ask('POST', `/sites/${owner.siteId}/launches/asked`, {
        campaigns: [
          { id: campaign.id, revision },
          ...others.map((one) => ({ id: one.id, revision: one.revision })),
        ],
        note: 'In one moment',
      });
    const ask3 = async () => expect((await askAll(await draft('With the others'))).statusCode).toBe(204);
    const running = async () =>
      (await server.manifestOf(owner.siteKey)).campaigns.filter(({ id }) =>
        others.some((one) => one.id === id),
      ).length;
    const agreeTo = async (by = owner, lookedAt?: string[]) => {
      const { id, others: with_ } = await plan();
      return by.ask('POST', at(campaign.id, '/plan/agree'), {
        id,
        others: lookedAt ?? with_.map((one) => one.id),
      });
    };

    it('are asked for as one, seen as one, agreed to as one, and told of in one mail', async () => {
      await ask3();
      const seen = await plan();
      expect(seen).toMatchObject({ awaits: true, at: null, note: 'In one moment', together: 2 });
      expect(seen.others.map(({ campaignId }) => campaignId).sort()).toEqual(
        others.map(({ id }) => id).sort(),
      );
      // Mails of the tests before may still come.
      const ours = () => mailbox.mails.filter(({ to }) => to.includes(owner.session.account.email));
      await soon(() => expect(ours()).toHaveLength(1));
      expect(ours()[0]?.mail.subject).toMatch(
        /^Editor asks you to agree to “.*” and 2 other campaigns, in one moment$/,
      );
      // Whoever agrees to one without having seen the others is told.
      expect((await agreeTo(owner, [])).json()).toMatchObject({ code: 'plan-gone' });
      expect((await agreeTo(editor)).json()).toMatchObject({ code: 'second-person' });
      expect(await running()).toBe(0);
      expect((await agreeTo()).statusCode).toBe(200);
      expect(await isLive('With the others')).toBe(true);
      expect(await running()).toBe(2);
      for (const { id } of others) {
        const told = (await owner.ask('GET', at(id, '/history'))).json<CampaignHistory>();
        expect(told.planned).toBeNull();
        expect(told.entries[0]).toMatchObject({ what: 'published', byName: 'Editor, agreed to by Owner' });
      }
    });

    it('are launched all or none', async () => {
      await ask3();
      await owner.ask('POST', at((others[1] as Campaign).id, '/archive'));
      expect((await agreeTo()).statusCode).toBe(409);
      expect(await running()).toBe(0);
      expect(await isLive('With the others')).toBe(false);
      expect((await plan()).others).toHaveLength(2);
    });

    it('are declined and called off as one; what was changed since is not asked for', async () => {
      await ask3();
      expect((await decline(owner, 'Not yet')).statusCode).toBe(204);
      for (const { id } of others)
        expect((await owner.ask('GET', at(id, '/history'))).json()).toMatchObject({
          planned: null,
          entries: [{ what: 'declined', note: 'Not yet' }, { what: 'asked' }],
        });
      await ask3();
      await editor.ask('DELETE', at((others[0] as Campaign).id, '/plan'));
      expect((await owner.ask('GET', at(campaign.id, '/plan'))).statusCode).toBe(404);
      // The first has been drafted anew since.
      expect((await askAll(0)).json()).toMatchObject({ code: 'newer-revision' });
      expect((await owner.ask('GET', at((others[0] as Campaign).id, '/plan'))).statusCode).toBe(404);
      await asks(false);
      expect((await askAll(0)).json()).toMatchObject({ code: 'wrong-state' });
    });

    it('one that is asked for anew goes by itself', async () => {
      await ask3();
      await ask('Alone again');
      expect((await plan()).others).toEqual([]);
      const rest = (await owner.ask('GET', at((others[0] as Campaign).id, '/plan'))).json<PlannedDocument>();
      expect(rest.others.map(({ campaignId }) => campaignId)).toEqual([(others[1] as Campaign).id]);
    });
  });

  it('a launch for later waits for both: the second person, and its time', async () => {
    await ask('Later', new Date(Date.now() + HOUR_MS));
    const { id } = await plan();
    // Its time comes before anybody has agreed.
    await server.services.versions.launchPlanned({ campaignId: campaign.id, planId: id });
    expect(await isLive('Later')).toBe(false);
    expect((await agree(owner)).json()).toMatchObject({ awaits: false, plannedAt: expect.any(String) });
    expect(await isLive('Later')).toBe(false);
    await server.services.versions.launchPlanned({ campaignId: campaign.id, planId: id });
    expect(await isLive('Later')).toBe(true);
    expect((await history()).entries[0]?.byName).toBe('Editor, agreed to by Owner');
  });

  it('one whose time has gone by meanwhile is launched as soon as somebody agrees', async () => {
    await ask('Late', new Date(Date.now() + HOUR_MS));
    await server.db.query(
      "UPDATE planned_launch SET at = now() - interval '1 minute' WHERE campaign_id = $1",
      [campaign.id],
    );
    await agree(owner);
    expect(await isLive('Late')).toBe(true);
  });

  it('what is not agreed to is gone, with the reason in the history; what is called off too', async () => {
    await ask('First wording');
    expect((await decline(owner, 'Not before the fair')).statusCode).toBe(204);
    expect((await again()).awaits).toBe(false);
    expect((await history()).entries[0]).toMatchObject({
      what: 'declined',
      byName: 'Owner',
      note: 'Not before the fair',
    });
    await ask('Second wording');
    expect((await editor.ask('DELETE', `/campaigns/${campaign.id}/plan`)).statusCode).toBe(204);
    expect((await owner.ask('GET', `/campaigns/${campaign.id}/plan`)).statusCode).toBe(404);
    expect(await isLive('First wording')).toBe(false);
  });

  it('tells everybody else who may launch by mail', async () => {
    await ask('First wording');
    // Mails of the tests before may still come.
    const ours = () => mailbox.mails.filter(({ to }) => to.includes(owner.session.account.email));
    await soon(() => expect(ours()).toHaveLength(1));
    const [mail] = ours();
    expect(mail?.mail.text).toContain(`/sites/${owner.siteId}/campaigns/${campaign.id}/versions`);
    expect(mail?.mail.text).toContain('“For the season”');
    expect((await outbox('?of=team')).map(({ kind, state }) => [kind, state])).toContainEqual([
      'agreement',
      'sent',
    ]);
  });

  it('is for owners to ask for; what was planned before is agreed to first as well', async () => {
    await asks(false);
    expect((await asks(true, editor)).statusCode).toBe(403);
    const without = await ask('First wording');
    expect(without.statusCode).toBe(422);
    expect(without.json()).toMatchObject({ detail: expect.stringContaining('wants a time') });
    await ask('Planned', new Date(Date.now() + HOUR_MS));
    expect(await plan()).toMatchObject({ awaits: false });
    await asks(true);
    expect(await plan()).toMatchObject({ awaits: true });
  });
});
