import type { ElementSeen } from '@velarium/contract';
import { selectOne } from 'css-select';
import { parseDocument } from 'htmlparser2';
import type { ReadOutside } from '../infra/outside.ts';

const TIMEOUT_MS = 6000;
const PAGE_BYTES = 2_000_000;

/**
 * On which of these pages of a site each selector finds something in the source. What scripts put in later is not
 * seen; a page that cannot be had is not counted, and a selector that is none finds nothing.
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
      return page?.status === 200
        ? { path, children: parseDocument(page.bytes.toString('utf8')).children }
        : undefined;
    }),
  );
  const pages = read.filter((page) => page !== undefined);
  return selectors.map((selector) => ({
    selector,
    of: pages.length,
    pages: pages
      .filter(({ children }) => {
        try {
          return selectOne(selector, children) !== null;
        } catch {
          return false;
        }
      })
      .map(({ path }) => path),
  }));
}
