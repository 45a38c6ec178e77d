import type { Audience, Manifest, RehearsedVisitor } from '@velarium/contract';
import { arrivalAt } from '../rehearsal/prepared-page.ts';
import { beginMemory, rehearsedFacts } from '../rehearsal/visitor.ts';
import { EXTRAS } from '../visit/extras.ts';

/** Conditions that a visit which begins on another page may answer differently. */
const OF_FIRST_PAGE: ReadonlySet<string> = new Set(['landing', 'arrival']);

const asksFirstPage = ({ groups }: Audience): boolean =>
  groups.some(({ items }) => items.some(({ condition }) => OF_FIRST_PAGE.has(condition.kind)));

/**
 * Whether a visitor whose visit begins on a page is in the audience of a campaign, asked as the tag asks. What does not depend
 * on the page is asked once for all of them.
 */
export function audienceFor(
  manifest: Manifest,
  visitor: RehearsedVisitor,
  atMs: number,
): (path: string, campaign: number) => boolean {
  const told = rehearsedFacts(visitor, manifest.timeZone);
  const memoryOn = (path: string) => beginMemory(visitor, arrivalAt(path, visitor.referrer), manifest, atMs);
  const isIn = (campaign: number, memory: ReturnType<typeof memoryOn>): boolean => {
    const one = manifest.campaigns[campaign];
    return !one?.audience || EXTRAS.isInAudience(one.audience, memory, told, one.id);
  };
  const anywhere = memoryOn('/');
  const known = manifest.campaigns.map(({ audience }, campaign) =>
    audience && asksFirstPage(audience) ? undefined : isIn(campaign, anywhere),
  );
  let last = { path: '/', memory: anywhere };
  return (path, campaign) => {
    const answer = known[campaign];
    if (answer !== undefined) return answer;
    if (last.path !== path) last = { path, memory: memoryOn(path) };
    return isIn(campaign, last.memory);
  };
}
