import type { MessagePart, TagPart } from '@velarium/contract';

/** Replaced at build time by the hash of the other bundles' content, which is in their files' names. */
declare const __RELEASE__: string;

export type BundleName = TagPart | MessagePart | 'renderer' | 'preview' | 'verdicts' | 'within';
/** Loads one of the tag's other bundles. */
export type LoadPart = <Bundle>(name: BundleName) => Promise<Bundle>;
/** Asks the edge for something of this site's, `undefined` where it has none. */
export type Ask = <Answer>(path: string) => Promise<Answer | undefined>;

export const loadBundle = <Bundle>(edge: string, name: BundleName): Promise<Bundle> =>
  import(/* @vite-ignore */ `${edge}/tag/${name}-${__RELEASE__}.js`);
