import type { MessagePart, TagPart } from '@velarium/contract';

/** Replaced at build time by the names of the other bundles, which carry their content hashes. */
declare const __FILES__: Readonly<Record<TagPart | MessagePart | 'renderer' | 'panel', string>>;

export type BundleName = keyof typeof __FILES__;
/** Loads one of the tag's other bundles from the edge. */
export const loadBundle = <Bundle>(edge: string, name: BundleName): Promise<Bundle> =>
  import(/* @vite-ignore */ `${edge}/tag/${__FILES__[name]}`);
