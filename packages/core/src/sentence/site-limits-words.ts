import type { SiteSettings } from '@velarium/contract';
import { quantity } from './words.ts';

/** What a visitor meets at most under a site's limits, as a whole sentence: `A visitor meets at most …`. */
export function siteLimitsWords({
  perPageView,
  perSession,
  perDay,
  gapSeconds,
}: SiteSettings['limits']): string {
  const parts = [
    ...(perPageView === null ? [] : [`${quantity(perPageView, 'message')} on a page`]),
    ...(perSession === null ? [] : [`${perSession} in a session`]),
    ...(perDay === null ? [] : [`${perDay} in a day`]),
  ];
  const most =
    parts.length === 0
      ? 'A visitor can meet any number of messages'
      : `A visitor meets at most ${parts.join(', ')}`;
  return `${most}${gapSeconds > 0 ? `, never two within ${quantity(gapSeconds, 'second')}` : ''}.`;
}
