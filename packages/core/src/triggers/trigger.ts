import type { Trigger } from '@velarium/contract';
import { EXIT_CERTAINTIES, type ExitCertainty } from '@velarium/contract/values';
import { isAsAsked } from './event-data.ts';

/** What the page's observers report. Time, visibility and counts are not facts but are known at every moment. */
export type Fact =
  | { readonly kind: 'ready' }
  | { readonly kind: 'loaded' }
  /** The deepest point reached so far: per cent of the document and pixels from its top. */
  | { readonly kind: 'scrolled'; readonly percent: number; readonly pixels: number }
  | { readonly kind: 'reached'; readonly selector: string }
  | { readonly kind: 'articleEnd' }
  | { readonly kind: 'exitMouse'; readonly certainty: ExitCertainty }
  | { readonly kind: 'exitTouch'; readonly by: 'scrollUp' | 'back' }
  | { readonly kind: 'tabReturned' }
  | { readonly kind: 'interacted'; readonly what: 'click' | 'hover' | 'focus'; readonly selector: string }
  | { readonly kind: 'event'; readonly name: string; readonly data: unknown }
  /** The page's script, or an element that names the campaign, asks for it. */
  | { readonly kind: 'asked'; readonly campaign: string };

const rank = (certainty: ExitCertainty) => EXIT_CERTAINTIES.indexOf(certainty);

/** Exit intent is not believed earlier than this, visible milliseconds (common practice). */
export const EXIT_ARMED_MS = 3000;

/** What a fact meets. */
export interface Arming {
  readonly campaign: string;
  /** Visible milliseconds since the moment was armed, and before which it does not open. */
  readonly pageVisibleMs: number;
  readonly notBeforeMs: number;
}

/**
 * Whether this fact makes the trigger happen. A surer sign of leaving satisfies one that asked for less. Leaving is a
 * moment, not a state: before it is believed, and before the moment may open, it is not remembered.
 */
export function isMetBy(
  trigger: Trigger,
  fact: Fact,
  { campaign, pageVisibleMs, notBeforeMs }: Arming,
): boolean {
  if (/^exit/.test(trigger.kind) && pageVisibleMs < Math.max(notBeforeMs, EXIT_ARMED_MS)) return false;
  switch (trigger.kind) {
    case 'load':
      return fact.kind === trigger.when || (fact.kind === 'loaded' && trigger.when === 'ready');
    case 'scroll':
      return (
        fact.kind === 'scrolled' &&
        (trigger.unit === 'percent' ? fact.percent : fact.pixels) >= trigger.amount
      );
    case 'element':
      return fact.kind === 'reached' && fact.selector === trigger.selector;
    case 'articleEnd':
      return fact.kind === 'articleEnd';
    case 'exitMouse':
      return fact.kind === 'exitMouse' && rank(fact.certainty) >= rank(trigger.certainty);
    case 'exitTouch':
      return fact.kind === 'exitTouch' && fact.by === trigger.by;
    case 'tabReturn':
      return fact.kind === 'tabReturned';
    case 'interact':
      return fact.kind === 'interacted' && fact.what === trigger.what && fact.selector === trigger.selector;
    case 'event':
      return fact.kind === 'event' && fact.name === trigger.name && isAsAsked(trigger.condition, fact.data);
    case 'hand':
      return fact.kind === 'asked' && fact.campaign === campaign;
    default:
      return false;
  }
}
