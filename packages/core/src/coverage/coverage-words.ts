import type { Device, ManifestCampaign, MetOn, Rule, SitePage } from '@velarium/contract';
import { MET_ON_DAYS } from '@velarium/contract/values';
import { earliestOf, inTheWay, type Met } from '../checks/in-the-way.ts';
import { neverFindings, scheduleFindings } from '../checks/never.ts';
import { counted, DEVICES_WORDS, figure, listOf, quoted } from '../sentence/words.ts';
import type { Cell, Coverage } from './coverage.ts';
import type { HowOften } from './how-often.ts';

/** A campaign that coverage is about, as people know it. */
export interface Covering {
  readonly id: string;
  readonly name: string;
  readonly rule: Rule;
}

/** Something about a site's coverage that is worth a look. */
export interface CoverageNote {
  readonly code: 'empty' | 'crowded' | 'never' | 'nothing' | 'late' | 'twins';
  readonly text: string;
  /** The page, or the campaign, one looks at for it: by position. */
  readonly page?: number;
  readonly campaign?: number;
}

/** Three that want one place are a crowd: two take turns. */
const CROWD = 3;
const NAMED = 3;

const some = (names: readonly string[]): string => {
  const more = names.length - NAMED;
  return listOf(more > 0 ? [...names.slice(0, NAMED), `${figure(more)} more`] : names);
};
const views = (pages: readonly SitePage[]): number => pages.reduce((sum, page) => sum + page.views, 0);

export interface NotesInput {
  readonly coverage: Coverage;
  readonly campaigns: readonly Covering[];
  /** Those that run, with what they show: who is always in another's way. */
  readonly running: readonly Met[];
  /** Seconds longer than which nobody stays on a page of the site; `null` where that is not known. */
  readonly longestStay: number | null;
  readonly nowMs: number;
  readonly zone: string;
}

/** What is worth a look, in words: what hurts most comes first. */
export function coverageNotes(input: NotesInput): readonly CoverageNote[] {
  const { coverage, campaigns, running, longestStay, nowMs, zone } = input;
  const { pages } = coverage;
  const known = new Map(campaigns.map((one) => [one.id, one]));
  const nameOf = (campaign: ManifestCampaign | undefined): string =>
    quoted(known.get(campaign?.id ?? '')?.name ?? 'A campaign that is gone');
  const every = pages.map((_, page) => page);

  const never = coverage.campaigns.flatMap((campaign, n): CoverageNote[] => {
    const one = known.get(campaign.id);
    const met = running.find(({ id }) => id === campaign.id);
    const found = one && [
      ...neverFindings(one.rule),
      ...scheduleFindings(one.rule, nowMs, zone),
      ...(met ? inTheWay(met, running) : []),
    ];
    const stop = found?.find(({ severity }) => severity === 'stop');
    return stop
      ? [{ code: 'never', campaign: n, text: `${nameOf(campaign)} can never open. ${stop.text}` }]
      : [];
  });
  const late = coverage.campaigns.flatMap((campaign, n): CoverageNote[] =>
    longestStay !== null && earliestOf(campaign.moment) > longestStay
      ? [
          {
            code: 'late',
            campaign: n,
            text: `${nameOf(campaign)} opens after ${figure(earliestOf(campaign.moment))} seconds; nobody has stayed on a page that long.`,
          },
        ]
      : [],
  );
  const nothing = coverage.campaigns.flatMap((campaign, n): CoverageNote[] =>
    every.every((page) => ['not', 'excluded'].includes(coverage.cell(page, n)))
      ? [{ code: 'nothing', campaign: n, text: `${nameOf(campaign)} covers no page that is known.` }]
      : [],
  );
  return [
    ...never,
    ...crowded(coverage, nameOf),
    ...late,
    ...nothing,
    ...twins(coverage, known),
    ...empty(coverage),
  ];
}

function crowded(
  coverage: Coverage,
  nameOf: (campaign: ManifestCampaign | undefined) => string,
): readonly CoverageNote[] {
  const byCrowd = new Map<string, number[]>();
  coverage.pages.forEach((_, page) => {
    const here = coverage.crowd(page);
    if (here.length >= CROWD) byCrowd.set(here.join(), [...(byCrowd.get(here.join()) ?? []), page]);
  });
  return [...byCrowd]
    .map(([key, pages]) => ({ crowd: key.split(',').map(Number), pages }))
    .sort((a, b) => b.crowd.length - a.crowd.length || b.pages.length - a.pages.length)
    .map(({ crowd, pages }) => {
      const paths = pages.map((page) => coverage.pages[page]?.path ?? '');
      const names = crowd.map((n) => nameOf(coverage.campaigns[n]));
      return {
        code: 'crowded',
        page: pages[0] as number,
        text: `On ${some(paths)} ${crowd.length} want one place: ${listOf(names)}.`,
      };
    });
}

