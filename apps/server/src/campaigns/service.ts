import type { Campaign, CampaignDocument, CampaignSummary } from '@velarium/contract';
import { deriveState, patternFault, startingDocument, TEMPLATES } from '@velarium/core';
import type { DataSource, EntityManager } from 'typeorm';
import { In } from 'typeorm';
import { notFound, ProblemError } from '../infra/problem.ts';
import type { ResultService } from '../results/index.ts';
import type { SiteService } from '../sites/index.ts';
import {
  CampaignEntity,
  CampaignRevisionEntity,
  type CampaignRow,
  CampaignVersionEntity,
  type CampaignVersionRow,
} from './entities.ts';

export interface CampaignServices {
  readonly db: DataSource;
  readonly sites: SiteService;
  readonly results: ResultService;
}
type Actor = { readonly workspaceId: string; readonly accountId: string };

export function createCampaignService({ db, sites, results }: CampaignServices) {
  const campaigns = db.getRepository(CampaignEntity);

  async function liveVersions(rows: readonly CampaignRow[]): Promise<Map<string, CampaignVersionRow>> {
    const live = rows.filter((row) => row.liveVersion !== null);
    if (!live.length) return new Map();
    const versions = await db
      .getRepository(CampaignVersionEntity)
      .find({ where: live.map((row) => ({ campaignId: row.id, version: row.liveVersion as number })) });
    return new Map(versions.map((version) => [version.campaignId, version]));
  }

  async function summaries(rows: readonly CampaignRow[], timeZone: string): Promise<CampaignSummary[]> {
    const [numbersOf, live] = await Promise.all([
      results.numbers(rows.map((row) => row.id)),
      liveVersions(rows),
    ]);
    const nowMs = Date.now();
    return rows.map((row) => {
      const version = live.get(row.id);
      // What visitors meet is the published version, so its schedule says what the state is.
      const schedule = version?.document.rule.limits.schedule ?? null;
      const { state, nextChangeMs } = deriveState(row.state, schedule, nowMs, timeZone);
      return {
        id: row.id,
        siteId: row.siteId,
        name: row.name,
        state,
        format: row.draft.message.format,
        anchor: row.draft.message.anchor,
        rule: row.draft.rule,
        revision: row.revision,
        hasUnpublishedChanges: version !== undefined && row.publishedRevision !== row.revision,
        publishedAt: version?.publishedAt.toISOString() ?? null,
        nextChangeAt: nextChangeMs === null ? null : new Date(nextChangeMs).toISOString(),
        updatedAt: row.updatedAt.toISOString(),
        numbers: numbersOf(row.id),
      };
    });
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
  ): Promise<Campaign> {
    const row = await db.transaction(async (manager) => {
      const saved = await manager.getRepository(CampaignEntity).save({
        workspaceId: actor.workspaceId,
        siteId,
        name,
        state: 'draft' as const,
        stateBeforeArchive: null,
        draft: document,
        revision: 0,
        liveVersion: null,
        publishedRevision: null,
      });
      await keepRevision(manager, actor, saved.id, 0, document);
      return saved;
    });
    return get(actor.workspaceId, row.id);
  }

  return {
    get,

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
      const template = TEMPLATES.find(({ id }) => id === templateId);
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
      return insert(actor, row.siteId, `${row.name.slice(0, 112)}, copy`, row.draft);
    },

    async rename(workspaceId: string, id: string, name: string): Promise<Campaign> {
      await find(workspaceId, id);
      await campaigns.update({ id, workspaceId }, { name });
      return get(workspaceId, id);
    },

    /** Saves the draft made on `revision`; refused when somebody saved a newer one meanwhile. */
    async saveDraft(
      actor: Actor,
      id: string,
      revision: number,
      document: CampaignDocument,
    ): Promise<Campaign> {
      assertPatterns(document);
      await db.transaction(async (manager) => {
        const next = revision + 1;
        const { affected } = await manager
          .getRepository(CampaignEntity)
          .update(
            { id, workspaceId: actor.workspaceId, revision },
            { draft: document as never, revision: next },
          );
        if (affected) return keepRevision(manager, actor, id, next, document);
        if (!(await manager.getRepository(CampaignEntity).existsBy({ id, workspaceId: actor.workspaceId }))) {
          throw notFound('campaign');
        }
        throw new ProblemError(
          409,
          'newer-revision',
          'Somebody else saved this first',
          'Load their version to go on from it, or keep yours in its place.',
        );
      });
      return get(actor.workspaceId, id);
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

    /** The site's running campaigns with their live versions, in order of precedence: the older first. */
    async live(manager: EntityManager, siteId: string): Promise<CampaignVersionRow[]> {
      const rows = await manager
        .getRepository(CampaignEntity)
        .find({ where: { siteId, state: 'running' }, order: { createdAt: 'ASC', id: 'ASC' } });
      const versions = await manager
        .getRepository(CampaignVersionEntity)
        .find({ where: { campaignId: In(rows.map((row) => row.id)) } });
      return rows.flatMap(
        (row) => versions.find((v) => v.campaignId === row.id && v.version === row.liveVersion) ?? [],
      );
    },

    /** For the public edge: a published document of a campaign that belongs to this site. */
    async findVersion(
      siteId: string,
      campaignId: string,
      version: number,
    ): Promise<CampaignVersionRow | undefined> {
      if (!(await campaigns.existsBy({ id: campaignId, siteId }))) return undefined;
      return (await db.getRepository(CampaignVersionEntity).findOneBy({ campaignId, version })) ?? undefined;
    },
  };

  async function keepRevision(
    manager: EntityManager,
    actor: Actor,
    campaignId: string,
    revision: number,
    draft: CampaignDocument,
  ): Promise<void> {
    await manager
      .getRepository(CampaignRevisionEntity)
      .insert({ campaignId, revision, draft, savedBy: actor.accountId } as never);
  }
}
/** A regular expression that could hang a visitor's page never gets as far as a draft. */
function assertPatterns({ rule }: CampaignDocument): void {
  for (const side of ['include', 'exclude'] as const) {
    rule.reach.pages[side].forEach((page, n) => {
      const fault = patternFault(page);
      if (!fault) return;
      const path = `document.rule.reach.pages.${side}.${n}.pattern`;
      throw new ProblemError(
        422,
        'invalid-input',
        'This pattern cannot be used',
        `“${fault.pattern}”: ${fault.why}.`,
        [{ path, message: fault.why }],
      );
    });
  }
}

export type CampaignService = ReturnType<typeof createCampaignService>;
