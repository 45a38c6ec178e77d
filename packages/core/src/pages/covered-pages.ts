import type { Pages, SitePage, SiteSettings } from '@velarium/contract';
import { type AddressTrial, createAddressTrial } from './address-trial.ts';
import type { SitePages } from './resolve-pages.ts';

export interface CoveredPages {
  /** What the rules say of each known page, by path. */
  readonly fitOf: (path: string) => AddressTrial['fit'];
  readonly covered: readonly SitePage[];
  /** Page views of the covered pages in the last 30 days. */
  readonly views: number;
  /** Whether the rules cover every page there is, known or not. */
  readonly isEverywhere: boolean;
}

/** Which known pages of a site page rules cover. What only the page itself can tell counts as not so. */
export function coveredPages(
  rules: Pages,
  known: readonly SitePage[],
  site: { readonly settings: SiteSettings; readonly origins: readonly string[]; readonly pages: SitePages },
): CoveredPages {
  const trial = createAddressTrial(rules, site);
  const [origin = 'https://site.example'] = site.origins;
  const fits = new Map(
    known.map(({ path, kind }) => [path, trial(origin + path, { kind: kind ?? '', holds: () => false }).fit]),
  );
  const covered = known.filter(({ path }) => fits.get(path) === 'fits');
  return {
    fitOf: (path) => fits.get(path) ?? 'unmatched',
    covered,
    views: covered.reduce((sum, { views }) => sum + views, 0),
    isEverywhere:
      rules.include.some(({ kind }) => kind === 'every') && rules.exclude.length === 0 && !rules.follows,
  };
}

/** Where a campaign is met most: the covered page with most views; else the one a rule names, else the home page. */
export function busiestPage(covered: readonly SitePage[], { include }: Pick<Pages, 'include'>): string {
  const [first, ...rest] = covered;
  if (first) return rest.reduce((most, page) => (page.views > most.views ? page : most), first).path;
  const exact = include.find((page) => page.kind === 'exact');
  return exact?.kind === 'exact' ? exact.address : '/';
}
