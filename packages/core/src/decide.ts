/** What the tag takes of core: deciding, nothing of words, statistics or templates. */
export { deviceOf } from './devices/device.ts';
export { createPageIndex } from './manifest/page-index.ts';
export { createKeyReader } from './pages/page-key.ts';
export { createQuickScroll, exitSign } from './triggers/exit.ts';
export type { Fact } from './triggers/trigger.ts';
export * from './visit/memory.ts';
export { createPageView, type Now, type PageView, type PageViewFacts } from './visit/page-view.ts';
