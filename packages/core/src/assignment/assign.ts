import { BUCKETS } from '@velarium/contract/values';
import { murmur32 } from './murmur.ts';

/** How one campaign's visitors are divided. Weights are shares of each other. */
export interface Experiment {
  readonly salt: string;
  /** Buckets of {@link BUCKETS} from which it is withheld. */
  readonly holdout: number;
  readonly variants: readonly { readonly id: string; readonly weight: number; readonly message: string }[];
}

/**
 * Whether it is withheld from this visitor, and which variant they see. Sticky: the same visitor and salt give the
 * same answer for ever. Holdout and variant are drawn apart, so changing the holdout moves nobody between variants.
 */
export function assign(visitor: string, { salt, holdout, variants }: Experiment) {
  const bucketOf = (purpose: string) => murmur32(visitor + salt + purpose) % BUCKETS;
  const total = variants.reduce((sum, { weight }) => sum + weight, 0);
  let rest = (bucketOf('') * total) / BUCKETS;
  // One without weight covers no bucket, so adding it moves nobody.
  const variant = variants.find(({ weight }) => {
    rest -= weight;
    return rest < 0;
  });
  return { isHeld: bucketOf(':holdout') < holdout, variant };
}
