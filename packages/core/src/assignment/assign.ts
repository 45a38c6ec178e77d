import type { Manifest, Moment } from '@velarium/contract';
import { BUCKETS } from '@velarium/contract/values';
import { murmur32 } from './murmur.ts';

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

/** The manifest as it is for one visitor: each campaign with what their variant changes of it. */
export const manifestFor = (visitor: string, manifest: Manifest): Manifest => ({
  ...manifest,
  campaigns: manifest.campaigns.map((campaign) => {
    const variant = campaign.experiment && assign(visitor, campaign.experiment).variant;
    return variant
      ? {
          ...campaign,
          message: variant.message,
          moment: variant.moment ?? campaign.moment,
          variant: variant.id,
        }
      : campaign;
  }),
});
