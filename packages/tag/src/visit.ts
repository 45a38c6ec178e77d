import type { CloseWay, Manifest, ManifestCampaign, VisitorEvent } from '@velarium/contract';
import {
  createPageIndex,
  createPageView,
  deviceOf,
  type Fact,
  type Memory,
  type Now,
  type PageView,
  type PageViewFacts,
  pageKeys,
  rememberAnswered,
  rememberClosed,
  rememberConverted,
  rememberShown,
  rememberView,
  rememberVisible,
  trackingTest,
} from '@velarium/core/decide';
import type { createTopics, PublicApi } from './api.ts';
import type * as More from './extras.ts';
import { timeOrderedId } from './ids.ts';
import { all, closest, on } from './observe/on.ts';
import { onActivity } from './page/on-activity.ts';
import { onPageHidden } from './page/on-page-hidden.ts';
import { onPageShown } from './page/on-page-shown.ts';
import { onRouteChange } from './page/on-route-change.ts';
import type { EventOutbox } from './send/outbox.ts';
import type { Load, Loaded } from './show/load.ts';
import type { Shown } from './show/show.ts';
import type { SiteScript } from './site-script.ts';
import { type VisitorStore, withSiteLock } from './store/visitor-store.ts';

/** How long before its time a message is fetched, so that it opens on the second and not a request later. */
const FETCH_AHEAD_MS = 3000;
const SESSION_EVERY_MS = 15_000;
const STILLNESS_EVERY_MS = 250;
/** Longest a timer is set for; browsers take anything over 2^31 ms for nothing. */
const LONGEST_TIMER_MS = 3_600_000;

const NOTHING_TOLD = { kind: '', holds: () => false } as unknown as PageViewFacts;

export interface VisitInput {
  readonly script: SiteScript;
  readonly manifest: Manifest;
  readonly store: VisitorStore;
  readonly outbox: EventOutbox;
  readonly load: Load;
  readonly topics: ReturnType<typeof createTopics>;
  /** Loaded only for a manifest that needs them. */
  readonly more: typeof More | undefined;
}

