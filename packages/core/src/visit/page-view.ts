import type { Device, Manifest, ManifestCampaign } from '@velarium/contract';
import { hasRoom } from '../arbitration/arbitration.ts';
import { decideCaps } from '../caps/caps.ts';
import { decideSiteLimits } from '../limits/site-limits.ts';
import type { PageIndex } from '../manifest/page-index.ts';
import { createMomentState, type MomentState } from '../triggers/moment.ts';
import type { TriggerTimes } from '../triggers/times.ts';
import type { Fact } from '../triggers/trigger.ts';
import type { Verdict } from '../verdict/verdict.ts';
import type { Extras } from './extras.ts';
import type { Memory } from './memory.ts';
import type { Rare } from './rare.ts';
import type { PageViewFacts } from './visitor-facts.ts';

/** Two clocks: the wall decides caps and schedules, the ticks measure time on page, so a clock that jumps disturbs neither. */
export interface Now {
  /** Epoch milliseconds. */
  readonly wallMs: number;
  /** Milliseconds from any start, never running backwards. */
  readonly ticksMs: number;
}

export interface NextStep {
  /** The campaign that may open now, if any. */
  readonly open: ManifestCampaign | null;
  /** Campaigns that would open now but are withheld from this visitor; each is told once. */
  readonly held: readonly ManifestCampaign[];
  /** Campaigns that only time separates from opening, soonest first, with what remains of it. */
  readonly near: readonly { readonly campaign: ManifestCampaign; readonly inMs: number }[];
  /** Campaigns whose moment is here. */
  readonly came: readonly ManifestCampaign[];
  /** What each campaign that page and device let through came to, in the order of the index. */
  readonly verdicts: readonly (readonly [campaign: string, verdict: Verdict])[];
}

/** One page view: fed with facts, it answers which campaign opens next and what stands in the others' way. */
export interface PageView {
  setVisible(isVisible: boolean, memory: Memory, now: Now): void;
  /** A sign of life: stillness begins anew. */
  onActive(memory: Memory, now: Now): void;
  onFact(fact: Fact, memory: Memory, now: Now): void;
  onOpened(campaignId: string): void;
  /** Milliseconds until each of a campaign's triggers has happened by time alone. */
  leftOf(campaignId: string, memory: Memory, now: Now): readonly number[];
  /** Its message cannot be had: it stays away for this page view. */
  giveUp(campaignId: string): void;
  onGone(campaignId: string, memory: Memory, now: Now): void;
  /** Visible milliseconds so far. */
  pageVisibleMs(now: Now): number;
  /** What comes next. Asking changes nothing: what it says is noted by {@link PageView.settle}. */
  next(memory: Memory, now: Now): NextStep;
  /** Takes what `next` has said for what has happened: whose moment came when, who gave way, who was told of. */
  settle(step: NextStep, now: Now): void;
  /** What its schedule has against a campaign, if anything. */
  scheduleVerdict(campaign: ManifestCampaign, now: Now): Verdict | undefined;
  /** What stands in the way of a campaign that page and device let through. */
  verdictOf(campaign: ManifestCampaign, memory: Memory, now: Now): Verdict;
}

export interface PageViewInput {
  readonly manifest: Manifest;
  readonly index: PageIndex;
  readonly href: string;
  /** Key under which memory counts the views of this page. */
  readonly pageKey: string;
  readonly device: Device;
  readonly facts: () => PageViewFacts;
  /** Whether anything can be remembered from page to page. */
  readonly remembers: () => boolean;
  readonly isVisible: boolean;
  readonly now: Now;
  /** Missing only where the manifest needs none of them. */
  readonly extras?: Partial<Extras & Rare> | undefined;
}

