import type { Manifest, ManifestCampaign, TagPart, VisitorEvent } from '@velarium/contract';
import {
  createKeyReader,
  createPageIndex,
  createPageView,
  deviceOf,
  type Fact,
  type Memory,
  type Now,
  type PageIndex,
  type PageView,
  type PageViewFacts,
  rememberView,
  rememberVisible,
} from '@velarium/core/decide';
import type { explain } from '@velarium/core/explain';
import type { createTopics, PublicApi } from './api.ts';
import type { Beginning } from './beginning.ts';
import { timeOrderedId } from './ids.ts';
import { closest, on } from './observe/on.ts';
import { onActivity } from './page/on-activity.ts';
import { onDepth } from './page/on-depth.ts';
import { onPageHidden } from './page/on-page-hidden.ts';
import { onPageShown } from './page/on-page-shown.ts';
import { onRouteChange } from './page/on-route-change.ts';
import type { ToldFacts } from './page/visitor-facts.ts';
import type { PartBundles, Parts } from './parts.ts';
import type { Loaded } from './show/load.ts';
import type { Shown } from './show/show.ts';
import { type VisitorStore, withSiteLock } from './store/visitor-store.ts';

/** How long before its time a message is fetched, so that it opens on the second and not a request later. */
const FETCH_AHEAD_MS = 3000;
const SESSION_EVERY_MS = 15_000;
/** Longest a timer is set for; browsers take anything over 2^31 ms for nothing. */
const LONGEST_TIMER_MS = 3_600_000;

const nothing = () => {};
/** Nobody reads any of it without the extras. */
const NOTHING_TOLD = {} as PageViewFacts;

export interface Visit {
  /** What the page's own script may call. */
  readonly api: Omit<PublicApi, 'on'>;
  /** What core is asked at this moment, for those who want to see its verdicts. */
  look(): Parameters<typeof explain>;
  /** Begins the page view anew. */
  restart(): void;
  /** Shows a campaign whatever its rule says. */
  showNow(campaign: ManifestCampaign): void;
}

