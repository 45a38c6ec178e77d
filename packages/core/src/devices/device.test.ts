import { expect, it } from 'vitest';
import { deviceOf } from './device.ts';

const breakpoints = { mobile: 768, tablet: 1024 };

it.each<[rule: string, width: number, hasCoarsePointer: boolean, device: string]>([
  ['just under the first breakpoint', 767, true, 'mobile'],
  ['a narrow window with a mouse is mobile too', 500, false, 'mobile'],
  ['at the breakpoint with a finger', 768, true, 'tablet'],
  ['at the breakpoint with a mouse', 768, false, 'desktop'],
  ['just under the second with a finger', 1023, true, 'tablet'],
  ['at the second with a finger', 1024, true, 'desktop'],
  ['wide with a mouse', 1440, false, 'desktop'],
])('%s', (_rule, width, hasCoarsePointer, device) => {
  expect(deviceOf(width, hasCoarsePointer, breakpoints)).toBe(device);
});
