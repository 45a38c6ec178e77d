import type { Device, Manifest, ManifestCampaign, RehearsedVisitor, SitePage } from '@velarium/contract';
import { DEVICES } from '@velarium/contract/values';
import { earliestOf } from '../checks/in-the-way.ts';
import { hasDevice } from '../devices/device.ts';
import { fitOf, type PageFit } from '../manifest/page-fit.ts';
import { createPageIndex } from '../manifest/page-index.ts';
import { scheduleState } from '../schedule/schedule.ts';
import { EXTRAS } from '../visit/extras.ts';
import { RARE } from '../visit/rare.ts';
import { audienceFor } from './for-visitor.ts';

/**
 * Whether a campaign can appear on a page: `can`; `may` where only the page itself can tell; on none of this `device`; `closed`
 * by its schedule at that time; not for the visitor who is asked about (`audience`); `excluded` by name; or `not` one of its pages.
 */
export const CELLS = ['not', 'excluded', 'closed', 'device', 'audience', 'may', 'can'] as const;
export type Cell = (typeof CELLS)[number];

export interface CoverageQuestion {
  readonly manifest: Manifest;
  readonly origin: string;
  readonly pages: readonly SitePage[];
  readonly device: Device;
  /** When, milliseconds since 1970. Where a schedule goes by the visitor's clock, the site's is taken. */
  readonly atMs: number;
  /** For whom, if their visit begins on the page; `null` for anybody. */
  readonly visitor: RehearsedVisitor | null;
}

export interface Coverage {
  readonly pages: readonly SitePage[];
  readonly campaigns: readonly ManifestCampaign[];
  /** By position of the page and of the campaign. */
  cell(page: number, campaign: number): Cell;
  /** How many of these pages a campaign can or may appear on. */
  covered(pages: readonly number[], campaign: number): number;
  /** The campaigns that can or may appear on a page, the one that can open first before the others. */
  on(page: number): readonly number[];
  /** The most of those that want one and the same place of the window: one of them is open at a time. */
  crowd(page: number): readonly number[];
}

/**
 * Every cell as a code, a row a page: decided with the tag's own index. What only a page itself can tell is asked both ways.
 * Dear where both are many; {@link coverSite} takes what came out.
 */
export function coverCells({ manifest, origin, pages, device, atMs, visitor }: CoverageQuestion): Uint8Array {
  const { campaigns, timeZone } = manifest;
  const index = createPageIndex(manifest, { ...EXTRAS, ...RARE });
  const asksPage = campaigns.some(({ include, exclude }) =>
    [...include, ...exclude].some(({ kind }) => kind === 'holds'),
  );
  const away = campaigns.map(({ devices, schedule }): Cell | undefined =>
    !hasDevice(devices, device)
      ? 'device'
      : scheduleState(schedule, atMs, timeZone) === 'open'
        ? undefined
        : 'closed',
  );
  const isFor = visitor ? audienceFor(manifest, visitor, atMs) : () => true;
  const cells = new Uint8Array(pages.length * campaigns.length);
  pages.forEach(({ path, kind }, page) => {
    const read = (holds: boolean): readonly PageFit[] =>
      index.read(origin + path, { kind: kind ?? '', holds: () => holds }).map(fitOf);
    const bare = read(false);
    const whole = asksPage ? read(true) : bare;
    bare.forEach((fit, campaign) => {
      const other = whole[campaign];
      const isNever = fit !== 'fits' && other !== 'fits';
      const cell: Cell = isNever
        ? fit === 'excluded'
          ? 'excluded'
          : 'not'
        : (away[campaign] ?? (!isFor(path, campaign) ? 'audience' : fit === other ? 'can' : 'may'));
      cells[page * campaigns.length + campaign] = codeOf(cell);
    });
  });
  return cells;
}

const codeOf = (cell: Cell): number => CELLS.indexOf(cell);

/** What can appear where. */
export function coverSite(question: CoverageQuestion, cells = coverCells(question)): Coverage {
  const { pages, device } = question;
  const { campaigns } = question.manifest;
  const code = (page: number, campaign: number) => cells[page * campaigns.length + campaign] as number;
  const appears = (page: number, campaign: number) => code(page, campaign) >= codeOf('may');
  const seconds = campaigns.map(({ moment }) => earliestOf(moment));
  const on = (page: number) =>
    campaigns
      .map((_, campaign) => campaign)
      .filter((campaign) => appears(page, campaign))
      .sort((a, b) => (seconds[a] as number) - (seconds[b] as number) || a - b);
  const at = DEVICES.indexOf(device);
  return {
    pages,
    campaigns,
    cell: (page, campaign) => CELLS[code(page, campaign)] as Cell,
    covered: (some, campaign) => some.reduce((sum, page) => sum + Number(appears(page, campaign)), 0),
    on,
    crowd(page) {
      const here = on(page);
      return crowd(
        here,
        here.map((campaign) => (campaigns[campaign] as ManifestCampaign).cells[at] as number),
      );
    },
  };
}

/** The cells of a window. */
const PLACES = 9;

/** The most campaigns that want one and the same cell of the window. */
function crowd(campaigns: readonly number[], cells: readonly number[]): readonly number[] {
  let most: readonly number[] = [];
  for (let place = 0; place < PLACES; place++) {
    const here = campaigns.filter((_, n) => ((cells[n] as number) >> place) & 1);
    if (here.length > most.length) most = here;
  }
  return most;
}