/** Follows one document from page view to page view: tells core what happens and does what core decides. */
export async function startVisit(
  input: Beginning,
  store: VisitorStore,
  tellTopic: ReturnType<typeof createTopics>['tell'],
): Promise<Visit> {
  const { script, storage, outbox, load, ask: askEdge, isPreview, loadPart } = input;
  const { site } = input.manifest;
  const keysOf = createKeyReader(site);
  const parts: Parts = {};
  let told: ToldFacts | undefined;
  /** What was told of the visitor while no page asked for it, the latest of it. */
  let unheard: (readonly [call: string, said: unknown])[] = [];
  // Without the extras no campaign of this page asks for any of these.
  const readFacts = () => told?.read() ?? NOTHING_TOLD;
  const shown = new Map<string, Shown>();
  let manifest: Manifest;
  let index: PageIndex;
  let view: PageView;
  let viewedPage = '';
  /** The event this page view began with. */
  let viewId = '';
  let stopObserving = nothing;
  let depth: ReturnType<typeof onDepth>;
  let asksDepth = false;
  /** What happened on this page before a part came that its campaigns ask for; until then nothing opens. */
  let early: Fact[] | undefined;
  let opening: string | undefined;
  let isLeaving = false;
  let timer = 0;

  const now = (): Now => ({ wallMs: Date.now(), ticksMs: performance.now() });
  const page = () => location.pathname + location.search + (site.hashRoutes ? location.hash : '');
  const device = () => deviceOf(innerWidth, matchMedia('(pointer:coarse)').matches, site.breakpoints);
  const eventOf = <Kind extends VisitorEvent['kind']>(kind: Kind, campaign?: ManifestCampaign) => ({
    id: timeOrderedId(),
    kind,
    session: store.read().session.id,
    page: viewedPage.slice(0, 2048),
    device: device(),
    // What is undefined, JSON leaves out.
    campaign: campaign?.id,
    version: campaign?.version,
    variant: campaign?.variant,
  });
  /** Tells what happened, and answers with the id of the event that says so. */
  const report = (
    kind: VisitorEvent['kind'],
    more?: Partial<VisitorEvent> | null | false,
    campaign?: ManifestCampaign,
  ) => {
    const event = { ...eventOf(kind, campaign), ...more };
    outbox.add(event);
    return event.id;
  };
  const surroundings = () => ({ manifest, index, href: location.href, device: device(), facts: readFacts });
  const bring = async (asked: readonly TagPart[]) => {
    const loaded = await Promise.all(asked.map(loadPart<PartBundles[TagPart]>));
    Object.assign(parts, ...loaded.map(({ PART }) => PART), input.parts);
    told ??= parts.createToldFacts?.(parts, input.manifest, unheard, {
      reached: (reached) => report('reached', reached),
      tell,
      reconsider,
    });
  };
  const beginPageView = () => {
    viewedPage = page();
    const pageKey = keysOf(viewedPage).path;
    store.touch();
    const { session } = store.change((memory) => rememberView(memory, pageKey));
    const at = now();
    /** With the parts there are, from the moment the page began. */
    const decide = () => {
      manifest =
        parts.manifestFor?.(storage.isKept() ? store.read().visitor : null, input.manifest) ?? input.manifest;
      index = createPageIndex(manifest, parts);
      const begun = createPageView({
        ...surroundings(),
        pageKey,
        remembers: storage.isKept,
        isVisible: !document.hidden,
        now: at,
        extras: parts,
      });
      view = parts.underOneFloor?.(site, begun, memoryNow, now, plan) ?? begun;
      // What the edge knows of a session comes when it comes.
      if (manifest.asksEdge) told?.learn(askEdge, session);
      reconsider();
    };
    decide();
    const missing = candidates().flatMap(({ asks = [] }) => asks);
    const facts: Fact[] | undefined = missing[0] && [];
    early = facts;
    if (facts)
      bring(missing).then(() => {
        // Another page may have been gone to, which waits for others or for nothing.
        if (early !== facts) return;
        decide();
        early = undefined;
        facts.forEach(tell);
        // One that cannot be had is waited for in vain: without it they would be decided wrongly.
      }, nothing);
    viewId = report('pageview', session.views < 2 && { begun: [session.number, session.referrer] });
    depth = onDepth((reached) => {
      if (asksDepth) tell({ kind: 'scrolled', ...reached });
    });
  };

  /** A message to ourselves comes as a task of its own, without the wait that a timer has: the page comes between. */
  const { port1, port2 } = new MessageChannel();
  let isReconsidering = false;
  port1.onmessage = ({ data: isWatched }) => {
    if (isWatched) return plan();
    isReconsidering = false;
    watch();
    port2.postMessage(1);
  };
  /**
   * The page told something new: what may open can change, and with it what must be watched. Once for all that it tells at a
   * time.
   */
  const reconsider = () => {
    if (!isReconsidering) port2.postMessage(0);
    isReconsidering = true;
  };

  /** The campaigns that can open on this page. */
  const candidates = () => index.candidates(location.href, readFacts(), device());
  /** Watches for what they ask for. */
  const watch = () => {
    stopObserving();
    const triggers = candidates().flatMap(({ moment }) => moment.triggers);
    asksDepth = triggers.some(({ kind }) => kind === 'scroll');
    stopObserving =
      parts.observe?.(
        triggers,
        { tell, active: () => view.onActive(memoryNow(), now()) },
        parts.onExitByTouch,
      ) ?? nothing;
  };

  const closeAll = (way?: 'script') => {
    // One that goes takes itself away, and none opens before the task is over.
    shown.forEach((one) => {
      one.close(way);
    });
  };

  const endPageView = () => {
    stopObserving();
    clearTimeout(timer);
    closeAll();
    tellLeft();
    depth.stop();
    told?.forgetPage();
  };

  /** Visible time is kept when the page may go, each stretch once. */
  let keptVisibleMs = 0;
  const keepVisible = () => {
    const visibleMs = view.pageVisibleMs(now());
    const more = visibleMs - keptVisibleMs;
    keptVisibleMs = visibleMs;
    if (more > 0) store.change((memory) => rememberVisible(memory, more));
  };
  let toldStay = '';
  const stayed = (): [number, number] => [(view.pageVisibleMs(now()) / 1000) | 0, depth.read().percent | 0];
  const tellLeft = () => {
    keepVisible();
    const stay = stayed();
    // People come back to hidden pages and leave them again.
    // Of who is not remembered nothing that the page told is recorded.
    const facts = storage.isKept() && told?.recorded();
    if (`${stay}` !== toldStay) report('left', { view: viewId, stay, ...facts, title: document.title });
    toldStay = `${stay}`;
  };
  /** What memory says, without the part of this page's visible time that it already holds. */
  const memoryNow = (): Memory => rememberVisible(store.read(), -keptVisibleMs);

  const tell = (fact: Fact) => {
    early?.push(fact);
    view.onFact(fact, memoryNow(), now());
    // What is reconsidered is planned too.
    if (!isReconsidering) plan();
  };

  /** What core says comes next; showings it withholds are told once. */
  const ask = () => {
    const at = now();
    const next = view.next(memoryNow(), at);
    view.settle(next, at);
    for (const campaign of next.held) report('held', null, campaign);
    return next;
  };

  /** Asks core what comes next, and either opens it or wakes up when time alone could change the answer. */
  const plan = () => {
    clearTimeout(timer);
    if (isLeaving || early) return;
    const { open, near } = ask();
    if (open) void tryToOpen(open);
    const soonest = near[0];
    if (!soonest) return;
    const aheadMs = soonest.inMs - FETCH_AHEAD_MS;
    if (aheadMs <= 0) void load(soonest.campaign.message).catch(nothing);
    timer = window.setTimeout(plan, Math.min(LONGEST_TIMER_MS, aheadMs > 0 ? aheadMs : soonest.inMs));
  };

  const tryToOpen = async (campaign: ManifestCampaign) => {
    if (opening) return;
    opening = campaign.id;
    const ofView = view;
    try {
      const loaded = await load(campaign.message);
      if (!(await loaded.renderer.isLive(askEdge, campaign.id))) throw 0;
      await withSiteLock(script.key, () => {
        // Loading took time: the page, the visitor or another tab may have changed the answer.
        if (!isLeaving && view === ofView && ask().open?.id === campaign.id) open(campaign, loaded);
      });
    } catch {
      // It could not be fetched, or rests by now: give way on this page view rather than try for ever.
      ofView.giveUp(campaign.id);
    }
    opening = undefined;
    plan();
  };

  const open = (campaign: ManifestCampaign, { file, renderer, ...drawing }: Loaded) => {
    const ofView = view;
    const { id } = campaign;
    ofView.onOpened(id);
    shown.set(
      id,
      renderer.show(campaign, file, {
        ask: askEdge,
        eachLeft: ofView.leftOf(id, memoryNow(), now()),
        isKept: () => !isPreview && storage.isKept(),
        stayed,
        manifest,
        change: store.change,
        report: (kind, more) => report(kind, more, campaign),
        tell: (topic, name) => tellTopic(topic, id, { name }),
        send: async (answered) =>
          // Nothing is sent but from a form, which came with its part.
          isPreview ||
          (drawing.form as NonNullable<typeof drawing.form>).submitAnswers(
            script,
            store.read().visitor,
            eventOf('converted', campaign),
            { ...answered, message: campaign.message },
          ),
        facts: readFacts,
        script,
        parts: drawing,
        onGone: () => {
          shown.delete(id);
          ofView.onGone(id, memoryNow(), now());
          if (view === ofView) plan();
        },
      }),
    );
  };

  const restart = () => {
    endPageView();
    keptVisibleMs = 0;
    toldStay = '';
    beginPageView();
  };
  const openAtOnce = async (campaign: ManifestCampaign) => {
    const ofView = view;
    const loaded = await load(campaign.message).catch(nothing);
    if (loaded && !shown.size && view === ofView) open(campaign, loaded);
  };
  /** By hand: the page asks for it itself, so neither its moment nor its caps are asked. */
  const openByHand = (id: string) => {
    const campaign = manifest.campaigns.find((one) => one.id === id);
    const isAsked = campaign?.moment.triggers.some(({ kind }) => kind === 'hand');
    if (isAsked) return tell({ kind: 'asked', campaign: id });
    if (campaign && !opening) void openAtOnce(campaign);
  };

  /** What a page tells is for the campaigns of this page, and what it tells of its visitor for those of the pages that follow, too. */
  const hearing =
    (call: keyof ToldFacts['api'], isKept?: true) =>
    (...said: [never]) => {
      if (told || early) bring(['extras']).then(() => told?.api[call](...said), nothing);
      else if (isKept) unheard = [...unheard.slice(-99), [call, ...said]];
    };

  await bring(input.manifest.everywhere ?? input.manifest.parts);
  // Whose visit it is must be known before anything is asked of memory.
  parts.shareSession?.(site, script.key, storage, store);
  onRouteChange(() => {
    if (page() !== viewedPage) restart();
  });
  onPageHidden(() => {
    view.setVisible(false, memoryNow(), now());
    tellLeft();
    clearTimeout(timer);
  });
  // Its own way of sending what is left comes after what has just been told.
  outbox.start(() => store.read().visitor);
  // Nothing is shown on a page that is being left; one that comes back from the cache is whole again.
  on(window, ['pagehide'], () => {
    isLeaving = true;
  });
  onPageShown(() => {
    isLeaving = false;
    store.touch();
    view.setVisible(true, memoryNow(), now());
    tell({ kind: 'tabReturned' });
  });
  onActivity(store.touch, SESSION_EVERY_MS);
  on(document, ['click'], (event) => {
    const opener = closest(event, '[data-velarium-open]');
    if (opener) openByHand(opener.getAttribute('data-velarium-open') ?? '');
    if (closest(event, '[data-velarium-close]')) closeAll('script');
  });
  beginPageView();

  return {
    restart,
    showNow(campaign) {
      closeAll('script');
      void openAtOnce(campaign);
    },
    look: () => [view, surroundings(), memoryNow(), now()],
    api: {
      open: openByHand,
      close: () => closeAll('script'),
      event: hearing('event'),
      page: hearing('page'),
      visitor: hearing('visitor', true),
      basket: hearing('basket', true),
      consent(isGiven) {
        // Rarely called, so it comes apart.
        bring(['rare'])
          .then(() => {
            parts.giveConsent?.(isGiven, script.key, store, storage);
            reconsider();
          })
          // What cannot be asked is not assumed.
          .catch(() => storage.allow(false));
      },
    },
  };
}
