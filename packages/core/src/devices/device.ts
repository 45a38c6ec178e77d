import type { Device, SiteSettings } from '@velarium/contract';

export const DEVICE_BIT: Readonly<Record<Device, number>> = { desktop: 1, tablet: 2, mobile: 4 };

/**
 * Decides the device from the viewport's width in CSS pixels and the primary pointer. The bounds are excluded:
 * at exactly `mobile` pixels a window is no longer mobile. A wide touch screen beyond `tablet` is a desktop.
 */
export const deviceOf = (
  width: number,
  hasCoarsePointer: boolean,
  { mobile, tablet }: SiteSettings['breakpoints'],
): Device => (width < mobile ? 'mobile' : width < tablet && hasCoarsePointer ? 'tablet' : 'desktop');
