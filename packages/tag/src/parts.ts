import type * as Extras from './extras.ts';
import type * as Rare from './rare.ts';

/** What was loaded of the tag's other bundles; a part is missing where the site's campaigns do not need it. */
export type Parts = Partial<typeof Extras & typeof Rare>;
