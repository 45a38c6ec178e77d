/** Entry of the bundle that is loaded when a message comes near: drawing it, and what becomes of it. */

export { isLive } from './show/is-live.ts';
export { show } from './show/show.ts';
