import type {
  CampaignDocument,
  Manifest,
  Message,
  MessageFile,
  Moment,
  PageGroup,
  Pages,
  Preview,
} from '@velarium/contract';
import {
  type Allotment,
  allot,
  asksFacts,
  type CompiledFrom,
  compileManifest,
  type PageParts,
  sharesOf,
  withSavedBlocks,
} from '@velarium/core';
import type { DataSource, EntityManager } from 'typeorm';
import type { CampaignRow, CampaignService } from '../campaigns/index.ts';
import { goalDeeds } from '../goals/index.ts';
import { notFound, ProblemError } from '../infra/problem.ts';
import type { LibraryService } from '../library/index.ts';
import type { SiteService } from '../sites/index.ts';
import { assertLaunchable } from './assert-launchable.ts';
import { contentHash } from './content-hash.ts';
import { MessageFileEntity, SiteManifestEntity } from './entities.ts';
import { createSiteTurns, type SiteOfWorkspace } from './site-turns.ts';

/** Every process that serves the edge listens here; the payload is the key of the site that changed. */
export const SITE_CHANGED = 'velarium_site_changed';

const wrongState = (detail: string) => new ProblemError(409, 'wrong-state', 'Not in this state', detail);

/** Told of a campaign that begins or ends to run a version, in the transaction that makes it so. */
type OnMoved = (
  manager: EntityManager,
  move: {
    readonly workspaceId: string;
    readonly siteId: string;
    readonly campaignId: string;
    readonly name: string;
    readonly event: 'campaign.published' | 'campaign.rested';
  },
) => Promise<void>;

export interface PublishingServices {
  readonly db: DataSource;
  readonly sites: SiteService;
  readonly campaigns: CampaignService;
  readonly library: LibraryService;
  readonly onMoved: OnMoved;
}
/** A site as the edge serves it. */
export interface SiteToServe {
  readonly id: string;
  readonly workspaceId: string;
  readonly origins: readonly string[];
  readonly recordedFacts: readonly string[] | null;
  readonly pageParts: PageParts;
  readonly etag: string;
  /** Of the manifest; `null` where the asker has the one of this etag. */
  readonly body: string | null;
}

/** What an answer says it answers. */
export interface Answered {
  readonly campaign: string;
  readonly version: number;
  readonly variant: string | undefined;
  readonly hash: string | undefined;
}

/** What the first message of a campaign is called among its variants. */
export const FIRST_VARIANT = 'a';

type SiteToTry = NonNullable<Awaited<ReturnType<SiteService['findByKey']>>>;

type Actor = { readonly workspaceId: string; readonly accountId: string; readonly name: string };

/** A campaign's document on its way into a manifest. */
interface Compilable {
  readonly id: string;
  readonly version: number;
  readonly epoch: number;
  readonly document: CampaignDocument;
  readonly allotment?: Allotment | undefined;
}

