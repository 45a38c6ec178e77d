import type { Manifest, ManifestCampaign, Reaction, Rehearsal, RehearsedPage } from '@velarium/contract';
import { createPageIndex, type PageIndex } from '../manifest/page-index.ts';
import { createKeyReader } from '../pages/page-key.ts';
import { instantOf } from '../schedule/zone.ts';
import type { Verdict } from '../verdict/verdict.ts';
import { explain } from '../visit/explain.ts';
import { EXTRAS } from '../visit/extras.ts';
import {
  boundMemory,
  type Memory,
  rememberAnswered,
  rememberClosed,
  rememberConverted,
  rememberRefused,
  rememberShown,
  rememberView,
  rememberVisible,
  touchSession,
} from '../visit/memory.ts';
import { createPageView, type Now, type PageViewInput } from '../visit/page-view.ts';
import { RARE } from '../visit/rare.ts';
import { type Cue, pageCues } from './happenings.ts';
import { indexOfPage } from './page-fits.ts';
import { arrivalAt, beginMemory, IDS, rehearsedFacts } from './visitor.ts';

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

export interface PlayInput {
  readonly manifest: Manifest;
  readonly rehearsal: Pick<Rehearsal, 'visitor' | 'pages' | 'reactions'>;
  /** Address the pages lie under. */
  readonly origin: string;
  /**
   * A visitor of this name is divided as the tag divides them; without one nothing is withheld and everybody gets the
   * first variant.
   */
  readonly divided?: string | undefined;
}

/** More than any visit needs: whoever asks for more has two things that set each other off for ever. */
const MOST_STEPS = 20_000;
const LONGEST_WAIT_SECONDS = 3600;

/**
 * Plays a visit against every campaign of a manifest. It asks the very functions the tag asks, in the order the tag asks
 * them, and does to memory what the tag does; only the page and the visitor are made up.
 */
export function playVisit({ manifest: given, rehearsal, origin, divided }: PlayInput): Played {
  const manifest = divided === undefined ? given : RARE.manifestFor(divided, given);
  const { assign, ...rare } = RARE;
  const extras = divided === undefined ? { ...EXTRAS, ...rare } : { ...EXTRAS, ...rare, assign };
  const stage: Stage = {
    manifest,
    extras,
    index: createPageIndex(manifest, extras),
    keysOf: createKeyReader(manifest.site),
    origin,
    reactions: new Map(rehearsal.reactions.map((one) => [one.campaign, one])),
    live: new Set(manifest.campaigns.map(({ id }) => id)),
  };
  const beginsMs = instantOf(Date.parse(`${rehearsal.visitor.begins}:00Z`), manifest.timeZone);
  let memory = beginMemory(rehearsal, manifest, beginsMs, divided);
  let told = rehearsedFacts(rehearsal.visitor, manifest.timeZone);
  let wallMs = beginsMs;
  let line = 0;
  const stretches = manifest.campaigns.map((): Stretch[] => []);
  const openings: Opening[] = [];
  const held: Opening[] = [];
  const pages: { from: number; to: number }[] = [];
  rehearsal.pages.forEach((page, position) => {
    wallMs += page.afterMinutes * 60_000;
    const view = playPage(stage, { page, device: rehearsal.visitor.device, memory, told, wallMs });
    const onLine = ({ campaign, second }: Happened): Opening => ({
      campaign,
      page: position,
      second,
      onLine: line + second,
      atMs: wallMs + second * 1000,
    });
    openings.push(...view.openings.map(onLine));
    held.push(...view.held.map(onLine));
    view.verdicts.forEach((verdicts, campaign) => {
      verdicts.forEach(({ at, verdict }, n) => {
        const to = verdicts[n + 1]?.at ?? page.seconds;
        stretches[campaign]?.push({ from: line + at, to: line + to, page: position, verdict });
      });
    });
    pages.push({ from: line, to: line + page.seconds });
    memory = view.memory;
    told = view.told;
    line += page.seconds;
    wallMs += page.seconds * 1000;
  });
  return {
    pages,
    lanes: manifest.campaigns.map(({ id }, n) => ({ campaign: id, stretches: stretches[n] ?? [] })),
    openings,
    held,
  };
}

interface Stage {
  readonly manifest: Manifest;
  readonly extras: NonNullable<PageViewInput['extras']>;
  readonly index: PageIndex;
  readonly keysOf: ReturnType<typeof createKeyReader>;
  readonly origin: string;
  readonly reactions: ReadonlyMap<string, Reaction>;
  readonly live: ReadonlySet<string>;
}
interface Happened {
  readonly campaign: string;
  readonly second: number;
}
interface PlayedPage {
  /** Of each campaign, what it came to and when that changed. */
  readonly verdicts: readonly (readonly { readonly at: number; readonly verdict: Verdict }[])[];
  readonly openings: readonly Happened[];
  readonly held: readonly Happened[];
  readonly memory: Memory;
  readonly told: ReturnType<typeof rehearsedFacts>;
}
interface PageBeginning {
  readonly page: RehearsedPage;
  readonly device: PageViewInput['device'];
  readonly memory: Memory;
  readonly told: PlayedPage['told'];
  readonly wallMs: number;
}