/** Follows one document from page view to page view: tells core what happens and does what core decides. */
export function startVisit(input: VisitInput): Omit<PublicApi, 'on'> {
  const { script, manifest, store, outbox, load, topics, more } = input;
  const index = createPageIndex(manifest, more?.EXTRAS);
  const isTracking = trackingTest(manifest.site.trackingParameters);
  const told = more?.createToldFacts();
  // Without the extras no live campaign asks for any of these.
  const readFacts = told?.read ?? (() => NOTHING_TOLD);
  const shown = new Map<string, Shown>();
  let view: PageView;
  let viewedPage = '';
  let stopObserving = () => {};
  let opening: string | undefined;
  let isLeaving = false;
  let timer = 0;

  const now = (): Now => ({ wallMs: Date.now(), ticksMs: performance.now() });
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
    const pageKey = pageKeys(page(), isTracking).path;
    store.touch();
    store.change((memory) => rememberView(memory, pageKey));
    view = createPageView({
      manifest,
      index,
      href: location.href,
      pageKey,
      device: device(),
      facts: readFacts,
      isVisible: document.visibilityState === 'visible',
      now: now(),
      extras: more?.EXTRAS,
    });
    outbox.add(eventOf('pageview'));
    watch();
    plan();
  };

  /** Watches for what the campaigns that can open on this page ask for. */
  const watch = () => {
    stopObserving();
    const triggers = index
      .candidates(location.href, readFacts())
      [device()].flatMap(({ moment }) => moment.triggers);
    const isStill = triggers.some(({ kind }) => kind === 'inactivity');
    stopObserving = all([
      more?.observe(triggers, tell) ?? (() => {}),
      isStill ? onActivity(() => view.onActive(now()), STILLNESS_EVERY_MS) : () => {},
    ]);
  };

  const endPageView = () => {
    stopObserving();
    stopObserving = () => {};
    clearTimeout(timer);
    for (const one of [...shown.values()]) one.close(undefined);
    keepVisible();
    told?.forgetPage();
  };

  /** Visible time is kept when the page may go, each stretch once. */
  let keptVisibleMs = 0;
  const keepVisible = () => {
    const visibleMs = view.visibleMs(now());
    const more = visibleMs - keptVisibleMs;
    keptVisibleMs = visibleMs;
    if (more > 0) store.change((memory) => rememberVisible(memory, more));
  };
  /** What memory says, without the part of this page's visible time that it already holds. */
  const memoryNow = (): Memory => rememberVisible(store.read(), -keptVisibleMs);

  const tell = (fact: Fact) => {
    view.onFact(fact, memoryNow(), now());
    plan();
  };

  /** Asks core what comes next, and either opens it or wakes up when time alone could change the answer. */
  const plan = () => {
    clearTimeout(timer);
    if (isLeaving) return;
    const { open, near } = view.next(memoryNow(), now());
    if (open) void tryToOpen(open);
    const [soonest] = near;
    if (!soonest) return;
    const aheadMs = soonest.inMs - FETCH_AHEAD_MS;
    if (aheadMs <= 0) void load(soonest.campaign).catch(() => {});
    timer = window.setTimeout(plan, Math.min(LONGEST_TIMER_MS, aheadMs > 0 ? aheadMs : soonest.inMs));
  };

  const tryToOpen = async (campaign: ManifestCampaign) => {
    if (opening) return;
    opening = campaign.id;
    const ofView = view;
    try {
      const loaded = await load(campaign);
      await withSiteLock(script.key, () => {
        // Loading took time: the page, the visitor or another tab may have changed the answer.
        if (isLeaving || view !== ofView || view.next(memoryNow(), now()).open?.id !== campaign.id) return;
        store.change((memory) => rememberShown(memory, campaign, Date.now()));
        open(campaign, loaded);
      });
    } catch {
      // It could not be fetched: give way on this page view rather than try for ever.
      ofView.onOpened(campaign.id);
      ofView.onGone(campaign.id, memoryNow(), now());
    }
    opening = undefined;
    plan();
  };

  const open = (campaign: ManifestCampaign, { message, show }: Loaded) => {
    const ofView = view;
    const { id } = campaign;
    ofView.onOpened(id);
    const report = (kind: 'shown' | 'viewable') => {
      outbox.add(eventOf(kind, campaign));
      topics.tell(kind, id);
    };
    shown.set(
      id,
      show(message, {
        onViewable: () => report('viewable'),
        onClicked: () => {
          store.change((memory) => rememberAnswered(memory, id));
          outbox.add(eventOf('clicked', campaign));
        },
        onConverted: (by) => {
          if (by === 'link') outbox.add(eventOf('converted', campaign));
          store.change((memory) => rememberConverted(memory, id, Date.now()));
          topics.tell('converted', id);
        },
        edge: script.edge,
        envelope: () => ({
          site: script.key,
          visitor: store.read().visitor,
          event: { ...eventOf('converted', campaign), campaign: id, version: campaign.version },
        }),
        onGone: (way) => {
          shown.delete(id);
          if (way) onClosed(campaign, way);
          ofView.onGone(id, memoryNow(), now());
          if (view === ofView) plan();
        },
      }),
    );
    report('shown');
  };

  const onClosed = (campaign: ManifestCampaign, closedBy: CloseWay) => {
    store.change((memory) => rememberClosed(memory, campaign.id, Date.now()));
    outbox.add({ ...eventOf('closed', campaign), closedBy });
    topics.tell('closed', campaign.id);
  };

  const closeAll = () => {
    for (const one of [...shown.values()]) one.close('script');
  };
  /** By hand: the page asks for it itself, so neither its moment nor its caps are asked. */
  const openByHand = (id: string) => {
    const campaign = manifest.campaigns.find((one) => one.id === id);
    const isAsked = campaign?.moment.triggers.some(({ kind }) => kind === 'hand');
    if (isAsked) return tell({ kind: 'asked', campaign: id });
    if (!campaign || shown.size || opening) return;
    const ofView = view;
    load(campaign).then(
      (loaded) => {
        if (shown.size || view !== ofView) return;
        store.change((memory) => rememberShown(memory, campaign, Date.now()));
        open(campaign, loaded);
      },
      () => {},
    );
  };

  store.setLive(new Set(manifest.campaigns.map(({ id }) => id)), manifest.site.sessionMinutes);
  outbox.start(() => store.read().visitor);
  onRouteChange(() => {
    if (page() === viewedPage) return;
    endPageView();
    keptVisibleMs = 0;
    beginPageView();
  });
  onPageHidden(() => {
    view.setVisible(false, now());
    keepVisible();
    clearTimeout(timer);
  });
  // Nothing is shown on a page that is being left; one that comes back from the cache is whole again.
  on(window, ['pagehide'], () => {
    isLeaving = true;
  });
  onPageShown(() => {
    isLeaving = false;
    store.touch();
    view.setVisible(true, now());
    tell({ kind: 'tabReturned' });
  });
  onActivity(() => store.touch(), SESSION_EVERY_MS);
  on(document, ['click'], (event) => {
    const opener = closest(event, '[data-velarium-open]');
    if (opener) openByHand(opener.getAttribute('data-velarium-open') ?? '');
    if (closest(event, '[data-velarium-close]')) closeAll();
  });
  beginPageView();

  /** The page told something new: what may open can change, and with it what must be watched. */
  const reconsider = () => {
    watch();
    plan();
  };
  return {
    open: openByHand,
    close: closeAll,
    event: (name, data) => tell({ kind: 'event', name: String(name), data }),
    page(facts) {
      told?.tellPage(facts);
      reconsider();
    },
    visitor(facts) {
      told?.tellVisitor(facts);
      reconsider();
    },
    basket(facts) {
      told?.tellBasket(facts);
      reconsider();
      tell({ kind: 'event', name: 'basket', data: facts });
    },
  };
}
