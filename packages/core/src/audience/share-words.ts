import type { AudienceShare } from '@velarium/contract';
import { figure, listOf } from '../sentence/words.ts';

const UNHEARD: Readonly<Record<string, string>> = {
  signedIn: 'whether somebody is signed in',
  basketItems: 'a basket',
  basketTotal: 'a basket',
  attribute: 'any attribute',
};
const percent = (share: number) => Math.round(share * 100);

/** The part of the visitors looked at who would have been in it, 0 to 1; 0 of none. */
export const shareInside = ({ inside, of }: Pick<AudienceShare, 'inside' | 'of'>): number =>
  of === 0 ? 0 : inside / of;

/**
 * How many visitors an audience would have held, as it may be said: counted where all were looked at, else reckoned
 * and with its interval.
 */
export function audienceShareWords({
  visitors,
  isSample,
  inside,
  of,
  low,
  high,
  unheard,
}: AudienceShare): string {
  const untold = [...new Set(unheard.map((kind) => UNHEARD[kind] ?? kind))];
  const gap =
    untold.length === 0 ? '' : ` No page told of ${listOf(untold)}, so it counts as not known of anybody.`;
  if (of === 0) return `No visit was recorded in the last 30 days.${gap}`;
  if (!isSample) {
    const all = `the ${figure(of)} ${of === 1 ? 'visitor' : 'visitors'} of the last 30 days`;
    return `${figure(inside)} of ${all} would have been in it (${percent(shareInside({ inside, of }))} %).${gap}`;
  }
  return `About ${figure(Math.round(visitors * shareInside({ inside, of })))} of about ${figure(visitors)} visitors of the last 30 days would have been in it: ${percent(low)} to ${percent(high)} %, reckoned from ${figure(of)} of them.${gap}`;
}
