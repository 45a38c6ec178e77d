import type { MessagePart, TagPart } from '@velarium/contract';

/** Replaced at build time by the hash of the other bundles' content, which is in their files' names. */
declare const __RELEASE__: string;

export type BundleName = TagPart | MessagePart | 'renderer' | 'panel' | 'within';
/** Loads one of the tag's other bundles from the edge. */
export const loadBundle = <Bundle>(edge: string, name: BundleName): Promise<Bundle> =>
  import(/* @vite-ignore */ `${edge}/tag/${name}-${__RELEASE__}.js`);
