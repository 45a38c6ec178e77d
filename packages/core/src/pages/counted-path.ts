import type { SiteSettings } from '@velarium/contract';

/** How a site tells its pages apart when they are counted. */
export type PageParts = Pick<SiteSettings, 'pageParameters' | 'hashRoutes'>;

/**
 * Under which path a page is counted: without a slash at its end, of its query only the parameters the site says tell its
 * pages apart, in one order, and its route where fragments are routes. `page` is a path as browsers write it.
 */
export function countedPath({ pageParameters, hashRoutes }: PageParts): (page: string) => string {
  const kept = new Set(pageParameters.map((name) => name.toLowerCase()));
  return (page) => {
    const [, path = '', query = '', fragment = ''] = /^([^?#]*)(?:\?([^#]*))?(?:#(.*))?$/s.exec(page) ?? [];
    const pairs = query
      .split('&')
      .filter((pair) => kept.has((pair.split('=', 1)[0] ?? '').toLowerCase()))
      .sort();
    const route = hashRoutes && /^!?\//.test(fragment) ? `#${fragment}` : '';
    return `${path.replace(/(?<!\/)\/+$/, '') || '/'}${pairs.length > 0 ? `?${pairs.join('&')}` : ''}${route}`;
  };
}
