import type { SiteSettings } from '@velarium/contract';
import { worksInFrame } from '@velarium/core/frames';
import { pageAround } from './page-around.ts';

/** Host of the outermost page, as far as the browser tells of another origin. */
function hostAround(): string | undefined {
  const { ancestorOrigins } = location as { ancestorOrigins?: DOMStringList };
  const address = ancestorOrigins?.[ancestorOrigins.length - 1] ?? document.referrer;
  return URL.canParse?.(address) ? new URL(address).hostname : undefined;
}

/** Whether this document's tag has the word here; see core. */
export const worksHere = (site: SiteSettings): boolean =>
  worksInFrame(
    {
      host: location.hostname,
      hostAround: hostAround(),
      isSameOrigin: pageAround() !== undefined,
      width: innerWidth,
      height: innerHeight,
    },
    site,
  );
