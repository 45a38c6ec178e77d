import type { Condition } from '@velarium/contract';

export interface KindOfCondition {
  readonly label: string;
  readonly beginning: Condition;
}

/** Conditions sorted by what people ask for most (common practice). */
export const CONDITION_KINDS: { readonly [Kind in Condition['kind']]: KindOfCondition } = {
  visitor: { label: 'New or returning', beginning: { kind: 'visitor', is: 'returning' } },
  source: { label: 'Came from', beginning: { kind: 'source', is: 'search' } },
  signedIn: { label: 'Signed in or not', beginning: { kind: 'signedIn', is: false } },
  campaign: {
    label: 'Has seen, closed or converted on',
    beginning: { kind: 'campaign', id: null, what: 'converted' },
  },
  sessions: { label: 'Sessions so far', beginning: { kind: 'sessions', comparison: 'atLeast', count: 3 } },
  views: {
    label: 'Page views in this session',
    beginning: { kind: 'views', comparison: 'atLeast', count: 3 },
  },
  basketItems: {
    label: 'Things in the basket',
    beginning: { kind: 'basketItems', comparison: 'atLeast', count: 1 },
  },
  basketTotal: {
    label: 'Worth of the basket',
    beginning: { kind: 'basketTotal', comparison: 'atLeast', amount: 60 },
  },
  country: { label: 'Country', beginning: { kind: 'country', code: 'gb' } },
  language: { label: 'Language', beginning: { kind: 'language', code: 'en' } },
  referrer: { label: 'Came from a certain site', beginning: { kind: 'referrer', host: 'partner.example' } },
  arrival: {
    label: 'Came with a parameter',
    beginning: { kind: 'arrival', parameter: 'utm_source', value: 'letter' },
  },
  landing: { label: 'Began the session on', beginning: { kind: 'landing', path: '/' } },
  browser: { label: 'Browser', beginning: { kind: 'browser', is: 'chromium' } },
  system: { label: 'System', beginning: { kind: 'system', is: 'ios' } },
  attribute: {
    label: 'Something the page tells',
    beginning: { kind: 'attribute', name: 'plan', value: 'friend' },
  },
};