export function createPageView(input: PageViewInput): PageView {
  const { manifest, index, href, pageKey, device, facts, remembers, extras } = input;
  let visibleSince = input.isVisible ? input.now.ticksMs : null;
  let visibleBefore = 0;
  let activeAt = input.now.ticksMs;
  let shownHere = 0;
  const open = new Map<string, ManifestCampaign>();
  const opened = new Set<string>();
  /** Campaigns that are out of the running for the rest of this page view, and why. */
  const out = new Map<string, Verdict>();
  const heldBefore = new Set<string>();
  /** Ticks at which each campaign's moment was first seen to have come: the earlier one goes first. */
  const cameAt = new Map<string, number>();
  const moments = new Map<string, MomentState>(
    manifest.campaigns.map(({ id, moment }) => [id, createMomentState(moment, id, extras?.isMetBy)]),
  );

  const pageVisibleMs = (at: Now) => visibleBefore + (visibleSince === null ? 0 : at.ticksMs - visibleSince);
  const timesOf = ({ session, pages }: Memory, at: Now): TriggerTimes => ({
    pageVisibleMs: pageVisibleMs(at),
    sessionVisibleMs: session.visibleMs + pageVisibleMs(at),
    stillMs: visibleSince === null ? 0 : at.ticksMs - Math.max(activeAt, visibleSince),
    counts: { viewsInSession: session.views, viewsOfPage: pages[pageKey] ?? 0, sessions: session.number },
  });
  /** Milliseconds until a campaign's moment comes by time alone. */
  const remainingOf = ({ id }: ManifestCampaign, times: TriggerTimes) =>
    (moments.get(id) as MomentState).remaining(times);

  const scheduleVerdict = (campaign: ManifestCampaign, at: Now, told = facts()): Verdict | undefined => {
    const { schedule } = campaign;
    return schedule !== null
      ? extras?.scheduleVerdict?.(
          campaign,
          at.wallMs,
          schedule.zone === 'site' ? manifest.timeZone : told.timeZone(),
        )
      : undefined;
  };

  /** The gates after page and device. */
  const gate = (
    campaign: ManifestCampaign,
    memory: Memory,
    at: Now,
    told: PageViewFacts,
    times: TriggerTimes,
  ): Verdict => {
    const { id } = campaign;
    if (open.has(id)) return { code: 'shown' };
    if (campaign.audience && !extras?.isInAudience?.(campaign.audience, memory, told, id))
      return { code: 'blocked:audience' };
    if (!campaign.isForgetful && !remembers()) return { code: 'blocked:memory' };
    const cap = decideCaps(campaign, memory.campaigns[id], { nowMs: at.wallMs, session: memory.session.id });
    if (cap) return { ...cap, code: `blocked:${cap.code}` };
    if (opened.has(id) && campaign.moment.againAfterSeconds === null) return { code: 'blocked:page.view' };
    const isOut = out.get(id);
    if (isOut) return isOut;
    const remaining = remainingOf(campaign, times);
    if (remaining > 0 || visibleSince === null) {
      return {
        code: 'waiting:trigger',
        remainingMs: remaining < Number.POSITIVE_INFINITY ? Math.max(0, remaining) : null,
      };
    }
    const limit = decideSiteLimits(
      manifest.site.limits,
      { inPageView: shownHere, inSession: memory.session.shown, shownAtMs: memory.shownAtMs },
      at.wallMs,
    );
    if (limit) return { ...limit, code: `blocked:${limit.code}` };
    if (hasRoom(campaign, [...open.values()], device)) {
      // Asked last, so that those who are held are compared with those who would have seen it.
      return extras?.assign &&
        campaign.experiment &&
        extras.assign(memory.visitor, campaign.experiment).isHeld
        ? { code: 'held:holdout' }
        : { code: 'ready' };
    }
    const holder = open.keys().next().value as string;
    if (campaign.whenBusy === 'wait') return { code: 'waiting:floor', heldBy: holder };
    return { code: 'blocked:yielded', to: holder };
  };

  const verdictOf = (
    campaign: ManifestCampaign,
    memory: Memory,
    at: Now,
    told = facts(),
    times = timesOf(memory, at),
  ): Verdict => scheduleVerdict(campaign, at, told) ?? gate(campaign, memory, at, told, times);

  const latch = (memory: Memory, at: Now) => {
    for (const moment of moments.values()) moment.latch(timesOf(memory, at));
  };

  return {
    pageVisibleMs,
    setVisible(isVisible, memory, at) {
      if (isVisible === (visibleSince !== null)) return;
      latch(memory, at);
      visibleBefore = pageVisibleMs(at);
      visibleSince = isVisible ? at.ticksMs : null;
    },
    onActive(memory, at) {
      latch(memory, at);
      activeAt = at.ticksMs;
    },
    onFact(fact, memory, at) {
      const times = timesOf(memory, at);
      for (const moment of moments.values()) moment.feed(fact, times);
    },
    onOpened(id) {
      const campaign = manifest.campaigns.find((one) => one.id === id);
      if (campaign) open.set(id, campaign);
      opened.add(id);
      shownHere++;
    },
    leftOf: (id, memory, at) => (moments.get(id) as MomentState).eachLeft(timesOf(memory, at)),
    giveUp(id) {
      out.set(id, { code: 'blocked:unreachable' });
    },
    onGone(id, memory, at) {
      if (!open.delete(id)) return;
      moments.get(id)?.rearm(timesOf(memory, at));
      cameAt.delete(id);
    },
    next(memory, at) {
      const near: { campaign: ManifestCampaign; inMs: number }[] = [];
      let open: ManifestCampaign | null = null;
      const held: ManifestCampaign[] = [];
      const came: ManifestCampaign[] = [];
      const verdicts: [string, Verdict][] = [];
      const camesAt = ({ id }: ManifestCampaign) => cameAt.get(id) ?? at.ticksMs;
      const goesBefore = (a: ManifestCampaign, b: ManifestCampaign) =>
        (b.priority - a.priority || camesAt(a) - camesAt(b)) < 0;
      // Read once for all: asking the page is what costs.
      const told = facts();
      const times = timesOf(memory, at);
      for (const campaign of index.candidates(href, told, device)) {
        const verdict = verdictOf(campaign, memory, at, told, times);
        const { code } = verdict;
        verdicts.push([campaign.id, verdict]);
        if (remainingOf(campaign, times) <= 0) came.push(campaign);
        if (code === 'ready') {
          if (open === null || goesBefore(campaign, open)) open = campaign;
        } else if (code === 'held:holdout') {
          if (!heldBefore.has(campaign.id)) held.push(campaign);
        } else if (code === 'waiting:trigger') {
          if (verdict.remainingMs !== null && visibleSince !== null)
            near.push({ campaign, inMs: verdict.remainingMs });
        } else if ('retryAtMs' in verdict && verdict.retryAtMs !== null) {
          // A cap, a gap or a schedule that time lifts while one waits on the page.
          near.push({ campaign, inMs: verdict.retryAtMs - at.wallMs });
        }
      }
      return { open, held, near: near.sort((a, b) => a.inMs - b.inMs), came, verdicts };
    },
    settle({ came, held, verdicts }, at) {
      for (const { id } of came) if (!cameAt.has(id)) cameAt.set(id, at.ticksMs);
      for (const { id } of held) heldBefore.add(id);
      for (const [id, verdict] of verdicts) if (verdict.code === 'blocked:yielded') out.set(id, verdict);
    },
    scheduleVerdict,
    verdictOf,
  };
}
