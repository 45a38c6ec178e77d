import type { CampaignDocument, Cast, Manifest, ManifestCampaign } from '@velarium/contract';
import { murmur32 } from '../assignment/murmur.ts';
import type { Names } from '../sentence/names.ts';
import type { SentencePart } from '../sentence/rule-sentence.ts';
import { siteLimitsWords } from '../sentence/site-limits-words.ts';
import { quoted } from '../sentence/words.ts';
import { changedPhrases, phrasesOf } from '../versions/compare.ts';

/** What rehearsals were played against, as far as anybody can change it: enough to say later what is otherwise. */
export interface CastState {
  readonly campaigns: readonly {
    readonly id: string;
    readonly name: string;
    readonly phrases: Readonly<Partial<Record<SentencePart, string>>>;
    /** Of all that decides when it opens, what its sentence only refers to included. */
    readonly mark: number;
  }[];
  readonly limits: string;
  /** Of the site's other settings. */
  readonly settings: number;
}

const markOf = (value: unknown): number => murmur32(JSON.stringify(value));

/** What a campaign shows, and when it was counted, decides nothing. */
const decidingOf = ({ message: _m, languages: _l, version: _v, epoch: _e, ...deciding }: ManifestCampaign) =>
  deciding;

export function castStateOf(
  {
    manifest,
    campaigns,
  }: Pick<Cast, 'campaigns'> & { readonly manifest: Pick<Manifest, 'site' | 'campaigns'> },
  documentOf: (id: string) => CampaignDocument | undefined,
  names: Names,
): CastState {
  const { limits, ...settings } = manifest.site;
  const compiled = new Map(manifest.campaigns.map((one) => [one.id, one]));
  return {
    campaigns: campaigns.map(({ id, name }) => {
      const document = documentOf(id);
      const found = compiled.get(id);
      return {
        id,
        name,
        phrases: document ? Object.fromEntries(phrasesOf(document, names)) : {},
        mark: found ? markOf(decidingOf(found)) : 0,
      };
    }),
    limits: siteLimitsWords(limits),
    settings: markOf(settings),
  };
}

/** What is otherwise than it was, a sentence each. */
export function changesSince(before: CastState, now: CastState): string[] {
  const was = new Map(before.campaigns.map((one) => [one.id, one]));
  const is = new Map(now.campaigns.map((one) => [one.id, one]));
  return [
    ...now.campaigns.flatMap(({ id, name, phrases, mark }) => {
      const old = was.get(id);
      if (!old) return [`${quoted(name)} is new among them.`];
      const changed = changedPhrases(phraseMap(old.phrases), phraseMap(phrases));
      if (changed.length === 0 && old.mark !== mark)
        return [`${quoted(name)} reads as it did, but something it refers to is otherwise.`];
      return changed.map(
        ({ before: said, after: says }) =>
          `${quoted(name)}: ${said === null ? `${quoted(says ?? '')} is new` : says === null ? `${quoted(said)} is gone` : `${quoted(said)} has become ${quoted(says)}`}.`,
      );
    }),
    ...before.campaigns.flatMap(({ id, name }) =>
      is.has(id) ? [] : [`${quoted(name)} is no longer among them.`],
    ),
    ...(before.limits === now.limits
      ? []
      : [`The site’s limits: ${quoted(before.limits)} has become ${quoted(now.limits)}.`]),
    ...(before.settings === now.settings ? [] : ['Settings of the site are otherwise.']),
  ];
}

const phraseMap = (phrases: CastState['campaigns'][number]['phrases']) =>
  new Map(Object.entries(phrases) as [SentencePart, string][]);
