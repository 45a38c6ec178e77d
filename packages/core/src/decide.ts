/** What the tag takes of core: deciding, nothing of words, statistics or templates. */
export { deviceOf } from './devices/device.ts';
export { createPageIndex, type PageIndex } from './manifest/page-index.ts';
export { createDepth, type Depth, type DepthState, SETTLED_MS, scrolls } from './page/depth.ts';
export { createMouseLeaving } from './page/leaving-by-mouse.ts';
export { isReached, reachedHeight } from './page/reached.ts';
export { createViewable } from './page/viewable.ts';
export { createKeyReader, withoutSlash } from './pages/page-key.ts';
export { causeOf } from './triggers/cause.ts';
export type { Fact } from './triggers/trigger.ts';
export * from './visit/memory.ts';
export { createPageView, type Now, type PageView } from './visit/page-view.ts';
export { toJson } from './visit/to-json.ts';
export type { PageViewFacts } from './visit/visitor-facts.ts';
