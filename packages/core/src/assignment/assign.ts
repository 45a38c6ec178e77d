import type { Manifest, Moment } from '@velarium/contract';
import { BUCKETS } from '@velarium/contract/values';
import { chooseLanguage } from '../languages/choose-language.ts';
import { murmur32 } from './murmur.ts';

/** The files of a message's languages, the original first. */
export type ByLanguage = readonly (readonly [language: string, message: string])[];

/** How one campaign's visitors are divided. */
export interface Experiment {
  readonly salt: string;
  /** Buckets of {@link BUCKETS} from which it is withheld. */
  readonly holdout: number;
  readonly variants: readonly {
    readonly id: string;
    /** Those it has, see `allot`. */
    readonly buckets: readonly (readonly [from: number, to: number])[];
    readonly message: string;
    readonly languages?: ByLanguage | undefined;
    readonly moment?: Moment | undefined;
  }[];
}

/**
 * Whether it is withheld from this visitor, and which variant they see. Sticky: the same visitor and salt give the
 * same answer for ever. Holdout and variant are drawn apart, so changing the holdout moves nobody between variants.
 */
export function assign(visitor: string, { salt, holdout, variants }: Experiment) {
  const bucketOf = (purpose: string) => murmur32(visitor + salt + purpose) % BUCKETS;
  const bucket = bucketOf('');
  const variant = variants.find(({ buckets }) => buckets.some(([from, to]) => from <= bucket && bucket < to));
  return { isHeld: bucketOf(':holdout') < holdout, variant };
}

/**
 * The manifest as it is for one visitor: each campaign with what their variant, and the first of the languages they want,
 * change of it. Who is not remembered (`null`) would be assigned anew on every page, so they are not divided at all: they have
 * the present message, and nothing is withheld from them.
 */
export const manifestFor = (
  visitor: string | null,
  manifest: Manifest,
  wanted: readonly string[] = [],
): Manifest => ({
  ...manifest,
  campaigns: manifest.campaigns.map((campaign) => {
    const experiment = visitor === null ? null : campaign.experiment;
    const variant = visitor !== null && experiment ? assign(visitor, experiment).variant : undefined;
    const { message, languages } = variant ?? campaign;
    const changed = { ...campaign, experiment, message: fileFor(wanted, languages) ?? message };
    return variant ? { ...changed, moment: variant.moment ?? campaign.moment, variant: variant.id } : changed;
  }),
});

/** The file of the first wanted language there is. */
function fileFor(wanted: readonly string[], languages: ByLanguage = []): string | undefined {
  const language = chooseLanguage(
    wanted,
    languages.map(([one]) => one),
  );
  return languages.find(([one]) => one === language)?.[1];
}
