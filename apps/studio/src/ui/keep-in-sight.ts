import type { FocusEvent } from 'react';

/**
 * Brings what keys have led to into sight, within what scrolls and keeps the focus: going round from the last to the first,
 * the focus moves and nothing else (WCAG 2.2, 2.4.11). What a pointer is on is in sight, and does not move from under it.
 */
export function keepInSight({ currentTarget, target }: FocusEvent<HTMLElement>): void {
  if (!currentTarget.contains(target)) return;
  const around = currentTarget.getBoundingClientRect();
  const { top, bottom } = target.getBoundingClientRect();
  if (bottom <= around.top || top >= around.bottom) target.scrollIntoView({ block: 'nearest' });
}
