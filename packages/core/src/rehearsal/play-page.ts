import type { Manifest, ManifestCampaign, Reaction, RehearsedPage } from '@velarium/contract';
import type { Verdict } from '../verdict/verdict.ts';
import { inFull } from '../visit/explain.ts';
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
import type { PageViewFacts } from '../visit/visitor-facts.ts';
import { type Cue, pageCues } from './happenings.ts';
import type { PreparedPage, Since } from './prepared-page.ts';
import { IDS } from './visitor.ts';

/** What does not change from page to page. */
export interface Stage {
  readonly manifest: Manifest;
  readonly extras: NonNullable<PageViewInput['extras']>;
  readonly live: ReadonlySet<string>;
}
export interface Happened {
  readonly campaign: string;
  readonly second: number;
}
export interface PlayedPage {
  /** When it began, epoch milliseconds. */
  readonly wallMs: number;
  /** Of each campaign of the manifest, what it came to and when that changed. */
  readonly verdicts: readonly (readonly Since[])[];
  readonly openings: readonly Happened[];
  readonly held: readonly Happened[];
  readonly memory: Memory;
  readonly told: PageViewFacts;
}
export interface PageBeginning {
  readonly page: RehearsedPage;
  readonly prepared: PreparedPage;
  readonly device: PageViewInput['device'];
  readonly reactions: readonly Reaction[];
  readonly memory: Memory;
  readonly told: PageViewFacts;
  readonly wallMs: number;
}

/** More than any visit needs: whoever asks for more has two things that set each other off for ever. */
const MOST_STEPS = 20_000;
const LONGEST_WAIT_SECONDS = 3600;
const NEVER = Number.POSITIVE_INFINITY;

/** Plays one page of a visit: what reaches it is told to the page view, which is asked what comes next after each. */
export function playPage(
  { manifest, extras, live }: Stage,
  { page, prepared, device, reactions, memory: before, told: toldBefore, wallMs }: PageBeginning,
): PlayedPage {
  const now = (second: number): Now => ({ wallMs: wallMs + second * 1000, ticksMs: second * 1000 });
  let told = toldBefore;
  const facts = () => told;
  let memory = rememberView(
    touchSession(before, wallMs, manifest.site.sessionMinutes, IDS, prepared.arrival),
    prepared.pageKey,
  );
  const view = createPageView({
    manifest: prepared.manifest,
    index: prepared.index,
    href: prepared.href,
    pageKey: prepared.pageKey,
    device,
    facts,
    remembers: () => true,
    isVisible: true,
    now: now(0),
    extras,
  });
  const verdicts = prepared.lasting.map((one): Since[] => one ?? []);
  const openings: Happened[] = [];
  const held: Happened[] = [];
  /** When what is open will be dealt with by the visitor, soonest first. */
  let ends: { readonly id: string; readonly at: number }[] = [];

  const open = (campaign: ManifestCampaign, second: number) => {
    const { id } = campaign;
    view.onOpened(id);
    memory = boundMemory(rememberShown(memory, campaign, now(second).wallMs), live);
    openings.push({ campaign: id, second });
    const reaction = reactions.find((one) => one.campaign === id);
    if (reaction) ends = [...ends, { id, at: second + reaction.afterSeconds }].sort((a, b) => a.at - b.at);
  };
  const react = (id: string, second: number) => {
    const atMs = now(second).wallMs;
    const { does } = reactions.find((one) => one.campaign === id) as Reaction;
    if (does === 'refuse') memory = rememberRefused(memory, id, atMs);
    if (does === 'convert') memory = rememberConverted(rememberAnswered(memory, id), id, atMs);
    memory = rememberClosed(memory, id, atMs);
    ends = ends.filter((one) => one.id !== id);
    view.onGone(id, memory, now(second));
  };
  const note = (position: number, at: number, verdict: Verdict) => {
    const known = verdicts[position] as Since[];
    const last = known.at(-1);
    if (last && isSame(last.verdict, verdict)) return;
    // What lasted for no time at all was never so for anybody to see.
    if (last && last.at === at) known.pop();
    const campaign = manifest.campaigns[position] as ManifestCampaign;
    known.push({ at, verdict: inFull(verdict, campaign, facts, memory) });
  };
  /** Asks what comes next until nothing more opens at this instant; answers when to ask again. */
  const ask = (second: number): number => {
    for (;;) {
      const at = now(second);
      const step = view.next(memory, at);
      view.settle(step, at);
      for (const { id } of step.held) held.push({ campaign: id, second });
      if (step.open) {
        open(step.open, second);
        continue;
      }
      step.verdicts.forEach(([, verdict], n) => {
        note(prepared.positions[n] as number, second, verdict);
      });
      for (const [n, ofPage] of prepared.scheduled) {
        const schedule = view.scheduleVerdict(manifest.campaigns[n] as ManifestCampaign, at);
        note(n, second, schedule ?? ofPage);
      }
      return second + Math.max(0.001, (step.near[0]?.inMs ?? NEVER) / 1000);
    }
  };
  const take = ({ fact, isAlive, isVisible, basket, signedIn, at }: Cue) => {
    if (isAlive) view.onActive(memory, now(at));
    if (isVisible !== undefined) view.setVisible(isVisible, memory, now(at));
    if (basket) told = { ...told, basket };
    if (signedIn !== undefined) told = { ...told, signedIn };
    if (fact) view.onFact(fact, memory, now(at));
  };

  const cues = pageCues(page, prepared.asked);
  let wakesAt = ask(0);
  for (let steps = 0, next = 0; steps < MOST_STEPS; steps++) {
    const [soonest] = ends;
    const second = Math.min(cues[next]?.at ?? NEVER, wakesAt, soonest?.at ?? NEVER);
    if (second > page.seconds || second > LONGEST_WAIT_SECONDS) break;
    const cue = cues[next];
    if (cue && cue.at <= second) {
      take(cue);
      next++;
    } else if (soonest && soonest.at <= second) react(soonest.id, second);
    wakesAt = ask(second);
  }
  const end = now(page.seconds);
  return {
    wallMs,
    verdicts,
    openings,
    held,
    told,
    // What the page itself leaves was not closed by anybody.
    memory: touchSession(
      rememberVisible(memory, view.pageVisibleMs(end)),
      end.wallMs,
      manifest.site.sessionMinutes,
      IDS,
      prepared.arrival,
    ),
  };
}

/** Whether two verdicts say the same; what remains of a wait runs on by itself. */
const isSame = (a: Verdict, b: Verdict): boolean =>
  a === b ||
  (a.code === b.code &&
    (a.code !== 'waiting:trigger' ||
      (b.code === 'waiting:trigger' && (a.remainingMs === null) === (b.remainingMs === null))) &&
    ('retryAtMs' in a ? a.retryAtMs : null) === ('retryAtMs' in b ? b.retryAtMs : null) &&
    ('to' in a ? a.to : '') === ('to' in b ? b.to : '') &&
    ('heldBy' in a ? a.heldBy : '') === ('heldBy' in b ? b.heldBy : ''));
