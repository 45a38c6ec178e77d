import type { Device, Manifest, ManifestCampaign } from '@velarium/contract';
import { decideCaps } from '../caps/caps.ts';
import { DEVICE_BIT } from '../devices/device.ts';
import type { PageFit, PageIndex } from '../manifest/page-index.ts';
import type { Verdict } from '../verdict/verdict.ts';
import type { Memory } from './memory.ts';

/** Two clocks: the wall decides caps, the ticks measure time on page, so a clock that jumps disturbs neither. */
export interface Now {
  /** Epoch milliseconds. */
  readonly wallMs: number;
  /** Milliseconds from any start, never running backwards. */
  readonly ticksMs: number;
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
  onOpened(campaignId: string): void;
  onGone(campaignId: string): void;
  next(memory: Memory, now: Now): NextStep;
  /** One verdict for every campaign of the manifest, in its order. */
  verdicts(memory: Memory, now: Now): Verdict[];
}

export interface PageViewInput {
  readonly manifest: Manifest;
  readonly index: PageIndex;
  readonly href: string;
  readonly device: Device;
  readonly isVisible: boolean;
  readonly now: Now;
}

export function createPageView({ manifest, index, href, device, isVisible, now }: PageViewInput): PageView {
  let visibleSince = isVisible ? now.ticksMs : null;
  let visibleBefore = 0;
  let open: string | null = null;
  const opened = new Set<string>();

  const visibleMs = (at: Now) => visibleBefore + (visibleSince === null ? 0 : at.ticksMs - visibleSince);

  /** The gates after page and device. */
  const gate = (campaign: ManifestCampaign, memory: Memory, at: Now): Verdict => {
    if (open === campaign.id) return { code: 'shown' };
    const cap = decideCaps(campaign, memory.campaigns[campaign.id], {
      nowMs: at.wallMs,
      session: memory.session.id,
    });
    if (!cap.isAllowed) return { code: `blocked:${cap.code}`, retryAtMs: cap.retryAtMs };
    if (opened.has(campaign.id)) return { code: 'blocked:page.view' };
    const remainingMs = campaign.afterMs - visibleMs(at);
    if (remainingMs > 0 || visibleSince === null)
      return { code: 'waiting:trigger', remainingMs: Math.max(0, remainingMs) };
    return open === null ? { code: 'ready' } : { code: 'waiting:message', openCampaign: open };
  };

  return {
    setVisible(nextVisible, at) {
      if (nextVisible === (visibleSince !== null)) return;
      visibleBefore = visibleMs(at);
      visibleSince = nextVisible ? at.ticksMs : null;
    },
    onOpened(campaignId) {
      open = campaignId;
      opened.add(campaignId);
    },
    onGone(campaignId) {
      if (open === campaignId) open = null;
    },
    next(memory, at) {
      const near: { campaign: ManifestCampaign; inMs: number }[] = [];
      for (const campaign of index.candidates(href)[device]) {
        const verdict = gate(campaign, memory, at);
        if (verdict.code === 'ready') return { open: campaign, near };
        if (verdict.code === 'waiting:trigger' && visibleSince !== null) {
          near.push({ campaign, inMs: verdict.remainingMs });
        }
      }
      return { open: null, near: near.sort((a, b) => a.inMs - b.inMs) };
    },
    verdicts(memory, at) {
      const fits = index.fit(href);
      return manifest.campaigns.map((campaign, position) => {
        const fit = fits[position] as PageFit;
        if (fit !== 'fits') return { code: `blocked:page.${fit}` };
        if ((campaign.devices & DEVICE_BIT[device]) === 0) return { code: 'blocked:device', device };
        return gate(campaign, memory, at);
      });
    },
  };
}