/** Campaigns that differ in nothing but their words: the same rule, in the same place. */
function twins(coverage: Coverage, known: ReadonlyMap<string, Covering>): readonly CoverageNote[] {
  const byRule = new Map<string, number[]>();
  coverage.campaigns.forEach(({ id, cells }, n) => {
    const rule = known.get(id)?.rule;
    if (!rule) return;
    const key = JSON.stringify([rule, cells]);
    byRule.set(key, [...(byRule.get(key) ?? []), n]);
  });
  return [...byRule.values()]
    .filter((alike) => alike.length > 1)
    .map((alike) => ({
      code: 'twins',
      campaign: alike[0] as number,
      text: `${listOf(alike.map((n) => quoted(known.get(coverage.campaigns[n]?.id ?? '')?.name ?? '')))} differ in nothing but their words: whoever meets one is meant to meet the other.`,
    }));
}

function empty(coverage: Coverage): readonly CoverageNote[] {
  const bare = coverage.pages.map((_, page) => page).filter((page) => coverage.on(page).length === 0);
  if (bare.length === 0) return [];
  const most = [...bare].sort((a, b) => (coverage.pages[b]?.views ?? 0) - (coverage.pages[a]?.views ?? 0));
  const pages = most.map((page) => coverage.pages[page] as SitePage);
  const all = views(coverage.pages);
  const share = all > 0 ? `, with ${Math.round((views(pages) / all) * 100)} % of all page views` : '';
  return [
    {
      code: 'empty',
      page: most[0] as number,
      text: `Nothing can appear on ${counted(bare.length, 'page')} of ${figure(coverage.pages.length)}${share}: ${some(pages.map(({ path }) => path))}.`,
    },
  ];
}

/** What a cell says, in few words. */
export const CELL_WORDS: Readonly<Record<Cell, string>> = {
  can: 'Can appear',
  may: 'If the page holds what is asked for',
  audience: 'Not for this visitor',
  device: 'Not on this device',
  closed: 'Not at this time',
  excluded: 'Kept away by name',
  not: 'Not one of its pages',
};

/** Why a campaign can or cannot appear on a page. */
export function cellWords(cell: Cell, name: string, path: string, device: Device): string {
  switch (cell) {
    case 'can':
      return `${quoted(name)} can appear on ${path}.`;
    case 'may':
      return `${quoted(name)} can appear on ${path} where the page holds what the rule asks for; only the page itself can tell.`;
    case 'audience':
      return `${path} is one of its pages, but this visitor is not in the audience of ${quoted(name)}.`;
    case 'device':
      return `${path} is one of its pages, but ${quoted(name)} is never shown on ${DEVICES_WORDS[device]}.`;
    case 'closed':
      return `${path} is one of its pages, but the schedule of ${quoted(name)} is closed at that time.`;
    case 'excluded':
      return `${quoted(name)} keeps away from ${path}: its rule names it among the pages it is never on.`;
    case 'not':
      return `${path} is not one of the pages of ${quoted(name)}.`;
  }
}

/** How often a campaign was really met on a page: `Met here 128 times by 120 visitors in the last 28 days, on any device.` */
export function metOnWords(met: Pick<MetOn, 'showings' | 'visitors'> | undefined): string {
  if (!met || met.showings === 0) return `Nobody has met it here in the last ${MET_ON_DAYS} days.`;
  const times = met.showings === 1 ? 'once' : `${figure(met.showings)} times`;
  return `Met here ${times} by ${counted(met.visitors, 'visitor')} in the last ${MET_ON_DAYS} days, on any device.`;
}

/** Coverage as the lines of a table, its head first: a line a page, a column a campaign; how often, where that is asked. */
export const coverageTable = (
  coverage: Coverage,
  nameOf: (id: string) => string,
  often?: HowOften,
): string[][] => [
  ['Page', 'Title', 'Page views of 30 days', ...coverage.campaigns.map(({ id }) => nameOf(id))],
  ...coverage.pages.map(({ path, title, views: seen }, page) => [
    path,
    title,
    String(seen),
    ...coverage.campaigns.map((_, campaign) =>
      often ? String(often.times([page], campaign)) : CELL_WORDS[coverage.cell(page, campaign)],
    ),
  ]),
];
