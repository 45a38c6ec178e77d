import { FORMATS } from '@velarium/contract/values';
import { expect, it, test } from 'vitest';
import { isInterrupting } from '../message/placement.ts';
import { plainMessage } from '../testing/arbitrary.ts';
import { PLAIN_LOOK } from './looks.ts';
import { boxStyle } from './resolve.ts';
import { tokensToLook } from './tokens.ts';

// The page behind is darkened by what interrupts, and by nothing else.
test.each(FORMATS)('%s', (format) => {
  const { backdropStrength } = boxStyle({ ...plainMessage, format }, PLAIN_LOOK, 'desktop');
  expect(backdropStrength > 0).toBe(isInterrupting(format));
});

it.each([
  ['0px', 0],
  ['60px', 60],
  // Past what a Look takes it is the most it takes.
  ['61px', 60],
])('corners of %s in tokens are %i', (value, box) => {
  expect(tokensToLook({ corners: { box: { $value: value } } }).style.corners.box).toBe(box);
});
