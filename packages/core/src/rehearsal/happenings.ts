import type { Happening, ManifestCampaign, RehearsedPage, Trigger } from '@velarium/contract';
import type { Fact } from '../triggers/trigger.ts';

/** How long pages are taken to be where a rule speaks of pixels, which a rehearsal does not know. */
export const ASSUMED_PAGE_PIXELS = 3000;

/** Something that reaches the page view at an instant of it, seconds after it began. */
export interface Cue {
  readonly at: number;
  /** What the observers of the page would report, if they report it. */
  readonly fact?: Fact;
  /** Something was touched: stillness begins anew. */
  readonly isAlive?: boolean;
  /** The page comes into sight or goes out of it. */
  readonly isVisible?: boolean;
  readonly basket?: { readonly items: number; readonly total: number };
  readonly signedIn?: boolean;
}

/** What the tag watches the page for only where a trigger of this kind asks for it; everything else is told in any case. */
const WATCHED_FOR: Readonly<Partial<Record<Fact['kind'], Trigger['kind']>>> = {
  ready: 'load',
  loaded: 'load',
  reached: 'element',
  articleEnd: 'articleEnd',
  exitMouse: 'exitMouse',
  exitTouch: 'exitTouch',
  interacted: 'interact',
};

/** What the moments of some campaigns ask of a page view, so that nothing else needs to be told. */
export interface Asked {
  readonly kinds: ReadonlySet<Trigger['kind']>;
  /** Depths, per cent of a page. */
  readonly depths: readonly number[];
  /** Seconds of the shortest stillness; `Infinity` where nobody asks for any. */
  readonly stillness: number;
}

export function askedOf(campaigns: readonly ManifestCampaign[]): Asked {
  const triggers = campaigns.flatMap(({ moment }) => moment.triggers);
  const depths = triggers.flatMap((trigger) =>
    trigger.kind === 'scroll'
      ? [trigger.unit === 'percent' ? trigger.amount : (trigger.amount / ASSUMED_PAGE_PIXELS) * 100]
      : [],
  );
  return {
    kinds: new Set(triggers.map(({ kind }) => kind)),
    depths: [...new Set(depths)],
    stillness: Math.min(
      ...triggers.flatMap((trigger) => (trigger.kind === 'inactivity' ? [trigger.seconds] : [])),
    ),
  };
}

const depthCues = ({ seconds, depth }: RehearsedPage, { depths }: Asked): Cue[] =>
  depths
    .filter((percent) => percent <= depth && depth > 0)
    .map((percent) => ({
      at: (percent / depth) * seconds,
      fact: { kind: 'scrolled', percent, pixels: (percent / 100) * ASSUMED_PAGE_PIXELS },
    }));

function cuesOf(happening: Happening): Cue[] {
  const { at } = happening;
  switch (happening.what) {
    case 'leavesByMouse':
      return [{ at, fact: { kind: 'exitMouse', certainty: happening.certainty } }];
    case 'leavesByTouch':
      return [{ at, fact: { kind: 'exitTouch', by: happening.by } }];
    case 'away':
      return [
        { at, isVisible: false },
        { at: at + happening.seconds, isVisible: true, fact: { kind: 'tabReturned' } },
      ];
    case 'still':
      // Only what is not touched: nothing is told, and nothing begins anew.
      return [];
    case 'interacts':
      return [{ at, fact: { kind: 'interacted', what: happening.by, selector: happening.selector } }];
    case 'reaches':
      return [{ at, fact: { kind: 'reached', selector: happening.selector } }];
    case 'articleEnd':
      return [{ at, fact: { kind: 'articleEnd' } }];
    case 'event':
      return [{ at, fact: { kind: 'event', name: happening.name, data: happening.data } }];
    case 'basket': {
      const { items, total } = happening;
      // As a page tells of it: the basket first, and then that it has changed.
      return [
        { at, basket: { items, total }, fact: { kind: 'event', name: 'basket', data: { items, total } } },
      ];
    }
    case 'signIn':
      return [{ at, signedIn: happening.is }];
    case 'asks':
      return [{ at, fact: { kind: 'asked', campaign: happening.campaign } }];
  }
}

/** Whether the visitor touches anything at this second: always, but where they are still or away. */
const isActive = ({ happenings }: RehearsedPage, at: number): boolean =>
  !happenings.some(
    (one) => (one.what === 'still' || one.what === 'away') && one.at < at && at < one.at + one.seconds,
  );

/** Signs of life, as often as it takes for nobody to think the visitor still; none where nobody asks. */
function signsOfLife(page: RehearsedPage, { stillness }: Asked): Cue[] {
  if (!Number.isFinite(stillness)) return [];
  const every = stillness * 0.9;
  return [
    ...Array.from({ length: Math.floor(page.seconds / every) + 1 }, (_, n) => n * every),
    // The last before a pause, and the first after it.
    ...page.happenings.flatMap((one) =>
      one.what === 'still' || one.what === 'away' ? [one.at, one.at + one.seconds] : [],
    ),
  ]
    .filter((at) => isActive(page, at))
    .map((at) => ({ at, isAlive: true }));
}

/** Whoever began to watch has finished beginning: a task later than the beginning, and yet at once. */
const BEGUN: readonly Cue[] = [
  { at: 0, fact: { kind: 'ready' } },
  { at: 0, fact: { kind: 'loaded' } },
];

/** Everything that reaches a page view while it lasts, in its order. */
export function pageCues(page: RehearsedPage, asked: Asked): Cue[] {
  const isTold = ({ at, fact }: Cue): boolean => {
    const watchedFor = fact && WATCHED_FOR[fact.kind];
    return at <= page.seconds && (!watchedFor || asked.kinds.has(watchedFor));
  };
  return [
    ...BEGUN,
    ...signsOfLife(page, asked),
    ...depthCues(page, asked),
    ...page.happenings.flatMap(cuesOf),
  ]
    .filter(isTold)
    .sort((a, b) => a.at - b.at);
}
