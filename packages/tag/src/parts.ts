import type { PART as Extras } from './extras.ts';
import type { PART as Rare } from './rare.ts';

/** Those of the tag's bundles that a manifest asks for, each as one object: its names are short, as an export's cannot be. */
export interface PartBundles {
  readonly extras: { readonly PART: typeof Extras };
  readonly rare: { readonly PART: typeof Rare };
}
/** What was loaded of them; a part is missing where neither the site nor the page needs it. */
export type Parts = Partial<typeof Extras & typeof Rare>;
