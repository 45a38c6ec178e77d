import type { Manifest, Source, VisitorEvent } from '@velarium/contract';
import type { Fact, Memory, PageViewFacts } from '@velarium/core/decide';
import type { GoalReached, Rare, UserAgent } from '@velarium/core/rare';
import type { PublicApi } from '../api.ts';
import { find } from '../observe/on.ts';

interface Basket {
  readonly items: number;
  readonly total: number;
}

/** What the page's own script may tell of page and visitor; everything it sends is read defensively. */
interface ToldFacts {
  /** The calls a page tells by; `tell` takes an event, `reconsider` is called after anything else. */
  api(
    tell: (fact: Fact) => void,
    reconsider: () => void,
  ): Pick<PublicApi, 'event' | 'page' | 'visitor' | 'basket'>;
  /** Asks the edge, once a session, for the country and what kind of place it came from; `then` once it has answered. */
  learn(ask: (path: string) => Promise<unknown>, session: Memory['session'], then: () => void): void;
  read(): PageViewFacts;
  /** What of it the site records, as part of an event. */
  recorded(): Pick<VisitorEvent, 'told'> | null;
  /** A new page view: what was said of the old page does not hold for it. */
  forgetPage(): void;
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null;

/**
 * `rare` is there only where the site asks for something of it; `reached` takes each goal that an event of the page has
 * reached.
 */
export function createToldFacts(
  rare: Pick<Rare, 'browserOf' | 'systemOf' | 'reachedBy'> | undefined,
  { site, goals = [] }: Pick<Manifest, 'site' | 'goals'>,
  reached: (goal: GoalReached) => void,
): ToldFacts {
  const names = site.recordedFacts;
  let kind: string | undefined;
  let signedIn: boolean | null = null;
  let basket: Basket | null = null;
  let attributes: Record<string, string> = {};
  /** The session the edge was asked about. */
  let asked = '';
  let about: { readonly country?: string; readonly source?: Source } = {};
  const agent: UserAgent = {
    userAgent: navigator.userAgent,
    hints: (navigator as { userAgentData?: UserAgent['hints'] }).userAgentData,
    touchPoints: navigator.maxTouchPoints,
  };
  // Asked once: each costs more than a decision does.
  const languages = (navigator.languages ?? [navigator.language]).map((language) => language.toLowerCase());
  const browser = rare?.browserOf(agent) ?? 'other';
  const system = rare?.systemOf(agent) ?? 'other';
  let zone: string | undefined;
  const timeZone = () => {
    // A browser takes its time over this, so it is asked only when a schedule asks.
    zone ??= Intl.DateTimeFormat().resolvedOptions().timeZone;
    return zone;
  };
  return {
    api: (tell, reconsider) => ({
      event(given, data) {
        const name = String(given);
        rare?.reachedBy(goals, { name, data }, basket?.total ?? null).forEach(reached);
        tell({ kind: 'event', name, data });
      },
      page(page) {
        if (isRecord(page) && typeof page.kind === 'string') kind = page.kind;
        reconsider();
      },
      visitor(visitor) {
        if (!isRecord(visitor)) return;
        const { signedIn: isSignedIn, ...others } = visitor;
        if (typeof isSignedIn === 'boolean' || isSignedIn === null) signedIn = isSignedIn;
        for (const [name, value] of Object.entries(others)) {
          if (/^(string|number|boolean)$/.test(typeof value))
            attributes = { ...attributes, [name]: String(value).slice(0, 300) };
        }
        reconsider();
      },
      basket(next) {
        if (!isRecord(next)) return;
        const items = Array.isArray(next.items) ? next.items.length : Number(next.items);
        const total = Number(next.total ?? 0);
        // No basket holds less than nothing, or more than the server takes.
        if (items >= 0 && items <= 1e6 && total >= 0 && total <= 1e12) basket = { items, total };
        reconsider();
        tell({ kind: 'event', name: 'basket', data: next });
      },
    }),
    learn(ask, { id, referrer, arrival }, then) {
      if (id === asked) return;
      asked = id;
      about = {};
      ask(`about?${new URLSearchParams({ ...arrival, from: referrer })}`).then(
        (answer) => {
          about = isRecord(answer) ? answer : {};
          then();
        },
        // Unknown it stays.
        () => {},
      );
    },
    forgetPage() {
      kind = undefined;
    },
    recorded: () =>
      names && {
        told: {
          signedIn,
          basket,
          attributes: Object.fromEntries(
            names.flatMap((name) => (name in attributes ? [[name, attributes[name] as string]] : [])),
          ),
        },
      },
    read: () => ({
      kind: kind ?? find('meta[property="og:type"],meta[name="page-kind"]')?.getAttribute('content') ?? '',
      holds: (selector) => find(selector) !== null,
      signedIn,
      basket,
      attributes,
      languages,
      country: about.country ?? null,
      source: about.source ?? null,
      browser,
      system,
      timeZone,
    }),
  };
}
