import type { CloseWay, Manifest, ManifestCampaign, VisitorEvent } from '@velarium/contract';
import {
  createPageIndex,
  createPageView,
  deviceOf,
  type Now,
  type PageView,
  rememberClosed,
  rememberConverted,
  rememberShown,
} from '@velarium/core/decide';
import type { createTopics } from './api.ts';
import { timeOrderedId } from './ids.ts';
import { onActivity } from './page/on-activity.ts';
import { onPageHidden } from './page/on-page-hidden.ts';
import { onPageShown } from './page/on-page-shown.ts';
import { onRouteChange } from './page/on-route-change.ts';
import type { EventOutbox } from './send/outbox.ts';
import { submitAnswers } from './send/submit.ts';
import type { Load } from './show/load.ts';
import { type Shown, show } from './show/show.ts';
import type { SiteScript } from './site-script.ts';
import { type VisitorStore, withSiteLock } from './store/visitor-store.ts';

/** How long before its time a message is fetched, so that it opens on the second and not a request later. */
const FETCH_AHEAD_MS = 3000;
const ACTIVITY_EVERY_MS = 15_000;

export interface VisitInput {
  readonly script: SiteScript;
  readonly manifest: Manifest;
  readonly store: VisitorStore;
  readonly outbox: EventOutbox;
  readonly load: Load;
  readonly topics: ReturnType<typeof createTopics>;
}

/** Follows one document from page view to page view: tells core what happens and does what core decides. */
export function startVisit({ script, manifest, store, outbox, load, topics }: VisitInput) {
  const index = createPageIndex(manifest);
  let view: PageView;
  let viewedPage = '';
  let shown: Shown | undefined;
  let opening: string | undefined;
  let timer = 0;

  const now = (): Now => ({ wallMs: Date.now(), ticksMs: performance.now() });
  const isVisible = () => document.visibilityState === 'visible';
  const page = () => location.pathname + location.search;
  const device = () =>
    deviceOf(
      { width: innerWidth, hasCoarsePointer: matchMedia('(pointer:coarse)').matches },
      manifest.site.breakpoints,
    );
  const eventOf = <Kind extends VisitorEvent['kind']>(kind: Kind, campaign?: ManifestCampaign) => ({
    id: timeOrderedId(),
    kind,
    session: store.read().session.id,
    page: viewedPage.slice(0, 2048),
    device: device(),
    ...(campaign ? { campaign: campaign.id, version: campaign.version } : {}),
  });

  const beginPageView = () => {
    viewedPage = page();
    store.touch();
    view = createPageView({
      manifest,
      index,
      href: location.href,
      device: device(),
      isVisible: isVisible(),
      now: now(),
    });
    outbox.add(eventOf('pageview'));
    plan();
  };

  /** Asks core what comes next, and either opens it or wakes up when time alone could change the answer. */
  const plan = () => {
    clearTimeout(timer);
    const { open, near } = view.next(store.read(), now());
    if (open) {
      void tryToOpen(open);
      return;
    }
    const soonest = near[0];
    if (!soonest) return;
    const aheadMs = soonest.inMs - FETCH_AHEAD_MS;
    if (aheadMs <= 0) void load(soonest.campaign).catch(() => {});
    timer = window.setTimeout(plan, aheadMs > 0 ? aheadMs : soonest.inMs);
  };

  const tryToOpen = async (campaign: ManifestCampaign) => {
    if (opening || shown) return;
    opening = campaign.id;
    const ofView = view;
    try {
      const loaded = await load(campaign);
      await withSiteLock(script.key, () => {
        // Loading took time: the page, the visitor or another tab may have changed the answer.
        if (view !== ofView || view.next(store.read(), now()).open?.id !== campaign.id) return;
        store.change((memory) => rememberShown(memory, campaign, Date.now()));
        open(campaign, loaded);
      });
    } catch {
      // It could not be fetched: give way on this page view rather than try for ever.
      ofView.onOpened(campaign.id);
      ofView.onGone(campaign.id);
    }
    opening = undefined;
    if (!shown) plan();
  };

  const open = (campaign: ManifestCampaign, loaded: Awaited<ReturnType<Load>>) => {
    const ofView = view;
    ofView.onOpened(campaign.id);
    shown = show(campaign, loaded, {
      onViewable: () => report('viewable'),
      onClicked: () => outbox.add(eventOf('clicked', campaign)),
      onConverted: (by) => {
        if (by === 'link') outbox.add(eventOf('converted', campaign));
        store.change((memory) => rememberConverted(memory, campaign.id, Date.now()));
        topics.tell('converted', campaign.id);
      },
      send: async ({ fields, consent }) => {
        const event = { ...eventOf('converted', campaign), campaign: campaign.id, version: campaign.version };
        await submitAnswers(script.edge, {
          site: script.key,
          visitor: store.read().visitor,
          event,
          fields,
          consent,
        });
      },
      onGone: (way) => {
        shown = undefined;
        ofView.onGone(campaign.id);
        if (way) onClosed(campaign, way);
        plan();
      },
    });
    report('shown');

    function report(kind: 'shown' | 'viewable') {
      outbox.add(eventOf(kind, campaign));
      topics.tell(kind, campaign.id);
    }
  };

  const onClosed = (campaign: ManifestCampaign, closedBy: CloseWay) => {
    store.change((memory) => rememberClosed(memory, campaign.id, Date.now()));
    outbox.add({ ...eventOf('closed', campaign), closedBy });
    topics.tell('closed', campaign.id);
  };

  store.setLive(new Set(manifest.campaigns.map(({ id }) => id)), manifest.site.sessionMinutes);
  outbox.start(() => store.read().visitor);
  onRouteChange(() => {
    if (page() === viewedPage) return;
    shown?.close(undefined);
    beginPageView();
  });
  onPageHidden(() => {
    view.setVisible(false, now());
    clearTimeout(timer);
  });
  onPageShown(() => {
    store.touch();
    view.setVisible(true, now());
    plan();
  });
  onActivity(() => store.touch(), ACTIVITY_EVERY_MS);
  beginPageView();

  return {
    open(campaignId: string) {
      const campaign = manifest.campaigns.find(({ id }) => id === campaignId);
      if (!campaign || shown || opening) return;
      // By hand: the page asks for it itself, so neither its moment nor its caps are asked.
      const ofView = view;
      void load(campaign).then(
        (loaded) => {
          if (shown || view !== ofView) return;
          store.change((memory) => rememberShown(memory, campaign, Date.now()));
          open(campaign, loaded);
        },
        () => {},
      );
    },
    close: () => shown?.close('script'),
  };
}
