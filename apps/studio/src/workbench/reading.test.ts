// @vitest-environment jsdom
import { describe, expect, it } from 'vitest';
import { keysOf } from '../app/commands.ts';
import { readSeconds } from './controls/moment/seconds-field.tsx';
import { readRichText } from './stage/editable.ts';
import { scaleFor } from './visit-line/scale.ts';

describe('what a browser’s editing leaves is read back as a tree', () => {
  it.each<[what: string, html: string, expected: unknown]>([
    ['paragraphs', '<p>a</p><p>b</p>', [[{ text: 'a' }], [{ text: 'b' }]]],
    [
      'bold and italic, nested',
      '<p>a<b>b<i>c</i></b></p>',
      [[{ text: 'a' }, { text: 'b', bold: true }, { text: 'c', bold: true, italic: true }]],
    ],
    [
      'strong and em',
      '<p><strong>a</strong><em>b</em></p>',
      [
        [
          { text: 'a', bold: true },
          { text: 'b', italic: true },
        ],
      ],
    ],
    ['bare text and a div, as after Enter', 'a<div>b</div>', [[{ text: 'a' }], [{ text: 'b' }]]],
    ['a break between lines', '<p>a<br>b</p>', [[{ text: 'a' }], [{ text: 'b' }]]],
    ['the break that holds an empty paragraph open', '<p>a</p><p><br></p>', [[{ text: 'a' }], []]],
    ['spaces that do not break', '<p>a&nbsp;b</p>', [[{ text: 'a b' }]]],
    [
      'foreign elements: only their words',
      '<p><span style="color:red">a</span><a href="javascript:x">b</a></p>',
      [[{ text: 'ab' }]],
    ],
    ['nothing', '', [[]]],
  ])('%s', (_what, html, expected) => {
    const element = document.createElement('div');
    element.innerHTML = html;
    expect(readRichText(element)).toEqual(expected);
  });
});

describe('a delay as it is typed', () => {
  it.each([
    ['', 0],
    ['  ', 0],
    ['0', 0],
    ['6', 6],
    ['1.5', 1.5],
    ['1,5', 1.5],
    ['2.25', 2.3],
    ['3600', 3600],
    ['3601', undefined],
    ['-1', undefined],
    ['soon', undefined],
  ])('%j is %s', (text, seconds) => {
    expect(readSeconds(text)).toBe(seconds);
  });
});

it.each([
  [0, 60],
  [51, 60],
  [52, 180],
  [600, 3600],
  [3600, 3600],
])('a mark at %i s is drawn on a line of %i s', (seconds, scale) => {
  expect(scaleFor(seconds)).toBe(scale);
});

it.each<[init: KeyboardEventInit, keys: string]>([
  [{ key: 'n' }, 'n'],
  [{ key: 'N', shiftKey: true }, 'n'],
  [{ key: 'z', ctrlKey: true }, 'Mod+z'],
  [{ key: 'Z', metaKey: true, shiftKey: true }, 'Mod+Shift+z'],
  [{ key: 'Enter', ctrlKey: true }, 'Mod+Enter'],
  [{ key: '/', shiftKey: true }, '/'],
  // On keyboards of other scripts by where the key is; what a Latin one writes is what it says, wherever it is.
  [{ key: 'я', code: 'KeyZ', ctrlKey: true }, 'Mod+z'],
  [{ key: 'И', code: 'KeyB', shiftKey: true }, 'b'],
  [{ key: 'z', code: 'KeyY', ctrlKey: true }, 'Mod+z'],
  // The browser's menu, its address field, a sign of the third level.
  [{ key: 'f', altKey: true }, 'Alt+f'],
  [{ key: '/', ctrlKey: true, altKey: true }, 'Mod+Alt+/'],
])('%o is %s', (init, keys) => {
  expect(keysOf(new KeyboardEvent('keydown', init))).toBe(keys);
});