function playPage(
  stage: Stage,
  { page, device, memory: before, told: toldBefore, wallMs }: PageBeginning,
): PlayedPage {
  const { manifest, extras, reactions, live } = stage;
  const href = stage.origin + page.path;
  const now = (second: number): Now => ({ wallMs: wallMs + second * 1000, ticksMs: second * 1000 });
  let told = toldBefore;
  const facts = () => told;
  const index = indexOfPage(manifest, stage.index, href, device);
  const pageKey = stage.keysOf(page.path).path;
  let memory = rememberView(
    // Whoever comes back later comes from nowhere that is known.
    touchSession(before, wallMs, manifest.site.sessionMinutes, IDS, arrivalAt(page.path, '')),
    pageKey,
  );
  const view = createPageView({
    // Of the others nobody asks: their triggers need not be followed.
    manifest: { ...manifest, campaigns: [...index.candidates(href, told, device)] },
    index,
    href,
    pageKey,
    device,
    facts,
    remembers: () => true,
    isVisible: true,
    now: now(0),
    extras,
  });
  const verdicts = manifest.campaigns.map((): { at: number; verdict: Verdict }[] => []);
  const openings: Happened[] = [];
  const held: Happened[] = [];
  /** When what is open will be dealt with by the visitor. */
  const ends = new Map<string, number>();

  const open = (campaign: ManifestCampaign, second: number) => {
    const { id } = campaign;
    view.onOpened(id);
    memory = boundMemory(rememberShown(memory, campaign, now(second).wallMs), live);
    openings.push({ campaign: id, second });
    const reaction = reactions.get(id);
    if (reaction) ends.set(id, second + reaction.afterSeconds);
  };
  const react = (id: string, second: number) => {
    const atMs = now(second).wallMs;
    const { does } = reactions.get(id) as Reaction;
    if (does === 'refuse') memory = rememberRefused(memory, id, atMs);
    if (does === 'convert') memory = rememberConverted(rememberAnswered(memory, id), id, atMs);
    memory = rememberClosed(memory, id, atMs);
    ends.delete(id);
    view.onGone(id, memory, now(second));
  };
  /** Asks what comes next until nothing more opens at this instant; answers when to ask again. */
  const ask = (second: number): number => {
    for (;;) {
      const step = view.next(memory, now(second));
      view.settle(step, now(second));
      held.push(...step.held.map(({ id }) => ({ campaign: id, second })));
      if (!step.open)
        return second + Math.max(0.001, (step.near[0]?.inMs ?? Number.POSITIVE_INFINITY) / 1000);
      open(step.open, second);
    }
  };
  const note = (second: number) => {
    const found = explain(view, { manifest, index, href, device, facts }, memory, now(second));
    found.forEach((verdict, n) => {
      const known = verdicts[n];
      const last = known?.at(-1);
      if (!known || (last && isSame(last.verdict, verdict))) return;
      // What lasted for no time at all was never so for anybody to see.
      if (last && last.at === second) known.pop();
      known.push({ at: second, verdict });
    });
  };
  const take = ({ fact, isAlive, isVisible, basket, signedIn, at }: Cue) => {
    if (isAlive) view.onActive(memory, now(at));
    if (isVisible !== undefined) view.setVisible(isVisible, memory, now(at));
    if (basket) told = { ...told, basket };
    if (signedIn !== undefined) told = { ...told, signedIn };
    if (fact) view.onFact(fact, memory, now(at));
  };

  const cues = pageCues(page, index.candidates(href, told, device));
  let wakesAt = ask(0);
  note(0);
  for (let steps = 0, next = 0; steps < MOST_STEPS; steps++) {
    const soonest = [...ends].sort(([, a], [, b]) => a - b)[0];
    const second = Math.min(
      cues[next]?.at ?? Number.POSITIVE_INFINITY,
      wakesAt,
      soonest?.[1] ?? Number.POSITIVE_INFINITY,
    );
    if (second > page.seconds || second > LONGEST_WAIT_SECONDS) break;
    const cue = cues[next];
    if (cue && cue.at <= second) {
      take(cue);
      next++;
    } else if (soonest && soonest[1] <= second) react(soonest[0], second);
    wakesAt = ask(second);
    note(second);
  }
  const end = now(page.seconds);
  return {
    verdicts,
    openings,
    held,
    told,
    // What the page itself leaves was not closed by anybody.
    memory: touchSession(
      rememberVisible(memory, view.visibleMs(end)),
      end.wallMs,
      manifest.site.sessionMinutes,
      IDS,
    ),
  };
}

/** Whether two verdicts say the same; what remains of a wait runs on by itself. */
const isSame = (a: Verdict, b: Verdict): boolean =>
  a.code === b.code &&
  (a.code !== 'waiting:trigger' ||
    (b.code === 'waiting:trigger' && (a.remainingMs === null) === (b.remainingMs === null))) &&
  ('retryAtMs' in a ? a.retryAtMs : null) === ('retryAtMs' in b ? b.retryAtMs : null) &&
  ('to' in a ? a.to : '') === ('to' in b ? b.to : '') &&
  ('heldBy' in a ? a.heldBy : '') === ('heldBy' in b ? b.heldBy : '');
