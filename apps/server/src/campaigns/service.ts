import type {
  Campaign,
  CampaignDocument,
  CampaignSummary,
  ChangeCampaign,
  EarlierDraft,
  Message,
  Pages,
  Presence,
} from '@velarium/contract';
import {
  followsInCircle,
  type Met,
  NO_SITE_PAGES,
  picturesOf,
  savedBlocksOf,
  startingDocument,
  TEMPLATES,
} from '@velarium/core';
import type { DataSource, EntityManager } from 'typeorm';
import { In, Not } from 'typeorm';
import { z } from 'zod';
import { notFound, ProblemError } from '../infra/problem.ts';
import type { LibraryService } from '../library/index.ts';
import type { ResultService } from '../results/index.ts';
import type { SiteService } from '../sites/index.ts';
import { assertOwnCss } from './assert-own-css.ts';
import { assertPatterns, refused } from './assert-patterns.ts';
import { type Beside, type FollowUpStore, NOTHING_BESIDE } from './beside.ts';
import {
  CampaignEntity,
  type CampaignRow,
  CampaignVersionEntity,
  type CampaignVersionRow,
} from './entities.ts';
import { createPresence } from './presence.ts';
import { createRevisions } from './revisions.ts';
import { createSummaries } from './summaries.ts';
import { createTravel } from './travel.ts';

/** A message kept by the team says nothing of its moment. */
const OWN_SECONDS = 10;

export interface CampaignServices {
  readonly db: DataSource;
  readonly sites: SiteService;
  readonly results: ResultService;
  readonly library: LibraryService;
  readonly followUps: FollowUpStore;
}
/** A running campaign's name, published version and cap epoch. */
export type LiveCampaign = CampaignVersionRow & Pick<CampaignRow, 'name' | 'capEpoch' | 'allotment'>;

type Actor = { readonly workspaceId: string; readonly accountId: string };

