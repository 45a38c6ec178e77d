import { expect, it } from 'vitest';
import { hasRoom } from './arbitration.ts';

const DEVICES = ['desktop', 'tablet', 'mobile'] as const;
/** Cells on one device only. */
const on = (device: (typeof DEVICES)[number], cells: number) =>
  ({ cells: DEVICES.map((one) => (one === device ? cells : 0)) as [number, number, number] }) as const;

it.each(DEVICES)(
  'two messages lie on one another on a %s by their cells there, and by no other',
  (device) => {
    for (const other of DEVICES) {
      expect([other, hasRoom(on(device, 0b0110), [on(other, 0b0011)], device)]).toEqual([
        other,
        other !== device,
      ]);
      expect(hasRoom(on(device, 0b0110), [on(other, 0b1001)], device)).toBe(true);
    }
  },
);
it('there is room beside several only where there is beside each, and always where nothing is open', () => {
  const open = [on('desktop', 0b0001), on('desktop', 0b1000)];
  expect(hasRoom(on('desktop', 0b0110), open, 'desktop')).toBe(true);
  expect(hasRoom(on('desktop', 0b0101), open, 'desktop')).toBe(false);
  expect(hasRoom(on('desktop', 0b1111), [], 'desktop')).toBe(true);
});