/** Moves campaigns between their states and makes what the edge serves, each move in one transaction. */
export function createPublishingService({ db, sites, campaigns, library, onMoved }: PublishingServices) {
  const inTurn = createSiteTurns(db, rebuild);

  /** In the site's turn: locks the campaign, lets `move` change the row, and rebuilds the site's manifest. */
  async function transition(
    actor: Actor,
    campaignId: string,
    move: (manager: EntityManager, row: CampaignRow) => Promise<Partial<CampaignRow>>,
  ): Promise<void> {
    const siteId = await campaigns.siteOf(actor.workspaceId, campaignId);
    await inTurn({ workspaceId: actor.workspaceId, siteId }, async (manager) => {
      const row = await campaigns.lock(manager, actor.workspaceId, campaignId);
      const change = await move(manager, row);
      await campaigns.update(manager, campaignId, change);
      const { workspaceId } = actor;
      const moved = { workspaceId, siteId, campaignId, name: row.name };
      const what =
        change.liveVersion !== undefined
          ? 'published'
          : change.state === undefined || change.state === row.state
            ? null
            : change.state === 'running'
              ? 'resumed'
              : row.state === 'running'
                ? 'rested'
                : null;
      if (what)
        await manager.query(
          'INSERT INTO campaign_move (campaign_id, what, version, by_name) VALUES ($1, $2, $3, $4)',
          [campaignId, what, change.liveVersion ?? row.liveVersion, actor.name],
        );
      if (change.liveVersion !== undefined) await onMoved(manager, { ...moved, event: 'campaign.published' });
      else if (row.state === 'running' && change.state !== undefined && change.state !== 'running')
        await onMoved(manager, { ...moved, event: 'campaign.rested' });
    });
  }

  /** Compiles documents for the tag, with the message files they name. */
  async function compile(
    site: Parameters<typeof compileManifest>[0] & { readonly id: string },
    from: readonly Compilable[],
    manager?: EntityManager,
  ): Promise<{ manifest: ReturnType<typeof compileManifest>; files: Map<string, MessageFile> }> {
    const make = await library.messageMaker(site, manager);
    const files = new Map<string, MessageFile>();
    const prepare = async (message: Message) => {
      const file = await make(message);
      const hash = contentHash(JSON.stringify(file));
      files.set(hash, file);
      return { hash, asksFacts: asksFacts(file.message) };
    };
    const compilable: CompiledFrom[] = [];
    for (const { id, version, epoch, document, allotment } of from) {
      const first = await prepare(document.message);
      const others: (Awaited<ReturnType<typeof prepare>> & {
        id: string;
        weight: number;
        moment: Moment | undefined;
      })[] = [];
      for (const { id: variant, weight, message, moment } of document.variants)
        others.push({ id: variant, weight, moment, ...(await prepare(message)) });
      compilable.push({
        id,
        version,
        epoch,
        messages: [document.message, ...document.variants.map(({ message }) => message)],
        messageHash: first.hash,
        rule: document.rule,
        asksFacts: [first, ...others].some((one) => one.asksFacts),
        allotment,
        variants: others.map(({ id: variant, weight, moment, hash }) => ({
          id: variant,
          weight,
          moment,
          messageHash: hash,
        })),
      });
    }
    return { manifest: compileManifest(site, compilable), files };
  }

  /** A site as it is tried. `of` says whose drafts: `live` nobody's, `drafts` everybody's, or those of one campaign. */
  async function compose(site: SiteToTry, of: string) {
    const all = await campaigns.notArchived(site.id);
    const running = new Map((await campaigns.live(db.manager, site.id)).map((one) => [one.campaignId, one]));
    const isDraft = (id: string) => of === 'drafts' || of === id || !running.has(id);
    const rows = all.filter(({ id }) => of === 'drafts' || of === id || running.has(id));
    const documents = new Map(
      rows.map(({ id, draft }) => [id, isDraft(id) ? draft : (running.get(id)?.document ?? draft)]),
    );
    const pages = new Map([...documents].map(([id, { rule }]) => [id, rule.reach.pages]));
    const { manifest, files } = await compile(
      { ...site, pages: sitePages(await sites.groups.list(site.id), pages) },
      rows.map(({ id, capEpoch, draft }) => ({
        id,
        version: 1,
        epoch: capEpoch,
        document: documents.get(id) ?? draft,
      })),
    );
    return { manifest, files, campaigns: rows.map(({ id, name, state }) => ({ id, name, state })) };
  }

  /** Makes the site's manifest and message files anew. Everything on the caller's one connection. */
  async function rebuild(manager: EntityManager, { workspaceId, siteId }: SiteOfWorkspace): Promise<void> {
    const site = await sites.lock(manager, workspaceId, siteId);
    const live = await campaigns.live(manager, siteId);
    const pages = sitePages(await sites.groups.list(siteId, manager), await campaigns.pages(siteId, manager));
    const { manifest, files } = await compile(
      { ...site, pages, goals: await goalDeeds(manager, siteId) },
      live.map(({ campaignId, version, capEpoch, document, allotment }) => ({
        id: campaignId,
        version,
        epoch: capEpoch,
        document,
        allotment: allotment ?? undefined,
      })),
      manager,
    );
    const rows = [...files].map(([hash, file]) => ({ siteId, hash, body: JSON.stringify(file) }));
    if (rows.length > 0) await manager.getRepository(MessageFileEntity).upsert(rows, ['siteId', 'hash']);
    await noteMessages(manager, manifest);
    const body = JSON.stringify(manifest);
    await manager
      .getRepository(SiteManifestEntity)
      .upsert({ siteId, body, etag: `"${contentHash(body)}"`, builtAt: new Date() }, ['siteId']);
    // Delivered when the transaction commits, and not at all if it does not.
    await manager.query('SELECT pg_notify($1, $2)', [SITE_CHANGED, site.key]);
  }

  /** Builds a site's manifest anew after something beside its campaigns has changed. */
  const prepareSite = (workspaceId: string, siteId: string): Promise<void> =>
    inTurn({ workspaceId, siteId }, async () => {});

  return {
    prepareSite,

    /** Builds the manifests that are missing, as they are after an update of Velarium itself. */
    async prepareMissing(): Promise<void> {
      const missing: { id: string; workspace_id: string }[] = await db.query(
        'SELECT id, workspace_id FROM site WHERE NOT EXISTS (SELECT FROM site_manifest WHERE site_id = site.id)',
      );
      for (const site of missing) await prepareSite(site.workspace_id, site.id);
    },

    /** Freezes the draft as a new version and runs it; refused where the draft is not the one that was looked at. */
    async publish(actor: Actor, campaignId: string, lookedAt?: number): Promise<void> {
      const { workspaceId } = actor;
      // Before the turn begins: within it there is one connection, which is its own.
      const { timeZone } = await sites.get(workspaceId, await campaigns.siteOf(workspaceId, campaignId));
      return transition(actor, campaignId, async (manager, row) => {
        if (row.state === 'archived') throw wrongState('Take it out of the archive first.');
        if (lookedAt !== undefined && lookedAt !== row.revision)
          throw new ProblemError(
            409,
            'newer-revision',
            'Changed since you opened it',
            'Somebody else has changed this campaign meanwhile, so it was not published. Look at it as it is now.',
          );
        const lookOf = await library.looks.reader(row.siteId, manager);
        const savedOf = await library.savedBlocks.reader(row.siteId, manager);
        const whole = (message: Message) => withSavedBlocks(message, savedOf);
        assertLaunchable(
          {
            ...row.draft,
            message: whole(row.draft.message),
            variants: row.draft.variants.map((one) => ({ ...one, message: whole(one.message) })),
          },
          lookOf(row.draft.message.look),
          timeZone,
        );
        const version = await campaigns.nextVersion(manager, campaignId);
        await campaigns.addVersion(manager, {
          campaignId,
          version,
          document: row.draft,
          publishedBy: actor.accountId,
        });
        return {
          state: 'running',
          liveVersion: version,
          publishedRevision: row.revision,
          allotment: allot(sharesOf(row.draft.variants), row.allotment ?? undefined),
        };
      });
    },

    rest(actor: Actor, campaignId: string): Promise<void> {
      return transition(actor, campaignId, async (_manager, row) => {
        if (row.state !== 'running') throw wrongState('Only a running campaign can rest.');
        return { state: 'resting' };
      });
    },

    /** Runs the last published version again, whatever has been drafted since. */
    run(actor: Actor, campaignId: string): Promise<void> {
      return transition(actor, campaignId, async (_manager, row) => {
        if (row.state !== 'resting')
          throw wrongState('Only a resting campaign can be run again. Publish it instead.');
        return { state: 'running' };
      });
    },

    archive(actor: Actor, campaignId: string): Promise<void> {
      return transition(actor, campaignId, async (_manager, row) => {
        if (row.state === 'archived') throw wrongState('It is in the archive already.');
        return { state: 'archived', stateBeforeArchive: row.state };
      });
    },

    /** Undoes an archive: the campaign is again what it was before. */
    restore(actor: Actor, campaignId: string): Promise<void> {
      return transition(actor, campaignId, async (_manager, row) => {
        if (row.state !== 'archived') throw wrongState('It is not in the archive.');
        return { state: row.stateBeforeArchive ?? 'draft', stateBeforeArchive: null };
      });
    },

    /** Begins counting afresh: visitors who have used up its caps can see it again. */
    afresh(actor: Actor, campaignId: string): Promise<void> {
      return transition(actor, campaignId, async (_manager, row) => ({ capEpoch: row.capEpoch + 1 }));
    },

    /**
     * For a page that the studio opened for a preview: the campaign that is tried as its draft stands, among those that
     * run as visitors meet them; where none is tried, every draft.
     */
    async preview(siteKey: string, tried?: string): Promise<Preview> {
      const site = await sites.findByKey(siteKey);
      if (!site) throw notFound('site');
      const { files, ...cast } = await compose(site, tried ?? 'drafts');
      return { ...cast, files: Object.fromEntries(files) };
    },

    /** The campaigns a visit is played against: those that run, every draft, or one draft among those that run. */
    async cast(siteKey: string, of: string): Promise<Omit<Preview, 'files'>> {
      const site = await sites.findByKey(siteKey);
      if (!site) throw notFound('site');
      const { files: _, ...cast } = await compose(site, of);
      return cast;
    },

    /** For the public edge: a site with its manifest, whose body is left out where the edge has it already. */
    async findSite(key: string, knownEtag?: string): Promise<SiteToServe | undefined> {
      const [row]: SiteToServe[] = await db.query(
        `SELECT site.id, workspace_id AS "workspaceId", origins, settings -> 'recordedFacts' AS "recordedFacts",
                jsonb_build_object('pageParameters', settings -> 'pageParameters', 'hashRoutes', settings -> 'hashRoutes')
                  AS "pageParts", etag,
                CASE WHEN etag IS DISTINCT FROM $2 THEN body END AS body
           FROM site JOIN site_manifest ON site_id = site.id WHERE key = $1`,
        [key, knownEtag ?? null],
      );
      return row;
    },
    async findMessage(siteId: string, hash: string): Promise<string | undefined> {
      return (await db.getRepository(MessageFileEntity).findOneBy({ siteId, hash }))?.body;
    },
    /** The message file a visitor of this site had of a campaign; without a hash, the version's latest. */
    async findAnswered(siteId: string, { campaign, version, variant, hash }: Answered) {
      const [row]: { body: string }[] = await db.query(
        `SELECT file.body FROM campaign_message had
           JOIN campaign ON campaign.id = had.campaign_id AND campaign.site_id = $1
           JOIN message_file file ON file.site_id = $1 AND file.hash = had.hash
          WHERE had.campaign_id = $2 AND had.version = $3 AND had.variant = $4 AND ($5::text IS NULL OR had.hash = $5)
          ORDER BY had.first_at DESC LIMIT 1`,
        [siteId, campaign, version, variant ?? FIRST_VARIANT, hash ?? null],
      );
      return row && (JSON.parse(row.body) as MessageFile);
    },
  };
}
export type PublishingService = ReturnType<typeof createPublishingService>;

/** Notes which files the live versions' messages are. */
async function noteMessages(manager: EntityManager, { campaigns: live }: Manifest): Promise<void> {
  const rows = live.flatMap(({ id, version, message, experiment }) => [
    [id, version, FIRST_VARIANT, message] as const,
    ...(experiment?.variants ?? []).map((one) => [id, version, one.id, one.message] as const),
  ]);
  if (rows.length === 0) return;
  await manager.query(
    `INSERT INTO campaign_message (campaign_id, version, variant, hash)
     SELECT * FROM unnest($1::uuid[], $2::integer[], $3::text[], $4::text[]) ON CONFLICT DO NOTHING`,
    [0, 1, 2, 3].map((column) => rows.map((row) => row[column])),
  );
}

function sitePages(groups: readonly PageGroup[], pages: ReadonlyMap<string, Pages>) {
  return {
    rulesOfGroup: (id: string) => groups.find((group) => group.id === id)?.rules,
    pagesOfCampaign: (id: string) => pages.get(id),
  };
}
