import type { Device, SiteSettings } from '@velarium/contract';

export const DEVICE_BIT: Readonly<Record<Device, number>> = { desktop: 1, tablet: 2, mobile: 4 };

/**
 * Decides the device from the viewport's width in CSS pixels and the primary pointer. The bounds are excluded:
 * at exactly `mobile` pixels a window is no longer mobile. A wide touch screen beyond `tablet` is a desktop.
 */
export function deviceOf(
  window: { readonly width: number; readonly hasCoarsePointer: boolean },
  breakpoints: SiteSettings['breakpoints'],
): Device {
  if (window.width < breakpoints.mobile) return 'mobile';
  return window.width < breakpoints.tablet && window.hasCoarsePointer ? 'tablet' : 'desktop';
}
