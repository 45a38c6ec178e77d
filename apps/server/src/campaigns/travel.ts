import type {
  ArrivedCampaign,
  Campaign,
  CampaignDocument,
  CampaignFile,
  CopyCampaign,
  FollowUp,
  Message,
} from '@velarium/contract';
import { picturesOf, type SiteOffer, settleIn, withSavedBlocks } from '@velarium/core';
import type { DataSource } from 'typeorm';
import type { LibraryService } from '../library/index.ts';
import type { SiteService } from '../sites/index.ts';
import { assertPatterns } from './assert-patterns.ts';
import type { Beside, FollowUpStore } from './beside.ts';
import { CampaignEntity, type CampaignRow } from './entities.ts';

interface TravelServices {
  readonly db: DataSource;
  readonly sites: SiteService;
  readonly library: LibraryService;
  readonly followUps: FollowUpStore;
  readonly find: (workspaceId: string, id: string) => Promise<CampaignRow>;
  /** Makes a draft of a document. */
  readonly insert: (
    actor: Actor,
    siteId: string,
    name: string,
    document: CampaignDocument,
    beside: Beside,
  ) => Promise<Campaign>;
}
type Actor = { readonly workspaceId: string; readonly accountId: string };

const picturesOfMails = ({ confirmation, welcome }: FollowUp): string[] =>
  [...(confirmation ? [confirmation] : []), ...welcome].flatMap(({ mail }) => mail.picture?.id ?? []);

/** Takes campaigns from site to site of a workspace, and in and out of files. */
export function createTravel({ db, sites, library, followUps, find, insert }: TravelServices) {
  const namesIn = async (siteId: string) => {
    const rows = await db
      .getRepository(CampaignEntity)
      .find({ where: { siteId }, select: { id: true, name: true } });
    return new Map(rows.map(({ id, name }) => [id, name]));
  };
  /** The campaign as a file: saved blocks in place, and what it refers to by name. */
  async function packRow(row: CampaignRow): Promise<CampaignFile> {
    const savedOf = await library.savedBlocks.reader(row.siteId);
    const [afterAnswers, looks, pictures, groups, campaigns] = await Promise.all([
      followUps.of(row.id),
      library.looks.list(row.siteId),
      library.pictures.list(row.siteId),
      sites.groups.list(row.siteId),
      namesIn(row.siteId),
    ]);
    const document: CampaignDocument = {
      ...row.draft,
      message: withSavedBlocks(row.draft.message, savedOf),
      variants: row.draft.variants.map((variant) => ({
        ...variant,
        message: withSavedBlocks(variant.message, savedOf),
      })),
    };
    const used = JSON.stringify(document);
    const isUsed = (id: string) => used.includes(id);
    const shown = new Set([
      ...[document.message, ...document.variants.map(({ message }) => message)].flatMap(picturesOf),
      ...Object.values(afterAnswers).flatMap(picturesOfMails),
    ]);
    return {
      velarium: 'campaign',
      version: 1,
      name: row.name,
      labels: row.labels,
      note: row.note,
      document,
      followUps: afterAnswers,
      names: {
        looks: Object.fromEntries(looks.filter(({ id }) => isUsed(id)).map(({ id, name }) => [id, name])),
        pictures: Object.fromEntries(
          pictures.filter(({ id }) => shown.has(id)).map(({ id, name }) => [id, name]),
        ),
        campaigns: Object.fromEntries([...campaigns].filter(([id]) => id !== row.id && isUsed(id))),
        groups: Object.fromEntries(
          groups.filter(({ id }) => isUsed(id)).map(({ id, ...group }) => [id, group]),
        ),
      },
    };
  }

  /** What a site has that a campaign can refer to. */
  async function offer(siteId: string): Promise<SiteOffer> {
    const [looks, pictures, groups, campaigns] = await Promise.all([
      library.looks.list(siteId),
      library.pictures.list(siteId),
      sites.groups.list(siteId),
      namesIn(siteId),
    ]);
    return {
      looks: new Map(looks.map(({ id, name }) => [id, name])),
      groups: new Map(groups.map(({ id, name }) => [id, name])),
      campaigns,
      pictures: new Set(pictures.map(({ id }) => id)),
    };
  }

  async function unpack(
    actor: Actor,
    siteId: string,
    file: CampaignFile,
    isOurs = false,
  ): Promise<ArrivedCampaign> {
    await sites.get(actor.workspaceId, siteId);
    // A file may hold the place of a saved block that was gone already; a site knows none of another's.
    const bare = (message: Message) => withSavedBlocks(message, () => undefined);
    const given: CampaignDocument = {
      ...file.document,
      message: bare(file.document.message),
      variants: file.document.variants.map((variant) => ({ ...variant, message: bare(variant.message) })),
    };
    const settled = settleIn({ ...file, document: given }, await offer(siteId), isOurs);
    const { document, lost } = settled;
    assertPatterns(document);
    const campaign = await insert(actor, siteId, file.name, document, { ...file, ...settled });
    return { campaign, lost: [...lost] };
  }

  return {
    pack: async (workspaceId: string, id: string): Promise<CampaignFile> =>
      packRow(await find(workspaceId, id)),
    /** Makes a draft of a file, with what the site lacks left out and told. */
    unpack: (actor: Actor, siteId: string, file: CampaignFile) => unpack(actor, siteId, file),
    /** The same from one site of the workspace to another, without the file between; a trial makes nothing. */
    async copyTo(
      actor: Actor,
      id: string,
      { siteId, isTrial }: CopyCampaign,
    ): Promise<Partial<ArrivedCampaign> & Pick<ArrivedCampaign, 'lost'>> {
      const file = await packRow(await find(actor.workspaceId, id));
      if (!isTrial) return unpack(actor, siteId, file, true);
      await sites.get(actor.workspaceId, siteId);
      return { lost: [...settleIn(file, await offer(siteId)).lost] };
    },
  };
}
