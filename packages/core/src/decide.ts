/** What the tag takes of core: deciding, nothing of words, statistics or templates. */
export { deviceOf } from './devices/device.ts';
export { createPageIndex } from './manifest/page-index.ts';
export * from './visit/memory.ts';
export { createPageView, type Now, type PageView } from './visit/page-view.ts';