export function createCampaignService({ db, sites, results, library, followUps }: CampaignServices) {
  const campaigns = db.getRepository(CampaignEntity);
  const presence = createPresence(db);
  const revisions = createRevisions(db);
  const summaries = createSummaries({ db, results, library });

  /** The site's running campaigns with their live versions, in order of precedence: the older first. */
  async function live(manager: EntityManager, siteId: string): Promise<LiveCampaign[]> {
    const rows = await manager
      .getRepository(CampaignEntity)
      .find({ where: { siteId, state: 'running' }, order: { createdAt: 'ASC', id: 'ASC' } });
    const versions = await manager
      .getRepository(CampaignVersionEntity)
      .find({ where: { campaignId: In(rows.map((row) => row.id)) } });
    return rows.flatMap(({ id, name, liveVersion, capEpoch, allotment }) => {
      const version = versions.find((v) => v.campaignId === id && v.version === liveVersion);
      return version ? { ...version, name, capEpoch, allotment } : [];
    });
  }

  /** The site's running campaigns as visitors meet them. */
  async function running(siteId: string, manager: EntityManager = db.manager): Promise<Met[]> {
    const rows = await live(manager, siteId);
    return rows.map(({ campaignId: id, name, document }) => ({ id, name, document }));
  }

  async function find(workspaceId: string, id: string): Promise<CampaignRow> {
    const row = await campaigns.findOneBy({ id, workspaceId });
    if (!row) throw notFound('campaign');
    return row;
  }

  async function get(workspaceId: string, id: string): Promise<Campaign> {
    const row = await find(workspaceId, id);
    const { timeZone } = await sites.get(workspaceId, row.siteId);
    const [summary] = await summaries([row], timeZone);
    return { ...(summary as CampaignSummary), document: row.draft };
  }

  async function insert(
    actor: Actor,
    siteId: string,
    name: string,
    document: CampaignDocument,
    beside: Beside = NOTHING_BESIDE,
  ): Promise<Campaign> {
    const row = await db.transaction(async (manager) => {
      const saved = await manager.getRepository(CampaignEntity).save({
        workspaceId: actor.workspaceId,
        siteId,
        name,
        state: 'draft' as const,
        stateBeforeArchive: null,
        labels: [...beside.labels],
        note: beside.note,
        draft: document,
        revision: 0,
        liveVersion: null,
        capEpoch: 0,
        allotment: null,
        publishedRevision: null,
      });
      await revisions.keep(manager, actor.accountId, saved.id, 0, document);
      for (const [form, followUp] of Object.entries(beside.followUps))
        await followUps.save(saved.id, form, followUp, manager);
      return saved;
    });
    return get(actor.workspaceId, row.id);
  }

  /** A message kept by the team, to begin from. */
  async function ownTemplate(siteId: string, id: string) {
    const own = z.uuid().safeParse(id).success ? await library.templates.find(siteId, id) : undefined;
    return own && { message: own.message, seconds: OWN_SECONDS };
  }

  const travel = createTravel({ db, sites, library, followUps, find, insert });

  const service = {
    get,
    ...travel,

    async list(workspaceId: string, siteId: string): Promise<CampaignSummary[]> {
      const { timeZone } = await sites.get(workspaceId, siteId);
      const rows = await campaigns.find({
        where: { workspaceId, siteId },
        order: { createdAt: 'DESC', id: 'ASC' },
      });
      return summaries(rows, timeZone);
    },

    async create(actor: Actor, siteId: string, name: string, templateId: string): Promise<Campaign> {
      await sites.get(actor.workspaceId, siteId);
      const template =
        TEMPLATES.find(({ id }) => id === templateId) ?? (await ownTemplate(siteId, templateId));
      if (!template) {
        throw new ProblemError(
          422,
          'invalid-input',
          'No such template',
          'Choose one of the templates shown.',
          [{ path: 'template', message: 'is not one of the templates' }],
        );
      }
      return insert(actor, siteId, name, startingDocument(template));
    },

    async duplicate(actor: Actor, id: string): Promise<Campaign> {
      const row = await find(actor.workspaceId, id);
      return insert(actor, row.siteId, `${row.name.slice(0, 112)}, copy`, row.draft, {
        ...row,
        followUps: await followUps.of(id),
      });
    },

    async change(workspaceId: string, id: string, { name, labels, note }: ChangeCampaign): Promise<Campaign> {
      await find(workspaceId, id);
      const change = {
        ...(name === undefined ? {} : { name }),
        ...(labels ? { labels: [...new Set(labels)] } : {}),
        ...(note === undefined ? {} : { note: note.trim() }),
      };
      if (Object.keys(change).length > 0) await campaigns.update({ id, workspaceId }, change);
      return get(workspaceId, id);
    },

    /** Who else has the campaign open, now that this one has, and how far its draft has come. */
    async markPresent(actor: Actor, id: string): Promise<Presence> {
      const { revision } = await find(actor.workspaceId, id);
      return { others: await presence.mark(id, actor.accountId), revision };
    },
    async leave(actor: Actor, id: string): Promise<void> {
      await find(actor.workspaceId, id);
      await presence.leave(id, actor.accountId);
    },

    /**
     * Saves the draft made on `revision`; refused when somebody saved a newer one meanwhile, unless that is the same: a save that
     * comes twice is one.
     */
    async saveDraft(
      actor: Actor,
      id: string,
      revision: number,
      document: CampaignDocument,
    ): Promise<Campaign> {
      assertPatterns(document);
      assertOwnCss([document.message, ...document.variants.map((one) => one.message)]);
      const { siteId } = await find(actor.workspaceId, id);
      await assertReferences(siteId, id, document);
      await db.transaction(async (manager) => {
        const next = revision + 1;
        const { affected } = await manager
          .getRepository(CampaignEntity)
          .update(
            { id, workspaceId: actor.workspaceId, revision },
            { draft: document as never, revision: next },
          );
        if (affected) return revisions.keep(manager, actor.accountId, id, next, document);
        // Whoever had no answer sends it again.
        const again = await manager
          .getRepository(CampaignEntity)
          .createQueryBuilder()
          .where(
            'id = :id AND workspace_id = :workspaceId AND revision = :next AND draft = :document::jsonb',
            {
              id,
              workspaceId: actor.workspaceId,
              next,
              document: JSON.stringify(document),
            },
          )
          .getExists();
        if (again) return;
        throw new ProblemError(
          409,
          'newer-revision',
          'Somebody else saved this first',
          'Load their version to go on from it, or keep yours in its place.',
        );
      });
      return get(actor.workspaceId, id);
    },

    /** When the draft was saved and by whom, the older first. */
    async earlierDrafts(workspaceId: string, id: string): Promise<EarlierDraft[]> {
      await find(workspaceId, id);
      return revisions.list(id);
    },
    async earlierDraft(workspaceId: string, id: string, revision: number): Promise<CampaignDocument> {
      await find(workspaceId, id);
      return revisions.document(id, revision);
    },
    /** Leaves ever fewer earlier drafts, the older they are. */
    tidy: (now = new Date()): Promise<void> => revisions.thin(now),

    /** The site a campaign of the workspace belongs to. */
    siteOf: async (workspaceId: string, id: string): Promise<string> => (await find(workspaceId, id)).siteId,

    /** For what is sent of it; empty when it is gone. */
    async nameOf(id: string): Promise<string> {
      return (await db.getRepository(CampaignEntity).findOneBy({ id }))?.name ?? '';
    },

    /** What its message is written in first; `null` where it has one language alone. */
    async originalLanguageOf(id: string): Promise<string | null> {
      const [row]: { original: string | null }[] = await db.query(
        "SELECT draft #>> '{message,languages,original}' AS original FROM campaign WHERE id = $1",
        [id],
      );
      return row?.original ?? null;
    },

    /** For publishing: the row, locked until the caller's transaction ends. */
    async lock(manager: EntityManager, workspaceId: string, id: string): Promise<CampaignRow> {
      const row = await manager
        .getRepository(CampaignEntity)
        .findOne({ where: { id, workspaceId }, lock: { mode: 'pessimistic_write' } });
      if (!row) throw notFound('campaign');
      return row;
    },

    async update(manager: EntityManager, id: string, change: Partial<CampaignRow>): Promise<void> {
      await manager.getRepository(CampaignEntity).update({ id }, change as never);
    },

    async addVersion(
      manager: EntityManager,
      version: Omit<CampaignVersionRow, 'publishedAt'>,
    ): Promise<void> {
      await manager.getRepository(CampaignVersionEntity).insert(version as never);
    },

    async nextVersion(manager: EntityManager, campaignId: string): Promise<number> {
      const last = await manager.getRepository(CampaignVersionEntity).maximum('version', { campaignId });
      return (last ?? 0) + 1;
    },

    live,
    running,

    async runningOf(workspaceId: string, siteId: string): Promise<Met[]> {
      await sites.get(workspaceId, siteId);
      return running(siteId);
    },

    /** Every campaign of the site that is not in the archive, the older first. */
    async notArchived(siteId: string): Promise<CampaignRow[]> {
      return campaigns.find({
        where: { siteId, state: Not('archived') },
        order: { createdAt: 'ASC', id: 'ASC' },
      });
    },

    /** Names of the campaigns that name this page group, drafted or published. */
    async usersOfGroup(siteId: string, groupId: string): Promise<string[]> {
      const rows: { name: string }[] = await db.query(
        `SELECT name FROM campaign LEFT JOIN campaign_version version
             ON version.campaign_id = campaign.id AND version.version = campaign.live_version
          WHERE site_id = $1 AND (draft @? $2::jsonpath OR document @? $2::jsonpath) ORDER BY name`,
        [siteId, `$.rule.reach.pages.*[*] ? (@.kind == "group" && @.id == ${JSON.stringify(groupId)})`],
      );
      return rows.map(({ name }) => name);
    },

    /** The page rules of each of the site's campaigns: as published, or as drafted where nothing is. */
    async pages(siteId: string, manager: EntityManager = db.manager): Promise<Map<string, Pages>> {
      const rows: { id: string; pages: Pages }[] = await manager.query(
        `SELECT campaign.id, coalesce(version.document, draft) #> '{rule,reach,pages}' AS pages
           FROM campaign LEFT JOIN campaign_version version
             ON version.campaign_id = campaign.id AND version.version = campaign.live_version
          WHERE campaign.site_id = $1`,
        [siteId],
      );
      return new Map(rows.map(({ id, pages }) => [id, pages]));
    },
  };
  return service;

  /** Page groups and a followed campaign must be the site's own, and following must not lead round in a circle. */
  async function assertReferences(
    siteId: string,
    id: string,
    { message, variants, rule, trial }: CampaignDocument,
  ): Promise<void> {
    await assertMaterial(siteId, [message, ...variants.map((one) => one.message)]);
    if (trial?.goal) await assertGoal(siteId, trial.goal);
    const { include, exclude, follows } = rule.reach.pages;
    const path = 'document.rule.reach.pages';
    const groups = [...include, ...exclude].flatMap((page) => (page.kind === 'group' ? page.id : []));
    if (groups.length > 0) {
      const known = new Set((await sites.groups.list(siteId)).map((group) => group.id));
      if (groups.some((group) => !known.has(group)))
        throw refused('No such page group', 'Choose one of the site’s page groups.', path);
    }
    if (follows === null) return;
    const pages = await service.pages(siteId);
    if (!pages.has(follows))
      throw refused('No such campaign', 'Follow a campaign of the same site.', `${path}.follows`);
    if (followsInCircle(id, follows, { ...NO_SITE_PAGES, pagesOfCampaign: (one) => pages.get(one) }))
      throw refused(
        'It would follow itself',
        'The campaign it follows follows this one. Choose another, or name the pages.',
        `${path}.follows`,
      );
  }

  async function assertGoal(siteId: string, goal: string): Promise<void> {
    const [known] = await db.query('SELECT FROM goal WHERE id = $1 AND site_id = $2', [goal, siteId]);
    if (!known)
      throw refused(
        'No such goal',
        'Choose one of the site’s goals, or its own answer.',
        'document.trial.goal',
      );
  }

  /** Looks, pictures and saved blocks must be the site's own too. */
  async function assertMaterial(siteId: string, messages: readonly Message[]): Promise<void> {
    const looks = messages.flatMap(({ look }) => look ?? []);
    const pictures = messages.flatMap(picturesOf).filter((ref) => !ref.startsWith('drawn:'));
    const saved = messages.flatMap(savedBlocksOf);
    const isMissing = (wanted: readonly string[], known: readonly { id: string }[]) =>
      wanted.some((one) => !known.some(({ id: has }) => has === one));
    if (looks.length > 0 && isMissing(looks, await library.looks.list(siteId)))
      throw refused('No such Look', 'Choose one of the site’s Looks.', 'document.message.look');
    if (pictures.length > 0) {
      const files = await library.pictures.files(siteId, pictures);
      if (pictures.some((ref) => !files[ref]))
        throw refused('No such picture', 'Choose a picture of the site’s library.', 'document.message');
    }
    if (saved.length > 0 && isMissing(saved, await library.savedBlocks.list(siteId)))
      throw refused('No such saved block', 'Choose one of the site’s saved blocks.', 'document.message');
  }
}
export type CampaignService = ReturnType<typeof createCampaignService>;
