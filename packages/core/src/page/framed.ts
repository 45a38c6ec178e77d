import type { SiteSettings } from '@velarium/contract';

/** Smallest frame that a message can be read in, in CSS pixels: one that measures or keeps a session is smaller, or not drawn. */
const LEAST_WIDTH = 240;
const LEAST_HEIGHT = 200;

export interface Framed {
  /** Host of the page in the frame. */
  readonly host: string;
  /** Host of the page around everything; `undefined` where the browser does not say. */
  readonly hostAround: string | undefined;
  /** Whether the two can see one another, and so share a floor. */
  readonly isSameOrigin: boolean;
  /** Of the frame's own window, CSS pixels. */
  readonly width: number;
  readonly height: number;
}

/** Whether `host` is `domain` or below it. */
const isUnder = (host: string, domain: string): boolean => host === domain || host.endsWith(`.${domain}`);

/**
 * Whether the tag works in a frame. Within the site's own page it rests, since two would show two messages to one person; a
 * site may let it work there under one floor, in frames that can see that floor and are large enough to read in. In a page of
 * somebody else it works as on a page of its own.
 */
export function worksInFrame(
  { host, hostAround, isSameOrigin, width, height }: Framed,
  { worksInFrames, sharedDomain }: Pick<SiteSettings, 'worksInFrames' | 'sharedDomain'>,
): boolean {
  if (isSameOrigin) return worksInFrames === true && width >= LEAST_WIDTH && height >= LEAST_HEIGHT;
  if (hostAround === undefined) return true;
  const [own, around] = [host, hostAround].map((one) => one.replace(/^www\./, '')) as [string, string];
  const isShared = sharedDomain !== null && isUnder(own, sharedDomain) && isUnder(around, sharedDomain);
  return !(isShared || isUnder(own, around) || isUnder(around, own));
}
