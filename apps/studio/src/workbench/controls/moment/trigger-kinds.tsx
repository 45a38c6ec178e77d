import type { Trigger, TriggerKind } from '@velarium/contract';
import {
  AppWindow,
  ArrowDownToLine,
  BookCheck,
  Clock,
  Crosshair,
  Hand,
  Hash,
  Hourglass,
  type LucideIcon,
  MousePointerClick,
  Move,
  Radio,
  Smartphone,
  Timer,
} from 'lucide-react';

interface KindOfTrigger {
  readonly label: string;
  /** What it means, for who has not met it yet. */
  readonly meaning: string;
  readonly sign: LucideIcon;
  /** What it begins as when it is added. */
  readonly beginning: Trigger;
}

/** Every kind of trigger in the order people ask for them. */
export const TRIGGER_KINDS: { readonly [Kind in TriggerKind]: KindOfTrigger } = {
  time: {
    label: 'Time on the page',
    meaning:
      'Only time in which the page is in sight counts. 5 s is early for a reader; 10 to 15 s is usual.',
    sign: Clock,
    beginning: { kind: 'time', seconds: 10 },
  },
  scroll: {
    label: 'Scroll depth',
    meaning: 'How much of the page has been in sight, counted once the visitor scrolls.',
    sign: ArrowDownToLine,
    beginning: { kind: 'scroll', unit: 'percent', amount: 50 },
  },
  exitMouse: {
    label: 'Leaving by mouse',
    meaning: 'The pointer makes for the top of the window, or has left through it. Fingers never do.',
    sign: Move,
    beginning: { kind: 'exitMouse', certainty: 'likely' },
  },
  exitTouch: {
    label: 'Leaving by touch',
    meaning: 'A quick scroll up after a screen down, or the back gesture, which is held once only.',
    sign: Smartphone,
    beginning: { kind: 'exitTouch', by: 'scrollUp' },
  },
  inactivity: {
    label: 'Inactivity',
    meaning: 'No pointer, key, scroll or touch for this long while the page is in sight.',
    sign: Hourglass,
    beginning: { kind: 'inactivity', seconds: 20 },
  },
  articleEnd: {
    label: 'End of the article',
    meaning: 'The end of the page’s article has come into the window.',
    sign: BookCheck,
    beginning: { kind: 'articleEnd' },
  },
  element: {
    label: 'An element reached',
    meaning: 'Half of it is in sight, or it fills half of the window.',
    sign: Crosshair,
    beginning: { kind: 'element', selector: 'footer' },
  },
  interact: {
    label: 'An element used',
    meaning: 'It is clicked, hovered over with a mouse, or focused.',
    sign: MousePointerClick,
    beginning: { kind: 'interact', what: 'click', selector: '.open' },
  },
  count: {
    label: 'A count',
    meaning: 'Page views of the session, views of this page, or sessions so far.',
    sign: Hash,
    beginning: { kind: 'count', of: 'viewsInSession', atLeast: 3 },
  },
  sessionTime: {
    label: 'Time in the session',
    meaning: 'The time of all the session’s pages together, in sight.',
    sign: Timer,
    beginning: { kind: 'sessionTime', seconds: 60 },
  },
  tabReturn: {
    label: 'Coming back to the tab',
    meaning: 'The visitor was in another tab or window and comes back.',
    sign: AppWindow,
    beginning: { kind: 'tabReturn' },
  },
  load: {
    label: 'The page loads',
    meaning: 'When it can be read, or when everything in it is there.',
    sign: AppWindow,
    beginning: { kind: 'load', when: 'loaded' },
  },
  event: {
    label: 'An event of the page',
    meaning: 'The page’s own script tells of something: a basket, a sign-in, anything it names.',
    sign: Radio,
    beginning: { kind: 'event', name: 'basket', condition: null },
  },
  hand: {
    label: 'By hand',
    meaning: 'The page’s script asks for it, or an element with data-velarium-open names it.',
    sign: Hand,
    beginning: { kind: 'hand' },
  },
};
