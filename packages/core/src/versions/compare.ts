import type { BlockKind, CampaignDocument, Message, Pages, SitePage } from '@velarium/contract';
import { textsOf } from '../checks/text-of.ts';
import { changedPlaces } from '../merge/merge.ts';
import { allBlocks } from '../message/walk.ts';
import { type AddressTrial, createAddressTrial } from '../pages/address-trial.ts';
import type { Names } from '../sentence/names.ts';
import { documentSentence, type SentencePart } from '../sentence/rule-sentence.ts';

/** Something that was said in one way and is said in another; `null` where it was or is not said at all. */
interface Change {
  readonly before: string | null;
  readonly after: string | null;
}
export interface ChangedPhrase extends Change {
  readonly part: SentencePart;
}
export interface ChangedWords extends Change {
  readonly kind: BlockKind;
  readonly blockId: string;
}

export interface Comparison {
  /** Phrases of the sentence, in its order. */
  readonly phrases: readonly ChangedPhrase[];
  /** Words of the message, block by block. */
  readonly words: readonly ChangedWords[];
  /** Places of the message, or of its variants, that are set otherwise, beside their words. */
  readonly settings: readonly string[];
}

/** The phrases of a campaign's sentence by the part they speak of; those of one part are one. */
export function phrasesOf(document: CampaignDocument, names: Names | undefined): Map<SentencePart, string> {
  const said = new Map<SentencePart, string>();
  for (const { part, text } of documentSentence(document, names))
    if (part !== null) said.set(part, said.has(part) ? `${said.get(part)}, ${text}` : text);
  return said;
}

/** Phrases that differ, in the order of the sentence. */
export const changedPhrases = (
  was: ReadonlyMap<SentencePart, string>,
  is: ReadonlyMap<SentencePart, string>,
): ChangedPhrase[] =>
  [...new Set([...was.keys(), ...is.keys()])].flatMap((part) => {
    const change = { before: was.get(part) ?? null, after: is.get(part) ?? null };
    return change.before === change.after ? [] : [{ part, ...change }];
  });

/** What each block says to a visitor, by its id. */
const wordsOf = (message: Message): Map<string, { readonly kind: BlockKind; readonly said: string }> =>
  new Map(
    allBlocks(message).map((block) => [
      block.id,
      {
        kind: block.kind,
        said: textsOf(block)
          .filter((text) => text.trim() !== '')
          .join(' · '),
      },
    ]),
  );

const WORDS_OF_BLOCKS =
  /\.(?:text|content|label|submitLabel|consentText|copyLabel|copiedLabel|overText|code|title|markup|ways|fields)(?:\.|$)/;

/** Whether a path of a document is told by the sentence already, or by the words of a block. */
const isToldElsewhere = (path: string): boolean =>
  path.startsWith('rule') ||
  /^message\.(?:format|anchor|close\.(?:afterSeconds|means))$/.test(path) ||
  (path.startsWith('message.steps') && WORDS_OF_BLOCKS.test(path));

/** What differs between two states of a campaign: of its rule as the sentence says it, of its words, and of its look. */
export function compareDocuments(
  before: CampaignDocument,
  after: CampaignDocument,
  names?: Names,
): Comparison {
  const [saidBefore, saidAfter] = [wordsOf(before.message), wordsOf(after.message)];
  const blocks = new Set([...saidBefore.keys(), ...saidAfter.keys()]);
  return {
    phrases: changedPhrases(phrasesOf(before, names), phrasesOf(after, names)),
    words: [...blocks].flatMap((blockId) => {
      const [old, now] = [saidBefore.get(blockId), saidAfter.get(blockId)];
      const kind = now?.kind ?? old?.kind;
      const change = { before: old?.said ?? null, after: now?.said ?? null };
      return kind === undefined || change.before === change.after ? [] : [{ kind, blockId, ...change }];
    }),
    settings: changedPlaces(before, after).filter((path) => !isToldElsewhere(path)),
  };
}

export const isSameCampaign = ({ phrases, words, settings }: Comparison): boolean =>
  phrases.length + words.length + settings.length === 0;

/** Some of a site's pages, the most visited first, with the views of all of them together. */
export interface MovedPages {
  readonly pages: readonly SitePage[];
  readonly views: number;
}
/** Pages a campaign comes to, and pages it leaves. */
export interface PagesMoved {
  readonly gained: MovedPages;
  readonly lost: MovedPages;
}

/** Which known pages other page rules cover than before. */
export function pagesMoved(
  before: Pages,
  after: Pages,
  known: readonly SitePage[],
  site: Parameters<typeof createAddressTrial>[1] & { readonly origins: readonly string[] },
): PagesMoved {
  const [origin = 'https://site.example'] = site.origins;
  const [was, is] = [createAddressTrial(before, site), createAddressTrial(after, site)];
  const fits = (
    trial: (address: string, told: { kind: string; holds: () => boolean }) => AddressTrial,
    page: SitePage,
  ) => trial(origin + page.path, { kind: page.kind ?? '', holds: () => false }).fit === 'fits';
  const moved = known
    .map((page) => ({ page, was: fits(was, page), is: fits(is, page) }))
    .sort((a, b) => b.page.views - a.page.views);
  return {
    gained: together(moved.filter((one) => one.is && !one.was)),
    lost: together(moved.filter((one) => one.was && !one.is)),
  };
}

const together = (moved: readonly { readonly page: SitePage }[]): MovedPages => ({
  pages: moved.map(({ page }) => page),
  views: moved.reduce((sum, { page }) => sum + page.views, 0),
});
