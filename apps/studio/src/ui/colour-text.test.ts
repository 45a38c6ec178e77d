// @vitest-environment jsdom
import { expect, it } from 'vitest';
import { readColour } from './colour-text.tsx';

// Named colours, hexadecimal notation and functions: CSS Color Module Level 4, 6.1, 5.2 and 5.1.
it.each([
  ['8b0000', '#8b0000'],
  ['#8B0000', '#8b0000'],
  ['#800', '#880000'],
  ['800', '#880000'],
  ['rgb(139 0 0)', '#8b0000'],
  ['rgb(139, 0, 0)', '#8b0000'],
  ['hsl(120 100% 25%)', '#008000'],
  ['darkred', '#8b0000'],
  [' RebeccaPurple ', '#663399'],
  ['', undefined],
  ['dark', undefined],
  ['#12345', undefined],
])('%j is %s', (text, hex) => expect(readColour(text)).toBe(hex));
