import type { CampaignSummary } from '@velarium/contract';
import type { Lane, Meeting } from '../season/season.ts';
import { counted, quoted } from '../sentence/words.ts';

const DAY_MS = 86_400_000;
const WEEK_MS = 7 * DAY_MS;

/** Why somebody should look at a campaign, the most pressing first. */
export type AttentionKind = 'failing' | 'awaiting' | 'unseen' | 'ending' | 'colliding';
export interface Attention {
  readonly kind: AttentionKind;
  readonly text: string;
}

type Watched = Pick<
  CampaignSummary,
  'state' | 'awaits' | 'publishedAt' | 'endsAt' | 'shownLately' | 'givenUp'
>;

/**
 * What of a campaign wants a look: what its answers sent out and nobody got, a launch
 * that waits for a second person, what has run for a week without being seen,
 * and what ends within one.
 */
export function attentionOf(campaign: Watched, nowMs: number): readonly Attention[] {
  const { state, publishedAt, endsAt, shownLately, givenUp } = campaign;
  const found: Attention[] = [];
  if (givenUp > 0 && state !== 'archived')
    found.push({
      kind: 'failing',
      text: `${counted(givenUp, 'message')} after its answers could not be delivered`,
    });
  if (campaign.awaits && state !== 'archived')
    found.push({ kind: 'awaiting', text: 'waits for a second person' });
  if (state !== 'running') return found;
  if (publishedAt !== null && nowMs - Date.parse(publishedAt) >= WEEK_MS && shownLately === 0)
    found.push({ kind: 'unseen', text: 'nobody has met it for a week' });
  const leftMs = endsAt === null ? Number.POSITIVE_INFINITY : Date.parse(endsAt) - nowMs;
  if (leftMs > 0 && leftMs <= WEEK_MS) {
    const days = Math.ceil(leftMs / DAY_MS);
    found.push({ kind: 'ending', text: days === 1 ? 'ends within a day' : `ends within ${days} days` });
  }
  return found;
}

/** Of campaigns that want one place, by the id of who comes second: after whom, and on how many pages; the first found says it. */
export function comingAfter(found: readonly Meeting[], lanes: readonly Lane[]): ReadonlyMap<string, string> {
  const texts = new Map<string, string>();
  for (const { first, second, pages } of found) {
    const [one, other] = [lanes[first], lanes[second]];
    if (one && other && !texts.has(other.id))
      texts.set(other.id, `comes after ${quoted(one.name)} on ${counted(pages, 'page')}`);
  }
  return texts;
}
