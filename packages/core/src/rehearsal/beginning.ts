import {
  REHEARSAL_FORM,
  type Rehearsal,
  type RehearsedPage,
  type RehearsedVisitor,
} from '@velarium/contract';

/** As long as half of all readers stay, where nothing is known of a page. */
const USUAL_SECONDS = 30;
const USUAL_DEPTH = 60;

export const beginPage = (path: string, known: { seconds?: number; depth?: number } = {}): RehearsedPage => ({
  path,
  seconds: known.seconds ?? USUAL_SECONDS,
  depth: known.depth ?? USUAL_DEPTH,
  afterMinutes: 0,
  happenings: [],
});

/** A first visit of one page, of which nothing special is known. `begins` is by the clocks of the site. */
export const beginRehearsal = (page: RehearsedPage, begins: string): Rehearsal => ({
  form: REHEARSAL_FORM,
  visitor: {
    device: 'desktop',
    browser: 'chromium',
    system: 'windows',
    source: 'direct',
    referrer: '',
    session: 1,
    signedIn: null,
    basket: null,
    country: null,
    language: 'en',
    begins,
    met: [],
  },
  pages: [page],
  reactions: [],
  expectations: [],
});

/** Visitors one often thinks of, each with what sets them apart from a first visit at a desk. */
export const VISITOR_PRESETS: readonly {
  readonly words: string;
  readonly visitor: Partial<RehearsedVisitor>;
}[] = [
  { words: 'A first reader at a desk', visitor: {} },
  {
    words: 'A first reader from a search, on a phone',
    visitor: { device: 'mobile', system: 'android', source: 'search' },
  },
  {
    words: 'Somebody sent by a mail, on a phone',
    visitor: { device: 'mobile', system: 'ios', browser: 'webkit', source: 'mail' },
  },
  { words: 'Somebody who keeps coming back', visitor: { session: 4 } },
  { words: 'A member who is signed in', visitor: { session: 3, signedIn: true } },
  { words: 'A buyer with a full basket', visitor: { session: 2, basket: { items: 3, total: 62 } } },
];
