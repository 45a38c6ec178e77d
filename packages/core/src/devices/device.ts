import type { Device, SiteSettings } from '@velarium/contract';

/** Where each stands in what is said of all three, lists and bits alike. */
export const DEVICE_AT = { desktop: 0, tablet: 1, mobile: 2 } as const;

/** Whether a mask of devices, a bit each, has this one. */
export const hasDevice = (devices: number, device: Device): boolean =>
  ((devices >> DEVICE_AT[device]) & 1) === 1;

/**
 * Decides the device from the viewport's width in CSS pixels and the primary pointer. The bounds are excluded:
 * at exactly `mobile` pixels a window is no longer mobile. A wide touch screen beyond `tablet` is a desktop.
 */
export const deviceOf = (
  width: number,
  hasCoarsePointer: boolean,
  { mobile, tablet }: SiteSettings['breakpoints'],
): Device => (width < mobile ? 'mobile' : width < tablet && hasCoarsePointer ? 'tablet' : 'desktop');
