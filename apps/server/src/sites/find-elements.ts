import type { ElementSeen } from '@velarium/contract';
import { selectOne } from 'css-select';
import { parseHtml } from '../infra/html.ts';
import type { ReadOutside } from '../infra/outside.ts';
import { isOverTime, withinTime } from '../infra/within-time.ts';

const TIMEOUT_MS = 6000;
const PAGE_BYTES = 2_000_000;
/** How long one selector may be looked for on one page, and all of them on all: siblings of siblings of siblings are without end. */
const LOOK_MS = 500;
const ALL_MS = 2000;

/**
 * On which of these pages of a site each selector finds something in the source. What scripts put in later is not
 * seen; a page that cannot be had, or on which a selector takes too long, is not counted, and a selector that is none finds
 * nothing.
 */
export async function findElements(
  readOutside: ReadOutside,
  origin: string,
  paths: readonly string[],
  selectors: readonly string[],
): Promise<ElementSeen[]> {
  const read = await Promise.all(
    paths.map(async (path) => {
      const page = await readOutside(origin + path, {
        mostBytes: PAGE_BYTES,
        timeoutMs: TIMEOUT_MS,
        isCut: true,
        accept: 'text/html',
      }).catch(() => undefined);
      return page?.status === 200 ? { path, document: parseHtml(page.bytes.toString('utf8')) } : undefined;
    }),
  );
  const pages = read.filter((page) => page !== undefined);
  const untilMs = performance.now() + ALL_MS;
  return selectors.map((selector) => {
    const looked = pages.map(({ path, document }) => {
      const time = Math.min(LOOK_MS, untilMs - performance.now());
      return { path, isThere: time > 0 ? isThere(selector, document, time) : undefined };
    });
    return {
      selector,
      of: looked.filter((page) => page.isThere !== undefined).length,
      pages: looked.filter((page) => page.isThere).map(({ path }) => path),
    };
  });
}

/** `undefined` where that took too long to say. */
function isThere(
  selector: string,
  document: ReturnType<typeof parseHtml>,
  milliseconds: number,
): boolean | undefined {
  try {
    return withinTime(milliseconds, () => selectOne(selector, document) !== null);
  } catch (error) {
    return isOverTime(error) ? undefined : false;
  }
}
