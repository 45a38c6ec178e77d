import type { Happening, Reaction } from '@velarium/contract';
import { counted, quantity, quoted } from '../sentence/words.ts';
import type { Verdict } from '../verdict/verdict.ts';

/** The same a newcomer would call it, for the list of what can happen. */
export const HAPPENING_NAMES: Readonly<Record<Happening['what'], string>> = {
  leavesByMouse: 'Leaves by mouse',
  leavesByTouch: 'Leaves by touch',
  away: 'Looks at another tab',
  still: 'Touches nothing',
  interacts: 'Clicks, hovers or focuses',
  reaches: 'Reaches an element',
  articleEnd: 'Reaches the end of the article',
  event: 'The page tells of an event',
  basket: 'The basket changes',
  signIn: 'Signs in or out',
  asks: 'The page asks for a campaign',
};

/** One thing that happens, as short as a flag: `leaves (likely)`, `basket 3, worth 62`. */
export function happeningWords(happening: Happening, nameOf: (campaign: string) => string): string {
  switch (happening.what) {
    case 'leavesByMouse':
      return `leaves (${happening.certainty})`;
    case 'leavesByTouch':
      return happening.by === 'back' ? 'goes back' : 'scrolls up quickly';
    case 'away':
      return `another tab for ${quantity(happening.seconds, 'second')}`;
    case 'still':
      return `still for ${quantity(happening.seconds, 'second')}`;
    case 'interacts':
      return `${happening.by} ${happening.selector}`;
    case 'reaches':
      return `reaches ${happening.selector}`;
    case 'articleEnd':
      return 'end of the article';
    case 'event':
      return `event ${quoted(happening.name)}`;
    case 'basket':
      return `basket: ${counted(happening.items, 'thing')}, worth ${happening.total}`;
    case 'signIn':
      return happening.is ? 'signs in' : 'signs out';
    case 'asks':
      return `asks for ${quoted(nameOf(happening.campaign))}`;
  }
}

/** Something new on a page, as it begins. */
export function beginHappening(what: Happening['what'], at: number, campaign: string): Happening {
  const begun: { readonly [Kind in Happening['what']]: Extract<Happening, { what: Kind }> } = {
    leavesByMouse: { at, what: 'leavesByMouse', certainty: 'likely' },
    leavesByTouch: { at, what: 'leavesByTouch', by: 'scrollUp' },
    away: { at, what: 'away', seconds: 10 },
    still: { at, what: 'still', seconds: 15 },
    interacts: { at, what: 'interacts', by: 'click', selector: '.cta' },
    reaches: { at, what: 'reaches', selector: 'footer' },
    articleEnd: { at, what: 'articleEnd' },
    event: { at, what: 'event', name: 'reserved', data: {} },
    basket: { at, what: 'basket', items: 3, total: 60 },
    signIn: { at, what: 'signIn', is: true },
    asks: { at, what: 'asks', campaign },
  };
  return begun[what];
}

export const REACTION_WORDS: Readonly<Record<Reaction['does'], string>> = {
  close: 'closes it',
  refuse: 'says no',
  convert: 'converts',
};

/** What a stretch of a lane is, told by its shape: it is open, waits, is in somebody's way, or is shut out. */
export type LaneShape = 'open' | 'waits' | 'queues' | 'held' | 'shut';
export const laneShape = ({ code }: Verdict): LaneShape =>
  code === 'shown' || code === 'ready'
    ? 'open'
    : code === 'waiting:trigger'
      ? 'waits'
      : code === 'waiting:floor' || code === 'blocked:yielded' || code.startsWith('blocked:limit')
        ? 'queues'
        : code === 'held:holdout'
          ? 'held'
          : 'shut';
export const SHAPE_WORDS: Readonly<Record<LaneShape, string>> = {
  open: 'open',
  waits: 'waits for its moment',
  queues: 'another has its place',
  held: 'held back from this visitor',
  shut: 'not for this visit',
};
