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
export interface ToldFacts {
  /** The calls a page tells by. */
  readonly api: Pick<PublicApi, 'event' | 'page' | 'visitor' | 'basket'>;
  /** Asks the edge, once a session, for the country and what kind of place it came from. */
  learn(ask: (path: string) => Promise<unknown>, session: Memory['session']): void;
  read(): PageViewFacts;
  /** What of it the site records, as part of an event. */
  recorded(): Pick<VisitorEvent, 'told'> | null;
  /** A new page view: what was said of the old page does not hold for it. */
  forgetPage(): void;
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null;

/** Who hears of what a page tells. */
interface Hearers {
  /** Takes each goal that an event of the page has reached. */
  readonly reached: (goal: GoalReached) => void;
  /** Takes an event of the page. */
  readonly tell: (fact: Fact) => void;
  /** Called after anything else was learned. */
  readonly reconsider: () => void;
}

/** Of `rare` is there only what the site asks for; `unheard` was told of the visitor before, in this document. */
export function createToldFacts(
  rare: Partial<Pick<Rare, 'browserOf' | 'systemOf' | 'reachedBy'>>,
  { site, goals = [] }: Pick<Manifest, 'site' | 'goals'>,
  unheard: readonly (readonly [call: string, said: unknown])[],
  { reached, tell, reconsider }: Hearers,
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
  const browser = rare.browserOf?.(agent) ?? 'other';
  const system = rare.systemOf?.(agent) ?? 'other';
  let zone: string | undefined;
  const timeZone = () => {
    // A browser takes its time over this, so it is asked only when a schedule asks.
    zone ??= Intl.DateTimeFormat().resolvedOptions().timeZone;
    return zone;
  };
  const visitorIs = (visitor: unknown) => {
    if (!isRecord(visitor)) return;
    const { signedIn: isSignedIn, ...others } = visitor;
    if (typeof isSignedIn === 'boolean' || isSignedIn === null) signedIn = isSignedIn;
    for (const [name, value] of Object.entries(others)) {
      if (/^(string|number|boolean)$/.test(typeof value))
        attributes = { ...attributes, [name]: String(value).slice(0, 300) };
    }
  };
  const basketIs = (next: unknown) => {
    if (!isRecord(next)) return;
    const items = Array.isArray(next.items) ? next.items.length : Number(next.items);
    const total = Number(next.total ?? 0);
    // No basket holds less than nothing, or more than the server takes.
    if (items >= 0 && items <= 1e6 && total >= 0 && total <= 1e12) basket = { items, total };
  };
  // That it was told is no event of the page that asks now.
  for (const [call, said] of unheard) (call === 'basket' ? basketIs : visitorIs)(said);
  return {
    api: {
      event(given, data) {
        const name = String(given);
        rare.reachedBy?.(goals, { name, data }, basket?.total ?? null).forEach(reached);
        tell({ kind: 'event', name, data });
      },
      page(page) {
        if (isRecord(page) && typeof page.kind === 'string') kind = page.kind;
        reconsider();
      },
      visitor(visitor) {
        visitorIs(visitor);
        reconsider();
      },
      basket(next) {
        basketIs(next);
        reconsider();
        if (isRecord(next)) tell({ kind: 'event', name: 'basket', data: next });
      },
    },
    learn(ask, { id, referrer, arrival }) {
      if (id === asked) return;
      asked = id;
      about = {};
      ask(`about?${new URLSearchParams({ ...arrival, from: referrer })}`).then(
        (answer) => {
          about = isRecord(answer) ? answer : {};
          reconsider();
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
