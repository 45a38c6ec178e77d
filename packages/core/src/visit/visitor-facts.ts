import type { VisitorFacts } from '../audience/audience.ts';
import type { Memory } from './memory.ts';
import type { PageViewFacts } from './page-view.ts';

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
