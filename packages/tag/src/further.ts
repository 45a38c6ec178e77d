/** Entry of the bundle for what most messages do not use: rarer blocks, and words that depend on the visitor. */
import { further as drawing } from '@velarium/render/further';
import { personalFacts } from './show/personal-facts.ts';

/** Messages published before `behind` was a part of its own ask for this one instead. */
export { treatPage } from '@velarium/render/behind';
export const further = { ...drawing, personalFacts };
