import type { Verdict } from '@velarium/core/explain';

/** What a page can hear about. */
export type Topic = 'shown' | 'viewable' | 'closed' | 'converted' | 'called' | 'verdict';
export type Listener = (detail: {
  readonly campaign: string;
  readonly verdict?: Verdict;
  readonly name?: string | undefined;
}) => void;

export interface PublicApi {
  open(campaign: string): void;
  close(): void;
  /** Something happened: `event('reserved', { seats: 2 })`. */
  event(name: string, data?: unknown): void;
  /** What the page is: `page({ kind: 'article' })`. */
  page(facts: unknown): void;
  /** Who the visitor is: `visitor({ signedIn: true, plan: 'friend' })`. */
  visitor(facts: unknown): void;
  /** What is in the basket: `basket({ items: 3, total: 61.5, currency: 'GBP' })`. */
  basket(facts: unknown): void;
  /** Whether the visitor agrees to be remembered from page to page. */
  consent(isGiven: boolean): void;
  on(topic: Topic, listener: Listener): () => void;
}

/** Calls the page's own listeners; what they throw is theirs and never stops the tag. */
export function createTopics() {
  const listeners = new Set<readonly [Topic, Listener]>();
  return {
    on(topic: Topic, listener: Listener) {
      const one = [topic, listener] as const;
      listeners.add(one);
      return () => void listeners.delete(one);
    },
    tell(
      topic: Topic,
      campaign: string,
      more?: { readonly verdict?: Verdict; readonly name?: string | undefined },
    ) {
      for (const [wanted, listener] of listeners) {
        try {
          if (wanted === topic) listener({ campaign, ...more });
        } catch (error) {
          // Reported as an error of the page's script, which it is.
          reportError(error);
        }
      }
    },
  };
}

type Call = [name: keyof PublicApi, ...values: unknown[]];

/** Puts the real calls in place of the queue a page may have filled before the tag came. */
export function installApi(api: PublicApi): void {
  const scope = window as unknown as { velarium?: { q?: Call[] } | PublicApi };
  const waiting = (scope.velarium as { q?: Call[] } | undefined)?.q ?? [];
  scope.velarium = api;
  for (const [name, ...values] of waiting) (api[name] as (...values: unknown[]) => unknown)?.(...values);
}
