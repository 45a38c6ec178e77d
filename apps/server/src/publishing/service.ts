import type { CampaignDocument, Cast, KeptForecast, Preview, Rule } from '@velarium/contract';
import { allot, type CastState, castStateOf, isSame, type Met, sharesOf } from '@velarium/core';
import type { DataSource, EntityManager } from 'typeorm';
import type { CampaignRow, CampaignService } from '../campaigns/index.ts';
import { notFound, ProblemError } from '../infra/problem.ts';
import type { LibraryService } from '../library/index.ts';
import type { SiteService } from '../sites/index.ts';
import { assertLaunchable } from './assert-launchable.ts';
import { createCompiler } from './compile-site.ts';
import type { OnMoved, OnRunning } from './on-moved.ts';
import { assertAlone } from './second-person.ts';
import { createServed } from './served.ts';
import { createSiteTurns } from './site-turns.ts';
import { createWhy } from './why.ts';

const wrongState = (detail: string) => new ProblemError(409, 'wrong-state', 'Not in this state', detail);

export interface PublishingServices {
  readonly db: DataSource;
  readonly sites: SiteService;
  readonly campaigns: CampaignService;
  readonly library: LibraryService;
  readonly onMoved: OnMoved;
  readonly onRunning: OnRunning;
}
/** What is published in place of the draft. */
interface OtherDocument {
  readonly document: CampaignDocument;
  readonly note: string;
  /** The draft it was taken from, if it was one. */
  readonly revision?: number | null | undefined;
  readonly forecast?: KeptForecast | null | undefined;
  /** A second person has agreed to it, where one must. */
  readonly isAgreed?: boolean;
  /** Done in the same transaction; what it throws keeps it from being published. */
  readonly also?: (manager: EntityManager) => Promise<void>;
}

/** What becomes a version. */
interface Chosen {
  readonly document: CampaignDocument;
  /** The draft it is, if it is one. */
  readonly revision: number | null;
  /** What was foreseen of it, where that was known. */
  readonly forecast?: KeptForecast | null | undefined;
}

type MoveOfRow = (manager: EntityManager, row: CampaignRow) => Promise<Partial<CampaignRow>>;

type Actor = { readonly workspaceId: string; readonly accountId: string; readonly name: string };

/** How long a launch whose answer was lost may come again. */
const SAME_LAUNCH = '10 minutes';

/** Whether this is a launch that comes again, since its answer was lost: it has been done, and makes no second version. */
async function isSameLaunch(
  manager: EntityManager,
  row: CampaignRow,
  {
    document,
    byName,
    note,
  }: { readonly document: CampaignDocument; readonly byName: string; readonly note: string },
): Promise<boolean> {
  if (row.state !== 'running') return false;
  const [last]: { isTheirs: boolean; document: CampaignDocument | null }[] = await manager.query(
    `SELECT what = 'published' AND m.version = $2 AND by_name = $3 AND note = $4
            AND at > now() - interval '${SAME_LAUNCH}' AS "isTheirs", document
       FROM campaign_move m LEFT JOIN campaign_version USING (campaign_id, version)
      WHERE campaign_id = $1 ORDER BY at DESC LIMIT 1`,
    [row.id, row.liveVersion, byName, note],
  );
  return last?.isTheirs === true && isSame(last.document, document);
}

