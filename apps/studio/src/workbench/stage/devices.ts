import type { Device } from '@velarium/contract';

/** The windows a message is designed in, CSS pixels. */
export const STAGE_SIZES: Readonly<Record<Device, { readonly width: number; readonly height: number }>> = {
  desktop: { width: 1280, height: 800 },
  tablet: { width: 820, height: 1180 },
  mobile: { width: 390, height: 844 },
};
