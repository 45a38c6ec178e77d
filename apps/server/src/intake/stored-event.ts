import type { Browser, System } from '@velarium/contract';

/** How a session began. */
export interface Begun {
  readonly number: number;
  readonly referrer: string;
  readonly country: string | null;
  /** Best first, lower case, with commas between. */
  readonly languages: string;
  readonly browser: Browser;
  readonly system: System;
}

/** What a page told of its visitor, as far as its site records it. */
export interface Told {
  readonly signedIn: boolean | null;
  readonly items: number | null;
  readonly total: number | null;
  /** JSON of an object of texts. */
  readonly attributes: string;
}

/** One event as intake stores it, its site known and its time settled. */
export interface StoredEvent {
  readonly id: string;
  readonly at: Date;
  /** Whether the time inside its id was not believed, so that `at` is when it came. */
  readonly isLate: boolean;
  /** The time inside the id of a late event, where it lies in the past: it may have been stored then. */
  readonly ownAt: Date | null;
  readonly siteId: string;
  readonly kind: string;
  readonly visitor: string;
  readonly session: string;
  readonly page: string;
  /** The path its page is counted under. */
  readonly path: string;
  readonly device: string;
  readonly campaign: string | null;
  readonly version: number | null;
  readonly closedBy: string | null;
  readonly variant: string | null;
  /** Seconds and per cent of the page; see the contract. */
  readonly stay: readonly [number, number] | null;
  /** The kind of trigger that opened a message. */
  readonly cause: string | null;
  /** The language a message of several was in. */
  readonly language: string | null;
  /** With `clicked` a block of the message, with `answering` a field. */
  readonly part: string | null;
  /** With `reached`: the goal, and what it was worth. */
  readonly goal: string | null;
  readonly worth: number | null;
  /** The page view that was left: the id of its first event. */
  readonly view: string | null;
  /** With the first page view of a session. */
  readonly begun: Begun | null;
  /** What the page told of the visitor, as far as the site records it. */
  readonly told: Told | null;
}
