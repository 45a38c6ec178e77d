import type { PageViewFacts } from '@velarium/core/decide';
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
  /** A new page view: what was said of the old page does not hold for it. */
  forgetPage(): void;
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null;

export function createToldFacts(): ToldFacts {
  let kind: string | undefined;
  let signedIn: boolean | null = null;
  let basket: Basket | null = null;
  let attributes: Record<string, string> = {};
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
        ...Object.fromEntries(plain.map(([name, value]) => [name, String(value)])),
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
    read: () => ({
      kind: kind ?? find('meta[property="og:type"],meta[name="page-kind"]')?.getAttribute('content') ?? '',
      holds: (selector) => find(selector) !== null,
      signedIn,
      basket,
      attributes,
      languages: (navigator.languages ?? [navigator.language]).map((language) => language.toLowerCase()),
      // The edge's header will tell; until then unknown is a value.
      country: null,
      ownHost: location.hostname,
      timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    }),
  };
}