/** Moves campaigns between their states and makes what the edge serves, each move in one transaction. */
export function createPublishingService({
  db,
  sites,
  campaigns,
  library,
  onMoved,
  onRunning,
}: PublishingServices) {
  const { compose, rebuild } = createCompiler({ db, sites, campaigns, library, onRunning });
  const why = createWhy(db);
  const inTurn = createSiteTurns(db, rebuild);

  /** In the site's turn: locks the campaign, lets `move` change the row, and rebuilds the site's manifest. */
  async function transition(actor: Actor, campaignId: string, move: MoveOfRow, note = ''): Promise<void> {
    const { workspaceId } = actor;
    const siteId = await campaigns.siteOf(workspaceId, campaignId);
    await inTurn({ workspaceId, siteId }, (manager) => moveOne(manager, actor, campaignId, move, note));
  }

  /** Moves one campaign, and writes down that it was; the caller has the site's turn. */
  async function moveOne(
    manager: EntityManager,
    actor: Actor,
    campaignId: string,
    move: MoveOfRow,
    note: string,
  ): Promise<void> {
    const { workspaceId } = actor;
    const row = await campaigns.lock(manager, workspaceId, campaignId);
    const change = await move(manager, row);
    await campaigns.update(manager, campaignId, change);
    const moved = { workspaceId, siteId: row.siteId, campaignId, name: row.name };
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
    if (what) {
      await manager.query(
        'INSERT INTO campaign_move (campaign_id, what, version, by_name, note) VALUES ($1, $2, $3, $4, $5)',
        [campaignId, what, change.liveVersion ?? row.liveVersion, actor.name, note],
      );
    }
    if (change.liveVersion !== undefined) await onMoved(manager, { ...moved, event: 'campaign.published' });
    else if (row.state === 'running' && change.state !== undefined && change.state !== 'running')
      await onMoved(manager, { ...moved, event: 'campaign.rested' });
  }

  /**
   * Freezes a document as a new version of its campaign, which begins to run.
   *
   * @param choose The draft, unless it is another one: a version of before, or a draft as it was once.
   * @param more What is said of it; what is launched in the same moment; whether a second person has agreed, where one must.
   */
  const freeze =
    (
      actor: Actor,
      timeZone: string,
      choose: (row: CampaignRow) => Chosen,
      {
        note,
        together = [],
        isAgreed = false,
      }: { readonly note: string; readonly together?: readonly Met[]; readonly isAgreed?: boolean },
    ): MoveOfRow =>
    async (manager, row) => {
      if (!isAgreed) await assertAlone(manager, actor.workspaceId);
      if (row.state === 'archived') throw wrongState('Take it out of the archive first.');
      const { document, revision, forecast = null } = choose(row);
      // A draft that says again what runs is published with it.
      if (await isSameLaunch(manager, row, { document, byName: actor.name, note }))
        return { publishedRevision: revision };
      const lookOf = await library.looks.reader(row.siteId, manager);
      assertLaunchable(
        { id: row.id, name: row.name, document },
        {
          lookOf: ({ look }) => lookOf(look),
          savedOf: await library.savedBlocks.reader(row.siteId, manager),
          running: [
            ...(await campaigns.running(row.siteId, manager)).filter(
              ({ id }) => !together.some((one) => one.id === id),
            ),
            ...together,
          ],
          zone: timeZone,
          nowMs: Date.now(),
        },
      );
      const version = await campaigns.nextVersion(manager, row.id);
      await campaigns.addVersion(manager, {
        campaignId: row.id,
        version,
        document,
        publishedBy: actor.accountId,
        forecast,
      });
      return {
        state: 'running',
        liveVersion: version,
        publishedRevision: revision,
        allotment: allot(sharesOf(document.variants), row.allotment ?? undefined),
      };
    };
  /** The draft, refused where it is not the one that was looked at. */
  const draftLookedAt = (lookedAt: number, forecast?: KeptForecast) => (row: CampaignRow) => {
    if (lookedAt !== row.revision)
      throw new ProblemError(
        409,
        'newer-revision',
        'Changed since you opened it',
        `Somebody else has changed “${row.name}” meanwhile, so it was not published. Look at it as it is now.`,
      );
    return { document: row.draft, revision: row.revision, forecast };
  };

  /** What is no draft; it counts as one where it is the very same. */
  const chooseOther =
    ({ document, revision = null, forecast }: Pick<OtherDocument, 'document' | 'revision' | 'forecast'>) =>
    (row: CampaignRow): Chosen => ({
      document,
      revision: revision === row.revision ? revision : null,
      forecast,
    });

  async function publishAll(
    actor: Actor,
    siteId: string,
    launches: readonly {
      readonly id: string;
      readonly choose: (row: CampaignRow) => Chosen;
      readonly note: string;
    }[],
    { isAgreed = false, also }: Pick<OtherDocument, 'isAgreed' | 'also'> = {},
  ): Promise<void> {
    const { workspaceId } = actor;
    const { timeZone } = await sites.get(workspaceId, siteId);
    for (const { id } of launches)
      if ((await campaigns.siteOf(workspaceId, id)) !== siteId) throw notFound('campaign');
    // In one order, so that two who launch at once never wait for each other in a circle.
    const inOrder = [...launches].sort((a, b) => (a.id < b.id ? -1 : 1));
    await inTurn({ workspaceId, siteId }, async (manager) => {
      await also?.(manager);
      const together: Met[] = [];
      for (const { id, choose } of inOrder) {
        const row = await campaigns.lock(manager, workspaceId, id);
        together.push({ id, name: row.name, document: choose(row).document });
      }
      for (const { id, choose, note } of inOrder)
        await moveOne(
          manager,
          actor,
          id,
          freeze(actor, timeZone, choose, { note, together, isAgreed }),
          note,
        );
    });
  }

  /** Builds a site's manifest anew after something beside its campaigns has changed. */
  const prepareSite = (workspaceId: string, siteId: string): Promise<void> =>
    inTurn({ workspaceId, siteId }, async () => {});

  return {
    prepareSite,
    /** For those who do something before they publish. */
    assertAlone: (workspaceId: string) => assertAlone(db, workspaceId),

    /** Builds the manifests that are missing, as they are after an update of Velarium itself. */
    async prepareMissing(): Promise<void> {
      const missing: { id: string; workspace_id: string }[] = await db.query(
        'SELECT id, workspace_id FROM site WHERE NOT EXISTS (SELECT FROM site_manifest WHERE site_id = site.id)',
      );
      for (const site of missing) await prepareSite(site.workspace_id, site.id);
    },

    /** Freezes the draft as a new version and runs it; refused where the draft is not the one that was looked at. */
    async publish(
      actor: Actor,
      campaignId: string,
      lookedAt: number,
      { note = '', forecast }: { readonly note?: string; readonly forecast?: KeptForecast | undefined } = {},
    ): Promise<void> {
      const { workspaceId } = actor;
      // Before the turn begins: within it there is one connection, which is its own.
      const { timeZone } = await sites.get(workspaceId, await campaigns.siteOf(workspaceId, campaignId));
      await transition(
        actor,
        campaignId,
        freeze(actor, timeZone, draftLookedAt(lookedAt, forecast), { note }),
        note,
      );
    },

    /**
     * Publishes what is no draft: a version of before, or a draft as it was when its launch was planned. The draft stays
     * as it is; it counts as published where it is the very same.
     */
    async publishDocument(
      actor: Actor,
      campaignId: string,
      { document, note, revision, forecast, isAgreed = false, also }: OtherDocument,
    ): Promise<void> {
      const { workspaceId } = actor;
      const { timeZone } = await sites.get(workspaceId, await campaigns.siteOf(workspaceId, campaignId));
      const publish = freeze(actor, timeZone, chooseOther({ document, revision, forecast }), {
        note,
        isAgreed,
      });
      const move: MoveOfRow = async (manager, row) => {
        await also?.(manager);
        return publish(manager, row);
      };
      await transition(actor, campaignId, move, note);
    },

    /** Publishes the drafts of several campaigns of a site in one transaction: all, or none. */
    publishTogether(
      actor: Actor,
      siteId: string,
      chosen: readonly { readonly id: string; readonly revision: number }[],
      note: string,
    ): Promise<void> {
      const launches = chosen.map(({ id, revision }) => ({ id, choose: draftLookedAt(revision), note }));
      return publishAll(actor, siteId, launches);
    },

    /** The same with what was planned of them, to which a second person has agreed. */
    publishPlanned(
      actor: Actor,
      siteId: string,
      planned: readonly (Omit<OtherDocument, 'isAgreed' | 'also'> & { readonly id: string })[],
      also: (manager: EntityManager) => Promise<void>,
    ): Promise<void> {
      const launches = planned.map(({ id, note, ...other }) => ({ id, choose: chooseOther(other), note }));
      return publishAll(actor, siteId, launches, { isAgreed: true, also });
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
    async preview(siteKey: string, of: string): Promise<Omit<Preview, 'link' | 'why'>> {
      const site = await sites.findByKey(siteKey);
      if (!site) throw notFound('site');
      const { files, documents: _, ...cast } = await compose(site, of);
      return { ...cast, files: Object.fromEntries(files) };
    },

    /**
     * The campaigns a visit is played against: those that run, every draft, or one draft among those that run; with this rule
     * in the place of its own, where one is given.
     */
    async cast(siteKey: string, of: string, rule?: Rule): Promise<Cast> {
      const site = await sites.findByKey(siteKey);
      if (!site) throw notFound('site');
      const { files: _, documents: __, ...cast } = await compose(site, of, rule);
      return cast;
    },

    /** The same, with what can be said later of how it stood. */
    async castWithState(siteKey: string, of: string): Promise<{ cast: Cast; state: CastState }> {
      const site = await sites.findByKey(siteKey);
      if (!site) throw notFound('site');
      const { files: _, documents, ...cast } = await compose(site, of);
      const groups = new Map((await sites.groups.list(site.id)).map(({ id, name }) => [id, name]));
      const campaignNames = new Map(cast.campaigns.map(({ id, name }) => [id, name]));
      return {
        cast,
        state: castStateOf(cast, (id) => documents.get(id), {
          campaign: (id) => campaignNames.get(id) ?? 'a campaign that does not run',
          group: (id) => groups.get(id) ?? 'a group that is gone',
        }),
      };
    },

    why,
    ...createServed(db, why),
  };
}
export type PublishingService = ReturnType<typeof createPublishingService>;
