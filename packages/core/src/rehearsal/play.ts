import type { Manifest, Reaction, Rehearsal, RehearsedPage } from '@velarium/contract';
import { instantOf } from '../schedule/zone.ts';
import type { Verdict } from '../verdict/verdict.ts';
import { EXTRAS } from '../visit/extras.ts';
import { RARE } from '../visit/rare.ts';
import { type Happened, type PlayedPage, playPage, type Stage } from './play-page.ts';
import { createPagePreparer } from './prepared-page.ts';
import { beginMemory, rehearsedFacts, type VisitorOfAnyHour } from './visitor.ts';

/** What became of one campaign over a stretch of the visit. Seconds are of the visit as a line: what lies between pages has no length. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly page: number;
  /** As it was when the stretch began. */
  readonly verdict: Verdict;
}
export interface Opening {
  readonly campaign: string;
  readonly page: number;
  /** Of the page view, and of the visit as a line. */
  readonly second: number;
  readonly onLine: number;
  readonly atMs: number;
}
export interface Played {
  /** Where each page begins and ends on the line. */
  readonly pages: readonly { readonly from: number; readonly to: number }[];
  /** Every campaign of the manifest, in its order. */
  readonly lanes: readonly { readonly campaign: string; readonly stretches: readonly Stretch[] }[];
  readonly openings: readonly Opening[];
  /** Showings that the holdout would have withheld. */
  readonly held: readonly Opening[];
}

export interface PlayerInput {
  readonly manifest: Manifest;
  /** Address the pages lie under. */
  readonly origin: string;
  /**
   * A visitor of this name is divided as the tag divides them; without one nothing is withheld and everybody gets the
   * first variant.
   */
  readonly divided?: string | undefined;
}
/** A visit that begins at an instant, epoch milliseconds. */
export interface Visit {
  readonly visitor: VisitorOfAnyHour;
  readonly pages: Rehearsal['pages'];
  readonly reactions: readonly Reaction[];
  readonly beginsMs: number;
}

/**
 * Plays visits against every campaign of a manifest. It asks the very functions the tag asks, in the order the tag asks
 * them, and does to memory what the tag does; only the page and the visitor are made up. What pages are to the campaigns is
 * found out once for all visits.
 */
export function createPlayer({
  manifest: given,
  origin,
  divided,
}: PlayerInput): (visit: Visit) => readonly PlayedPage[] {
  const manifest = divided === undefined ? given : RARE.manifestFor(divided, given);
  const { assign, ...rare } = RARE;
  const extras = divided === undefined ? { ...EXTRAS, ...rare } : { ...EXTRAS, ...rare, assign };
  const stage: Stage = { manifest, extras, live: new Set(manifest.campaigns.map(({ id }) => id)) };
  const prepare = createPagePreparer(manifest, extras, origin);

  return ({ visitor, pages, reactions, beginsMs }) => {
    const { device, referrer } = visitor;
    const { arrival } = prepare(pages[0]?.path ?? '/', device);
    let memory = beginMemory(visitor, { ...arrival, referrer }, manifest, beginsMs, divided);
    let told = rehearsedFacts(visitor, manifest.timeZone);
    let wallMs = beginsMs;
    return pages.map((page) => {
      wallMs += page.afterMinutes * 60_000;
      const prepared = prepare(page.path, device);
      const played = playPage(stage, { page, prepared, device, reactions, memory, told, wallMs });
      ({ memory, told } = played);
      wallMs += page.seconds * 1000;
      return played;
    });
  };
}

/** What was played page by page, on one line. */
function onLine(
  { campaigns }: Manifest,
  visited: readonly RehearsedPage[],
  played: readonly PlayedPage[],
): Played {
  let line = 0;
  const stretches = campaigns.map((): Stretch[] => []);
  const openings: Opening[] = [];
  const held: Opening[] = [];
  const pages = visited.map(({ seconds }, page) => {
    const view = played[page] as PlayedPage;
    const opening = ({ campaign, second }: Happened): Opening => ({
      campaign,
      page,
      second,
      onLine: line + second,
      atMs: view.wallMs + second * 1000,
    });
    openings.push(...view.openings.map(opening));
    held.push(...view.held.map(opening));
    view.verdicts.forEach((verdicts, campaign) => {
      verdicts.forEach(({ at, verdict }, n) => {
        const to = verdicts[n + 1]?.at ?? seconds;
        stretches[campaign]?.push({ from: line + at, to: line + to, page, verdict });
      });
    });
    const from = line;
    line += seconds;
    return { from, to: line };
  });
  return {
    pages,
    lanes: campaigns.map(({ id }, n) => ({ campaign: id, stretches: stretches[n] ?? [] })),
    openings,
    held,
  };
}

/** A rehearsal begins by the clocks of its site. */
const visitOf = (
  { visitor, pages, reactions }: Pick<Rehearsal, 'visitor' | 'pages' | 'reactions'>,
  timeZone: string,
): Visit => ({
  visitor,
  pages,
  reactions,
  beginsMs: instantOf(Date.parse(`${visitor.begins}:00Z`), timeZone),
});

/** What becomes of rehearsals of one manifest. */
export function createRehearser(
  input: PlayerInput,
): (rehearsal: Pick<Rehearsal, 'visitor' | 'pages' | 'reactions'>) => Played {
  const play = createPlayer(input);
  const { manifest } = input;
  return (rehearsal) => onLine(manifest, rehearsal.pages, play(visitOf(rehearsal, manifest.timeZone)));
}

/** Plays one rehearsal; whoever plays many makes a rehearser. */
export const playVisit = ({
  rehearsal,
  ...input
}: PlayerInput & { readonly rehearsal: Parameters<typeof visitOf>[0] }): Played =>
  createRehearser(input)(rehearsal);
