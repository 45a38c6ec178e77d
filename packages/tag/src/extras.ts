/** Entry of the bundle that is loaded only where a manifest asks for more than time, exact pages and caps. */
export { EXTRAS } from '@velarium/core/extras';
export { observe } from './observe/observe.ts';
export { createToldFacts } from './page/visitor-facts.ts';
