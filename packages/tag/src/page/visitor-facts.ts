import type { VisitorEvent } from '@velarium/contract';
import type { PageViewFacts } from '@velarium/core/decide';
import type { Rare, UserAgent } from '@velarium/core/rare';
import { find } from '../observe/on.ts';

interface Basket {
  readonly items: number;
  readonly total: number;
}

/** What the page's own script may tell of page and visitor; everything it sends is read defensively. */
interface ToldFacts {
  tellPage(page: unknown): void;
  tellVisitor(visitor: unknown): void;
  tellBasket(basket: unknown): void;
  read(): PageViewFacts;
  /** What of it the site records, as part of an event. */
  recorded(): Pick<VisitorEvent, 'told'> | null;
  /** A new page view: what was said of the old page does not hold for it. */
  forgetPage(): void;
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null;

/**
 * `kinds` is there only where a campaign asks for the kind of browser; `names` are those of the attributes that are
 * recorded, where anything is.
 */
export function createToldFacts(
  country: string | null,
  kinds: Pick<Rare, 'browserOf' | 'systemOf'> | undefined,
  names: string[] | null,
): ToldFacts {
  let kind: string | undefined;
  let signedIn: boolean | null = null;
  let basket: Basket | null = null;
  let attributes: Record<string, string> = {};
  const agent: UserAgent = {
    userAgent: navigator.userAgent,
    hints: (navigator as { userAgentData?: UserAgent['hints'] }).userAgentData,
    touchPoints: navigator.maxTouchPoints,
  };
  // Asked once: each costs more than a decision does.
  const languages = (navigator.languages ?? [navigator.language]).map((language) => language.toLowerCase());
  const browser = kinds?.browserOf(agent) ?? 'other';
  const system = kinds?.systemOf(agent) ?? 'other';
  let zone: string | undefined;
  const timeZone = () => {
    // A browser takes its time over this, so it is asked only when a schedule asks.
    zone ??= Intl.DateTimeFormat().resolvedOptions().timeZone;
    return zone;
  };
  return {
    tellPage(page) {
      if (isRecord(page) && typeof page.kind === 'string') kind = page.kind;
    },
    tellVisitor(visitor) {
      if (!isRecord(visitor)) return;
      const { signedIn: isSignedIn, ...others } = visitor;
      if (typeof isSignedIn === 'boolean' || isSignedIn === null) signedIn = isSignedIn;
      const plain = Object.entries(others).filter(([, value]) =>
        /^(string|number|boolean)$/.test(typeof value),
      );
      attributes = {
        ...attributes,
        ...Object.fromEntries(plain.map(([name, value]) => [name, String(value).slice(0, 300)])),
      };
    },
    tellBasket(next) {
      if (!isRecord(next)) return;
      const items = Array.isArray(next.items) ? next.items.length : Number(next.items);
      const total = Number(next.total ?? 0);
      if (Number.isFinite(items) && Number.isFinite(total)) basket = { items, total };
    },
    forgetPage() {
      kind = undefined;
    },
    recorded: () =>
      names && {
        told: {
          signedIn,
          basket,
          // A list of names as replacer keeps those alone (ECMA-262, JSON.stringify).
          attributes: JSON.parse(JSON.stringify(attributes, names)),
        },
      },
    read: () => ({
      kind: kind ?? find('meta[property="og:type"],meta[name="page-kind"]')?.getAttribute('content') ?? '',
      holds: (selector) => find(selector) !== null,
      signedIn,
      basket,
      attributes,
      languages,
      country,
      browser,
      system,
      ownHost: location.hostname,
      timeZone,
    }),
  };
}
