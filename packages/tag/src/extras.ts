/** Entry of the bundle that is loaded only where a manifest asks for more than time, pages by their address and caps. */
import { EXTRAS } from '@velarium/core/extras';
import { observe } from './observe/observe.ts';
import { createToldFacts } from './page/visitor-facts.ts';

export const PART = { ...EXTRAS, observe, createToldFacts };
