import type { PageGroup, ResultPart, Site, SitePage } from '@velarium/contract';
import { createAddressTrial } from '../pages/address-trial.ts';
import { countedPath } from '../pages/counted-path.ts';
import { NO_SITE_PAGES } from '../pages/resolve-pages.ts';

/**
 * Visitors by page, told by the site's page groups instead: they count with every group their page is in, and with none (`null`)
 * where it is in none. A page is of the kind the catalogue knows it by; what only the page itself can tell counts as not so.
 */
export function partsByGroup(
  byPage: readonly ResultPart[],
  groups: readonly PageGroup[],
  site: Pick<Site, 'settings' | 'origins'> & { readonly known: readonly Pick<SitePage, 'path' | 'kind'>[] },
): ResultPart[] {
  const [origin = 'https://site.example'] = site.origins;
  const counted = countedPath(site.settings);
  const kinds = new Map(site.known.map(({ path, kind }) => [path, kind]));
  const trials = groups.map(({ name, rules }) => ({
    name,
    trial: createAddressTrial(
      { include: rules, exclude: [], follows: null },
      { settings: site.settings, pages: NO_SITE_PAGES },
    ),
  }));
  const sums = new Map<string | null, ResultPart>();
  for (const { key: path, visitors, converters } of byPage) {
    const facts = { kind: (path === null ? undefined : kinds.get(counted(path))) ?? '', holds: () => false };
    const names = trials.flatMap(({ name, trial }) =>
      path !== null && trial(origin + path, facts).fit === 'fits' ? name : [],
    );
    for (const key of names.length > 0 ? names : [null]) {
      const sum = sums.get(key);
      sums.set(key, {
        key,
        visitors: (sum?.visitors ?? 0) + visitors,
        converters: (sum?.converters ?? 0) + converters,
      });
    }
  }
  return [...sums.values()].sort(
    (a, b) => b.visitors - a.visitors || (a.key ?? '').localeCompare(b.key ?? ''),
  );
}
