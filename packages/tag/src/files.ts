import type { MessagePart, TagPart } from '@velarium/contract';

/** Replaced at build time by the content hashes of the other bundles, which are in their files' names. */
declare const __HASHES__: Readonly<Record<TagPart | MessagePart | 'renderer' | 'panel', string>>;

export type BundleName = keyof typeof __HASHES__;
/** Loads one of the tag's other bundles from the edge. */
export const loadBundle = <Bundle>(edge: string, name: BundleName): Promise<Bundle> =>
  import(/* @vite-ignore */ `${edge}/tag/${name}-${__HASHES__[name]}.js`);
