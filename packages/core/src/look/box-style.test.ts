import { FORMATS } from '@velarium/contract/values';
import { expect, it, test } from 'vitest';
import { isInterrupting } from '../message/placement.ts';
import { plainMessage } from '../testing/arbitrary.ts';
import { PLAIN_LOOK } from './looks.ts';
import { boxStyle, boxWidth } from './resolve.ts';
import { tokensToLook } from './tokens.ts';

// The page behind is darkened by what interrupts, and by nothing else.
test.each(FORMATS)('%s', (format) => {
  const { backdropStrength } = boxStyle({ ...plainMessage, format }, PLAIN_LOOK, 'desktop');
  expect(backdropStrength > 0).toBe(isInterrupting(format));
});

it('a modal is a box of its own width, as high as its content', () => {
  const { style, format, anchor } = { ...plainMessage, format: 'modal' as const, anchor: 'center' as const };
  const bare = { format, anchor, style: { all: {}, tablet: style.tablet, mobile: style.mobile } };
  expect(boxStyle(bare, PLAIN_LOOK, 'desktop')).toEqual({
    width: { unit: 'px', value: 460 },
    height: { unit: 'content' },
    leastWidth: 0,
    mostWidth: 100_000,
    leastHeight: 0,
    mostHeight: 100_000,
    offsetBlock: 16,
    offsetInline: 16,
    space: 14,
    paddingBlock: 28,
    paddingInline: 28,
    align: 'start',
    colour: 'ink',
    ground: { kind: 'colour', colour: 'surface' },
    borderWidth: 0,
    borderColour: 'line',
    corners: 14,
    shadow: 'lifted',
    textSize: 16,
    backdropColour: 'backdrop',
    backdropStrength: 62,
    backdropBlur: 0,
  });
  const bar = boxStyle({ ...bare, format: 'bar', anchor: 'top' }, PLAIN_LOOK, 'mobile');
  expect(bar).toMatchObject({
    offsetBlock: 0,
    offsetInline: 0,
    paddingBlock: 12,
    paddingInline: 20,
    corners: 0,
  });
});
it('is as wide as it says: in pixels, in parts of the window, or half of it', () => {
  const box = boxStyle(plainMessage, PLAIN_LOOK, 'desktop');
  const wide = (width: object) => boxWidth({ ...box, width, offsetInline: 10 } as never, 1000);
  expect(wide({ unit: 'px', value: 300 })).toBe(300);
  expect(wide({ unit: 'percent', value: 40 })).toBe(400);
  expect(wide({ unit: 'content' })).toBe(500);
  expect(wide({ unit: 'percent', value: 100 })).toBe(980);
});

it.each([
  ['0px', 0],
  ['60px', 60],
  // Past what a Look takes it is the most it takes.
  ['61px', 60],
])('corners of %s in tokens are %i', (value, box) => {
  expect(tokensToLook({ corners: { box: { $value: value } } }).style.corners.box).toBe(box);
});
