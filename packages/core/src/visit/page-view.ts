import type { Device, Manifest, ManifestCampaign } from '@velarium/contract';
import { hasRoom } from '../arbitration/arbitration.ts';
import type { VisitorFacts } from '../audience/audience.ts';
import { decideCaps } from '../caps/caps.ts';
import { decideSiteLimits } from '../limits/site-limits.ts';
import type { PageIndex } from '../manifest/page-index.ts';
import type { PageFacts } from '../pages/page-rule.ts';
import { createMomentState, type MomentState } from '../triggers/moment.ts';
import type { TriggerTimes } from '../triggers/times.ts';
import type { Fact } from '../triggers/trigger.ts';
import type { Verdict } from '../verdict/verdict.ts';
import type { Extras } from './extras.ts';
import type { Memory } from './memory.ts';

/** Two clocks: the wall decides caps and schedules, the ticks measure time on page, so a clock that jumps disturbs neither. */
export interface Now {
  /** Epoch milliseconds. */
  readonly wallMs: number;
  /** Milliseconds from any start, never running backwards. */
  readonly ticksMs: number;
}

/** What the page and the browser tell of page and visitor; memory adds the rest. All may change at any moment. */
export interface PageViewFacts extends PageFacts {
  readonly signedIn: boolean | null;
  readonly basket: VisitorFacts['basket'];
  readonly attributes: VisitorFacts['attributes'];
  readonly languages: VisitorFacts['languages'];
  readonly country: string | null;
  readonly ownHost: string;
  /** IANA name of the visitor's time zone. */
  readonly timeZone: string;
}

export interface NextStep {
  /** The campaign that may open now, if any. */
  readonly open: ManifestCampaign | null;
  /** Campaigns that only time separates from opening, soonest first, with what remains of it. */
  readonly near: readonly { readonly campaign: ManifestCampaign; readonly inMs: number }[];
}

/** One page view: fed with facts, it answers which campaign opens next and what stands in the others' way. */
export interface PageView {
  setVisible(isVisible: boolean, now: Now): void;
  /** A sign of life: stillness begins anew. */
  onActive(now: Now): void;
  onFact(fact: Fact, memory: Memory, now: Now): void;
  onOpened(campaignId: string): void;
  onGone(campaignId: string, memory: Memory, now: Now): void;
  /** Visible milliseconds so far. */
  visibleMs(now: Now): number;
  next(memory: Memory, now: Now): NextStep;
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
  readonly isVisible: boolean;
  readonly now: Now;
  /** Missing only where the manifest needs none of them. */
  readonly extras?: Extras | undefined;
}

