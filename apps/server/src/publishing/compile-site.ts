import type {
  CampaignDocument,
  Manifest,
  Message,
  MessageFile,
  Moment,
  PageGroup,
  Pages,
  Rule,
} from '@velarium/contract';
import { type Allotment, asksFacts, type CompiledFrom, compileManifest, languagesOf } from '@velarium/core';
import type { DataSource, EntityManager } from 'typeorm';
import type { CampaignService } from '../campaigns/index.ts';
import { goalDeeds } from '../goals/index.ts';
import type { LibraryService } from '../library/index.ts';
import type { SiteService } from '../sites/index.ts';
import { contentHash } from './content-hash.ts';
import { MessageFileEntity, SiteManifestEntity } from './entities.ts';
import type { OnRunning } from './on-moved.ts';
import type { SiteOfWorkspace } from './site-turns.ts';

/** Every process that serves the edge listens here; the payload is the key of the site that changed. */
export const SITE_CHANGED = 'velarium_site_changed';

/** What the first message of a campaign is called among its variants. */
export const FIRST_VARIANT = 'a';

/** A campaign's document on its way into a manifest. */
interface Compilable {
  readonly id: string;
  readonly version: number;
  readonly epoch: number;
  readonly document: CampaignDocument;
  readonly allotment?: Allotment | undefined;
}

type SiteToTry = NonNullable<Awaited<ReturnType<SiteService['findByKey']>>>;

interface CompilerServices {
  readonly db: DataSource;
  readonly sites: SiteService;
  readonly campaigns: CampaignService;
  readonly library: LibraryService;
  readonly onRunning: OnRunning;
}

/** Makes of a site's campaigns what pages load. */
export function createCompiler({ db, sites, campaigns, library, onRunning }: CompilerServices) {
  /** Compiles documents for the tag, with the message files they name. */
  async function compile(
    site: Parameters<typeof compileManifest>[0] & { readonly id: string },
    from: readonly Compilable[],
    manager?: EntityManager,
  ): Promise<{ manifest: ReturnType<typeof compileManifest>; files: Map<string, MessageFile> }> {
    const make = await library.messageMaker(site, manager);
    const files = new Map<string, MessageFile>();
    const makeFile = async (message: Message, language?: string) => {
      const file = await make(message, language);
      const hash = contentHash(JSON.stringify(file));
      files.set(hash, file);
      return { hash, file };
    };
    const prepare = async (message: Message) => {
      const { hash, file } = await makeFile(message);
      const languages: [string, string][] = [];
      for (const language of languagesOf(message))
        languages.push([language, (await makeFile(message, language)).hash]);
      return {
        hash,
        asksFacts: asksFacts(file.message),
        // Of one language nothing need be chosen.
        languages: languages.length > 1 ? languages : undefined,
      };
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
        languages: first.languages,
        rule: document.rule,
        asksFacts: [first, ...others].some((one) => one.asksFacts),
        allotment,
        variants: others.map(({ id: variant, weight, moment, hash, languages }) => ({
          id: variant,
          weight,
          moment,
          messageHash: hash,
          languages,
        })),
      });
    }
    return { manifest: compileManifest(site, compilable), files };
  }

  /** A site as it is tried. `of` says whose drafts: `live` nobody's, `drafts` everybody's, or those of one campaign. */
  async function compose(site: SiteToTry, of: string, rule?: Rule) {
    const all = await campaigns.notArchived(site.id);
    const running = new Map((await campaigns.live(db.manager, site.id)).map((one) => [one.campaignId, one]));
    const isDraft = (id: string) => of === 'drafts' || of === id || !running.has(id);
    const rows = all.filter(({ id }) => of === 'drafts' || of === id || running.has(id));
    const documents = new Map(
      rows.map(({ id, draft }): [string, CampaignDocument] => [
        id,
        rule && id === of ? { ...draft, rule } : isDraft(id) ? draft : (running.get(id)?.document ?? draft),
      ]),
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
    return {
      manifest,
      files,
      documents,
      campaigns: rows.map(({ id, name, state }) => ({ id, name, state })),
    };
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
    const etag = `"${contentHash(JSON.stringify(manifest))}"`;
    const manifests = manager.getRepository(SiteManifestEntity);
    const before = await manifests.findOneBy({ siteId });
    // What has not changed stays as it was made, whatever it was made anew for.
    if (before?.etag !== etag) {
      const made = Math.max(Date.now(), (before?.builtAt.getTime() ?? 0) + 1);
      const body = JSON.stringify({ ...manifest, made });
      await manifests.upsert({ siteId, body, etag, builtAt: new Date(made) }, ['siteId']);
      await onRunning(manager, { workspaceId, siteId });
    }
    // Delivered when the transaction commits, and not at all if it does not.
    await manager.query('SELECT pg_notify($1, $2)', [SITE_CHANGED, site.key]);
  }

  return { compose, rebuild };
}

/** Notes which files the live versions' messages are. */
async function noteMessages(manager: EntityManager, { campaigns: live }: Manifest): Promise<void> {
  const rows = live.flatMap(({ id, version, experiment, ...first }) =>
    [{ id: FIRST_VARIANT, ...first }, ...(experiment?.variants ?? [])].flatMap(
      ({ id: variant, message, languages = [] }) => [
        [id, version, variant, message, ''] as const,
        ...languages.slice(1).map(([language, hash]) => [id, version, variant, hash, language] as const),
      ],
    ),
  );
  if (rows.length === 0) return;
  await manager.query(
    `INSERT INTO campaign_message (campaign_id, version, variant, hash, language)
     SELECT * FROM unnest($1::uuid[], $2::integer[], $3::text[], $4::text[], $5::text[]) ON CONFLICT DO NOTHING`,
    [0, 1, 2, 3, 4].map((column) => rows.map((row) => row[column])),
  );
}

function sitePages(groups: readonly PageGroup[], pages: ReadonlyMap<string, Pages>) {
  return {
    rulesOfGroup: (id: string) => groups.find((group) => group.id === id)?.rules,
    pagesOfCampaign: (id: string) => pages.get(id),
  };
}
