import type { Action } from '@velarium/contract';
import { systemOf } from '@velarium/core/message';

/** The address for the visitor's own system, where the button has one. */
export function addressFor(action: Extract<Action, { kind: 'link' }>, { navigator }: Window): string {
  const system = systemOf({ userAgent: navigator.userAgent, touchPoints: navigator.maxTouchPoints });
  const own = system === 'ios' ? action.ios : system === 'android' ? action.android : undefined;
  return own || action.address;
}