export function createPageView(input: PageViewInput): PageView {
  const { manifest, index, href, pageKey, device, facts, extras } = input;
  let visibleSince = input.isVisible ? input.now.ticksMs : null;
  let visibleBefore = 0;
  let activeAt = input.now.ticksMs;
  let shownHere = 0;
  const open = new Map<string, ManifestCampaign>();
  const opened = new Set<string>();
  const yielded = new Map<string, string>();
  /** Ticks at which each campaign's moment was first seen to have come: the earlier one goes first. */
  const cameAt = new Map<string, number>();
  const moments = new Map<string, MomentState>(
    manifest.campaigns.map(({ id, moment }) => [id, createMomentState(moment, id, extras?.isMetBy)]),
  );

  const visibleMs = (at: Now) => visibleBefore + (visibleSince === null ? 0 : at.ticksMs - visibleSince);
  const timesOf = ({ session, pages }: Memory, at: Now): TriggerTimes => ({
    visibleMs: visibleMs(at),
    sessionVisibleMs: session.visibleMs + visibleMs(at),
    stillMs: visibleSince === null ? 0 : at.ticksMs - Math.max(activeAt, visibleSince),
    counts: { viewsInSession: session.views, viewsOfPage: pages[pageKey] ?? 0, sessions: session.number },
  });
  const momentOf = (campaign: ManifestCampaign) => moments.get(campaign.id) as MomentState;

  const visitorOf = (memory: Memory): VisitorFacts => ({
    ...facts(),
    sessions: memory.session.number,
    viewsInSession: memory.session.views,
    referrer: memory.session.referrer,
    arrival: memory.session.arrival,
    landing: memory.session.landing,
    history: (id) => {
      const past = memory.campaigns[id];
      return {
        seen: (past?.showings ?? 0) > 0,
        closed: past?.closedAtMs !== undefined,
        converted: past?.convertedAtMs !== undefined,
      };
    },
  });

  const scheduleVerdict = ({ schedule }: ManifestCampaign, at: Now): Verdict | undefined => {
    if (!schedule || !extras) return undefined;
    const zone = schedule.zone === 'site' ? manifest.timeZone : facts().timeZone;
    const state = extras.scheduleState(schedule, at.wallMs, zone);
    if (state === 'open') return undefined;
    if (state === 'after') return { code: 'blocked:schedule.after' };
    return { code: `blocked:schedule.${state}`, retryAtMs: extras.nextChange(schedule, at.wallMs, zone) };
  };

  /** The gates after page and device. */
  const gate = (campaign: ManifestCampaign, memory: Memory, at: Now): Verdict => {
    const { id } = campaign;
    if (open.has(id)) return { code: 'shown' };
    if (campaign.audience && !extras?.isInAudience(campaign.audience, visitorOf(memory), id))
      return { code: 'blocked:audience' };
    const cap = decideCaps(campaign, memory.campaigns[id], { nowMs: at.wallMs, session: memory.session.id });
    if (!cap.isAllowed) return { code: `blocked:${cap.code}`, retryAtMs: cap.retryAtMs };
    if (opened.has(id) && campaign.moment.againAfterSeconds === null) return { code: 'blocked:page.view' };
    const heldBy = yielded.get(id);
    if (heldBy !== undefined) return { code: 'blocked:yielded', to: heldBy };
    const remaining = momentOf(campaign).remaining(timesOf(memory, at));
    if (remaining > 0 || visibleSince === null) {
      return {
        code: 'waiting:trigger',
        remainingMs: Number.isFinite(remaining) ? Math.max(0, remaining) : null,
      };
    }
    if (!cameAt.has(id)) cameAt.set(id, at.ticksMs);
    const limit = decideSiteLimits(
      manifest.site.limits,
      { inPageView: shownHere, inSession: memory.session.shown, shownAtMs: memory.shownAtMs },
      at.wallMs,
    );
    if (!limit.isAllowed) return { code: `blocked:${limit.code}`, retryAtMs: limit.retryAtMs };
    if (hasRoom(campaign, [...open.values()], device)) return { code: 'ready' };
    const [holder] = [...open.keys()];
    if (campaign.whenBusy === 'wait') return { code: 'waiting:floor', heldBy: holder as string };
    yielded.set(id, holder as string);
    return { code: 'blocked:yielded', to: holder as string };
  };

  const verdictOf = (campaign: ManifestCampaign, memory: Memory, at: Now): Verdict =>
    scheduleVerdict(campaign, at) ?? gate(campaign, memory, at);

  return {
    visibleMs,
    setVisible(isVisible, at) {
      if (isVisible === (visibleSince !== null)) return;
      visibleBefore = visibleMs(at);
      visibleSince = isVisible ? at.ticksMs : null;
    },
    onActive(at) {
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
    onGone(id, memory, at) {
      if (!open.delete(id)) return;
      moments.get(id)?.rearm(timesOf(memory, at));
      cameAt.delete(id);
    },
    next(memory, at) {
      const near: { campaign: ManifestCampaign; inMs: number }[] = [];
      let first: ManifestCampaign | null = null;
      const came = ({ id }: ManifestCampaign) => cameAt.get(id) as number;
      for (const campaign of index.candidates(href, facts())[device]) {
        const verdict = verdictOf(campaign, memory, at);
        if (verdict.code === 'ready') {
          if (first === null || came(campaign) < came(first)) first = campaign;
        } else if (verdict.code === 'waiting:trigger') {
          if (verdict.remainingMs !== null && visibleSince !== null)
            near.push({ campaign, inMs: verdict.remainingMs });
        } else if ('retryAtMs' in verdict && verdict.retryAtMs !== null) {
          // A cap, a gap or a schedule that time lifts while one waits on the page.
          near.push({ campaign, inMs: verdict.retryAtMs - at.wallMs });
        }
      }
      return { open: first, near: near.sort((a, b) => a.inMs - b.inMs) };
    },
    verdictOf,
  };
}
