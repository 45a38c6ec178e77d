import type { Device, MetByPage } from '@velarium/contract';
import { MET_ON_DAYS } from '@velarium/contract/values';
import { countedPath, type PageParts } from '../pages/counted-path.ts';
import { DEVICES_WORDS, figure } from '../sentence/words.ts';
import type { Coverage } from './coverage.ts';

/** How often campaigns were met on pages of the catalogue by visitors with one kind of device, or would be. */
export interface HowOften {
  /** Showings of a campaign on these pages, all of them by position. */
  times(pages: readonly number[], campaign: number): number;
  /** The most of one campaign on one page. */
  readonly most: number;
  readonly device: Device;
}

/**
 * Finds the places of the map for what is told by names and addresses, these as the site counts its pages; what is told of pages
 * nobody knows is left out.
 */
export function howOften(
  { pages, campaigns }: Pick<Coverage, 'pages' | 'campaigns'>,
  met: readonly MetByPage[],
  parts: PageParts,
  device: Device,
): HowOften {
  const counted = countedPath(parts);
  const pageAt = new Map(pages.map(({ path }, n) => [counted(path), n]));
  const campaignAt = new Map(campaigns.map(({ id }, n) => [id, n]));
  const times = new Map<number, number>();
  for (const { campaign, path, device: on, showings } of met) {
    if (on !== device) continue;
    const [page, column] = [pageAt.get(counted(path)), campaignAt.get(campaign)];
    if (page === undefined || column === undefined) continue;
    const at = page * campaigns.length + column;
    times.set(at, (times.get(at) ?? 0) + showings);
  }
  return {
    times: (some, campaign) =>
      some.reduce((sum, page) => sum + (times.get(page * campaigns.length + campaign) ?? 0), 0),
    most: [...times.values()].reduce((most, one) => Math.max(most, one), 0),
    device,
  };
}

/** What the cells of the map say: who can appear, how often each was met lately, or how often it would be. */
export const CELLS_SAY = ['who', 'met', 'foreseen'] as const;
export type CellsSay = (typeof CELLS_SAY)[number];

/** `met 128 times on phones in the last 28 days`; `would be met about 40 times on desktops in 28 days`. */
export function oftenWords(times: number, device: Device, say: Exclude<CellsSay, 'who'>): string {
  const often = times === 1 ? 'once' : `${figure(times)} times`;
  const on = `on ${DEVICES_WORDS[device]}`;
  if (say === 'met')
    return `${times === 0 ? 'not met' : `met ${often}`} ${on} in the last ${MET_ON_DAYS} days`;
  if (times === 0) return `would not be met ${on} in ${MET_ON_DAYS} days`;
  return `would be met ${times === 1 ? often : `about ${often}`} ${on} in ${MET_ON_DAYS} days`;
}

const THOUSAND = 1000;
/** `7`, `840`, `1.2k`, `34k`: as much as a small cell holds. */
export const shortFigure = (count: number): string =>
  count < THOUSAND
    ? figure(count)
    : `${count < 10 * THOUSAND ? Math.floor(count / 100) / 10 : figure(Math.floor(count / THOUSAND))}k`;
