/** What the tag takes of core: deciding, nothing of words, statistics or templates. */
export { deviceOf } from './devices/device.ts';
export { createPageIndex } from './manifest/page-index.ts';
export { pageKeys, trackingTest } from './pages/page-key.ts';
export type { Fact } from './triggers/trigger.ts';
export type { Extras } from './visit/extras.ts';
export * from './visit/memory.ts';
export { needsExtras } from './visit/needs.ts';
export { createPageView, type Now, type PageView, type PageViewFacts } from './visit/page-view.ts';
