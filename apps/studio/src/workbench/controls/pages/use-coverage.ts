import { type Coverage, useCoveredPages } from '../../../site/use-site.ts';
import { useWorkbenchLater } from '../../store.ts';

/** Which of the site's pages the campaign's rules cover. */
export function useCoverage(): Coverage {
  const siteId = useWorkbenchLater((state) => state.siteId);
  const rules = useWorkbenchLater((state) => state.document.rule.reach.pages);
  return useCoveredPages(siteId, rules);
}
