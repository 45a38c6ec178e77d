/** Entry of the bundle for what most messages do not use: rarer blocks, and words that depend on the visitor. */
import { further as drawing } from '@velarium/render/further';
import { personalFacts } from './show/personal-facts.ts';

export const further = { ...drawing, personalFacts };
