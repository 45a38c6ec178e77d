import type { Browser, System } from '@velarium/contract';
import type { VisitorFacts } from '../audience/audience.ts';
import type { PageFacts } from '../pages/plain-page-rule.ts';
import type { Memory } from './memory.ts';

/** What the page and the browser tell of page and visitor; memory adds the rest. All may change at any moment. */
export interface PageViewFacts extends PageFacts {
  readonly signedIn: boolean | null;
  readonly basket: VisitorFacts['basket'];
  readonly attributes: VisitorFacts['attributes'];
  readonly languages: VisitorFacts['languages'];
  readonly country: string | null;
  readonly browser: Browser;
  readonly system: System;
  readonly source: VisitorFacts['source'];
  /** IANA name of the visitor's time zone. */
  readonly timeZone: () => string;
}

/** What an audience may ask of a visitor: what the page tells of them, and what their browser remembers. */
export const visitorFacts = ({ session, campaigns }: Memory, told: PageViewFacts): VisitorFacts => ({
  ...told,
  sessions: session.number,
  viewsInSession: session.views,
  referrer: session.referrer,
  arrival: session.arrival,
  landing: session.landing,
  history: (id) => {
    const past = campaigns[id];
    return {
      seen: (past?.showings ?? 0) > 0,
      closed: past?.closedAtMs !== undefined,
      converted: past?.convertedAtMs !== undefined,
    };
  },
});
