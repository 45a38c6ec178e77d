import type { MetByPage } from '@velarium/contract';
import { MET_ON_DAYS } from '@velarium/contract/values';
import { countedPath, type PageParts } from '../pages/counted-path.ts';
import { figure } from '../sentence/words.ts';
import type { Coverage } from './coverage.ts';

/** How often campaigns were met on pages of the catalogue, or would be. */
export interface HowOften {
  /** Showings of a campaign on these pages, all of them by position. */
  times(pages: readonly number[], campaign: number): number;
  /** The most of one campaign on one page. */
  readonly most: number;
}

/**
 * Finds the places of the map for what is told by names and addresses, these as the site counts its pages; what is told of pages
 * nobody knows is left out.
 */
export function howOften(
  { pages, campaigns }: Pick<Coverage, 'pages' | 'campaigns'>,
  met: readonly MetByPage[],
  parts: PageParts,
): HowOften {
  const counted = countedPath(parts);
  const pageAt = new Map(pages.map(({ path }, n) => [counted(path), n]));
  const campaignAt = new Map(campaigns.map(({ id }, n) => [id, n]));
  const times = new Map<number, number>();
  for (const { campaign, path, showings } of met) {
    const [page, column] = [pageAt.get(counted(path)), campaignAt.get(campaign)];
    if (page === undefined || column === undefined) continue;
    const at = page * campaigns.length + column;
    times.set(at, (times.get(at) ?? 0) + showings);
  }
  return {
    times: (some, campaign) =>
      some.reduce((sum, page) => sum + (times.get(page * campaigns.length + campaign) ?? 0), 0),
    most: [...times.values()].reduce((most, one) => Math.max(most, one), 0),
  };
}

/** What the cells of the map say: who can appear, how often each was met lately, or how often it would be. */
export const CELLS_SAY = ['who', 'met', 'foreseen'] as const;
export type CellsSay = (typeof CELLS_SAY)[number];

/** `met 128 times in the last 28 days on all devices`; `would be met about 40 times in 28 days on all devices`. */
export function oftenWords(times: number, say: Exclude<CellsSay, 'who'>): string {
  const often = times === 1 ? 'once' : `${figure(times)} times`;
  if (say === 'met')
    return times === 0
      ? `not met in the last ${MET_ON_DAYS} days`
      : `met ${often} in the last ${MET_ON_DAYS} days on all devices`;
  return times === 0
    ? `would not be met in ${MET_ON_DAYS} days`
    : `would be met ${times === 1 ? often : `about ${often}`} in ${MET_ON_DAYS} days on all devices`;
}

const THOUSAND = 1000;
/** `7`, `840`, `1.2k`, `34k`: as much as a small cell holds. */
export const shortFigure = (count: number): string =>
  count < THOUSAND
    ? figure(count)
    : `${count < 10 * THOUSAND ? Math.floor(count / 100) / 10 : figure(Math.floor(count / THOUSAND))}k`;
