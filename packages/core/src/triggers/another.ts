import type { Trigger } from '@velarium/contract';
import { EXIT_CERTAINTIES, LIMITS } from '@velarium/contract/values';

/** Later by this much, seconds. */
const LATER = 10;
const DEEPER = 25;

/** One like it that differs: later, deeper, of another sign; the same where its kind knows no other. */
function next(trigger: Trigger): Trigger {
  switch (trigger.kind) {
    case 'time':
    case 'sessionTime':
    case 'inactivity':
      return { ...trigger, seconds: Math.min(trigger.seconds + LATER, LIMITS.triggerSeconds) };
    case 'scroll':
      return trigger.unit === 'percent'
        ? { ...trigger, amount: trigger.amount >= 100 ? DEEPER : Math.min(trigger.amount + DEEPER, 100) }
        : { ...trigger, amount: trigger.amount + 500 };
    case 'count':
      return { ...trigger, atLeast: trigger.atLeast + 1 };
    case 'load':
      return { ...trigger, when: trigger.when === 'ready' ? 'loaded' : 'ready' };
    case 'exitTouch':
      return { ...trigger, by: trigger.by === 'back' ? 'scrollUp' : 'back' };
    case 'exitMouse': {
      const at = EXIT_CERTAINTIES.indexOf(trigger.certainty);
      return { ...trigger, certainty: EXIT_CERTAINTIES[(at + 1) % EXIT_CERTAINTIES.length] ?? 'likely' };
    }
    case 'interact': {
      const ways = ['click', 'hover', 'focus'] as const;
      return { ...trigger, what: ways[(ways.indexOf(trigger.what) + 1) % ways.length] ?? 'click' };
    }
    case 'element':
      return {
        ...trigger,
        selector: trigger.selector === 'footer' ? 'main' : `${trigger.selector}:last-of-type`,
      };
    case 'event':
      return { ...trigger, name: `${trigger.name}-2` };
    default:
      return trigger;
  }
}

/** Tries made at most: no kind has more that differ. */
const MOST = 12;

/**
 * What another trigger of a kind begins as: different from those there are, since two that are alike are one. Nothing
 * where its kind knows only one.
 */
export function anotherTrigger(beginning: Trigger, triggers: readonly Trigger[]): Trigger | undefined {
  const known = new Set(triggers.map((one) => JSON.stringify(one)));
  let one = beginning;
  for (let n = 0; n < MOST; n++) {
    if (!known.has(JSON.stringify(one))) return one;
    one = next(one);
  }
  return undefined;
}
