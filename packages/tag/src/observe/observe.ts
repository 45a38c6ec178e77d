import type { Trigger } from '@velarium/contract';
import type { Fact } from '@velarium/core/decide';
import { onActivity } from '../page/on-activity.ts';
import { onExitByMouse } from './exit-mouse.ts';
import type { onExitByTouch as OnExitByTouch } from './exit-touch.ts';
import { all, closest, find, on } from './on.ts';
import { articleEnd, onReached } from './reach.ts';

/** The events that make an element clicked, hovered over by a mouse, or focused. */
const INTERACTION = { click: 'click', hover: 'pointerover', focus: 'focusin' } as const;

/** How often a sign of life is told at most. */
const STILLNESS_EVERY_MS = 250;

/** Who hears of what happens on the page. */
interface Told {
  readonly tell: (fact: Fact) => void;
  /** A sign of life, for those who wait for stillness. */
  readonly active: () => void;
}

/**
 * Watches the page for what these triggers ask for, and for nothing else: a page with only time triggers gets no
 * listener at all. Returns the undo.
 */
export function observe(
  triggers: readonly Trigger[],
  to: Told,
  onExitByTouch: typeof OnExitByTouch | undefined,
): () => void {
  const undo: (() => void)[] = [];
  const kinds = new Set<string>();
  for (const trigger of triggers) {
    // Two campaigns that ask for the same share one observer.
    const key = 'selector' in trigger ? JSON.stringify(trigger) : 'by' in trigger ? trigger.by : trigger.kind;
    if (kinds.has(key)) continue;
    kinds.add(key);
    undo.push(watch(trigger, to, onExitByTouch));
  }
  return all(undo);
}

const nothing = () => {};

function watch(
  trigger: Trigger,
  { tell: report, active }: Told,
  onExitByTouch: typeof OnExitByTouch | undefined,
): () => void {
  switch (trigger.kind) {
    case 'load':
      return onLoad(report);
    case 'element': {
      const { selector } = trigger;
      return onReached(
        () => find(selector),
        () => report({ kind: 'reached', selector }),
      );
    }
    case 'articleEnd':
      return onReached(articleEnd, () => report({ kind: 'articleEnd' }));
    case 'exitMouse':
      return onExitByMouse((certainty) => report({ kind: 'exitMouse', certainty }));
    case 'exitTouch': {
      const { by } = trigger;
      // It came with the part that such a trigger asks for.
      return onExitByTouch?.(by, () => report({ kind: 'exitTouch', by })) ?? nothing;
    }
    case 'inactivity':
      return onActivity(active, STILLNESS_EVERY_MS);
    case 'interact': {
      const { what, selector } = trigger;
      return on(document, [INTERACTION[what]], (event) => {
        if (what === 'hover' && (event as PointerEvent).pointerType !== 'mouse') return;
        if (closest(event, selector)) report({ kind: 'interacted', what, selector });
      });
    }
    default:
      return nothing;
  }
}

function onLoad(report: (fact: Fact) => void): () => void {
  const tell = () => {
    // Told in a task of its own: whoever began to watch has finished beginning.
    if (document.readyState !== 'loading') queueMicrotask(() => report({ kind: 'ready' }));
    if (document.readyState === 'complete') queueMicrotask(() => report({ kind: 'loaded' }));
  };
  tell();
  return on(document, ['readystatechange'], tell);
}
