import type { PageRule, Pages, SiteSettings } from '@velarium/contract';
import { compilePageRule } from '../manifest/compile.ts';
import type { PageFit } from '../manifest/page-fit.ts';
import { createKeyReader } from './page-key.ts';
import { isOnPage, type PageAddress, pageAddress } from './page-rule.ts';
import type { PageFacts } from './plain-page-rule.ts';
import { resolvePages, type SitePages } from './resolve-pages.ts';

/** What page rules say of one address, rule by rule. */
export interface AddressTrial {
  /** `nowhere` is on no page at all. */
  readonly fit: PageFit | 'nowhere';
  /** Positions of the rules that match it, in the campaign's own lists. */
  readonly includedBy: readonly number[];
  readonly excludedBy: readonly number[];
  /** Whether the campaign it follows includes or excludes it. */
  readonly includedByFollowed: boolean;
  readonly excludedByFollowed: boolean;
}

/** Reads a campaign's page rules one by one, so that a person can see which of them decides. */
export function createAddressTrial(
  pages: Pages,
  site: { readonly settings: SiteSettings; readonly pages: SitePages },
): (href: string, facts: PageFacts) => AddressTrial {
  const keysOf = createKeyReader(site.settings);
  const followed = resolvePages({ include: [], exclude: [], follows: pages.follows }, site.pages);
  const testOf = (rule: PageRule): ((page: PageAddress, facts: PageFacts) => boolean) => {
    if (rule.kind === 'group') {
      const tests = (site.pages.rulesOfGroup(rule.id) ?? []).map(testOf);
      return (page, facts) => tests.some((test) => test(page, facts));
    }
    if (rule.kind === 'exact') {
      const { full, path } = keysOf(rule.address);
      return (page) => (full === null ? page.path === path : page.full === full);
    }
    const compiled = compilePageRule(rule, keysOf);
    return (page, facts) => compiled !== undefined && isOnPage(compiled, page, facts);
  };
  const [include, exclude] = [pages.include.map(testOf), pages.exclude.map(testOf)];
  const [alsoInclude, alsoExclude] = [followed.include.map(testOf), followed.exclude.map(testOf)];
  // A group that is gone or empty names no page, so what counts is what the references stand for.
  const resolved = resolvePages(pages, site.pages);
  const isNowhere = resolved.include.length === 0 || resolved.exclude.some(({ kind }) => kind === 'every');
  return (href, facts) => {
    const page = pageAddress(href, keysOf(href));
    const holds = (test: (page: PageAddress, facts: PageFacts) => boolean) => test(page, facts);
    const matched = (tests: typeof include) => tests.flatMap((test, n) => (holds(test) ? n : []));
    const [includedBy, excludedBy] = [matched(include), matched(exclude)];
    const [includedByFollowed, excludedByFollowed] = [alsoInclude.some(holds), alsoExclude.some(holds)];
    const fit = isNowhere
      ? 'nowhere'
      : includedBy.length === 0 && !includedByFollowed
        ? 'unmatched'
        : excludedBy.length > 0 || excludedByFollowed
          ? 'excluded'
          : 'fits';
    return { fit, includedBy, excludedBy, includedByFollowed, excludedByFollowed };
  };
}
