import { useViewTransitionState } from 'react-router';

/** Whether one place glides into another: not for those who ask for less motion. */
export const mayGlide = (): boolean => !matchMedia('(prefers-reduced-motion: reduce)').matches;

/** What of a campaign stays in sight while its Workbench opens or closes. */
type InSight = 'name' | 'message';

/**
 * The style by which a part of a campaign is known to be the same in the place that is left and the one that comes; none while
 * nobody goes from one to the other, since two parts may not have one name.
 */
export function useGlide(
  siteId: string,
  campaignId: string,
): (part: InSight) => { viewTransitionName?: string } {
  const isGliding = useViewTransitionState(`/sites/${siteId}/campaigns/${campaignId}`);
  return (part) => (isGliding ? { viewTransitionName: `campaign-${part}` } : {});
}
