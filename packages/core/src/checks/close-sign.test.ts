import type { Block, Message, Style } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { PLAIN_LOOK } from '../look/looks.ts';
import { newBlock, PLAIN_CLOSE } from '../message/plain.ts';
import { plainMessage } from '../testing/arbitrary.ts';
import { closeContrast } from './close-sign.ts';
import { contrastRatio } from './contrast.ts';

type Shown = { readonly close?: object; readonly box?: object; readonly blocks?: readonly object[] };
const WHITE = { ground: { kind: 'colour', colour: '#ffffff' } };
/** The contrast of a black close sign with what can lie behind it. */
function contrast({ close = {}, box = {}, blocks = [] }: Shown, change: Partial<Message> = {}): number {
  const message = {
    ...plainMessage,
    close: { ...PLAIN_CLOSE, colour: '#000000', ...close },
    style: { all: { ...WHITE, ...box } as Style, tablet: {}, mobile: {} },
    steps: [{ id: 'first', role: 'first', blocks }],
    ...change,
  } as Message;
  return closeContrast(message, message.steps[0] as Message['steps'][number], PLAIN_LOOK, 'desktop');
}
const block = (kind: Block['kind'], all: object = {}) => ({
  ...newBlock(kind),
  id: kind,
  style: { all, tablet: {}, mobile: {} },
});

describe('what a close button is seen against', () => {
  it('is its own ground, where it has one', () => {
    expect(contrast({})).toBeCloseTo(21, 9);
    expect(contrast({ close: { ground: '#000000' } })).toBe(1);
    expect(
      contrast({ close: { ground: '#ffffff' }, box: { ground: { kind: 'colour', colour: '#000000' } } }),
    ).toBeCloseTo(21, 9);
  });
  it('is the less favourable end of a gradient, and of a picture under its tint', () => {
    const gradient = { kind: 'gradient', from: '#ffffff', to: '#000000', degrees: 0 };
    expect(contrast({ box: { ground: gradient } })).toBe(1);
    const picture = (strength: number) => ({
      box: { ground: { kind: 'picture', picture: 'drawn:moon', focus: [50, 50], tint: '#ffffff', strength } },
    });
    expect(contrast(picture(100))).toBeCloseTo(21, 9);
    expect(contrast(picture(50))).toBeCloseTo(contrastRatio('#000000', '#808080'), 9);
    expect(contrast(picture(0))).toBe(1);
  });
  it.each<[what: string, blocks: object[], isOnPicture: boolean]>([
    ['a picture at the top', [block('heading'), block('picture', { side: 'top' })], true],
    ['one on its own side', [block('heading'), block('picture', { side: 'end' })], true],
    ['one on the other side', [block('heading'), block('picture', { side: 'start' })], false],
    ['one that is hidden', [block('heading'), block('picture', { side: 'top', hidden: true })], false],
    ['words at the top', [block('heading', { side: 'top' })], false],
  ])('is %s', (_, blocks, isOnPicture) => {
    expect(contrast({ blocks, box: { paddingBlock: 40, paddingInline: 40 } })).toBeCloseTo(
      isOnPicture ? 1 : 21,
      9,
    );
  });
  it.each<[padding: [number, number], size: number, first: Block['kind'], isOnPicture: boolean]>([
    // Its middle is ten pixels and half of its size from the corner.
    [[27, 27], 36, 'picture', true],
    [[27, 27], 36, 'film', true],
    [[27, 27], 36, 'heading', false],
    [[28, 27], 36, 'picture', false],
    [[27, 28], 36, 'picture', false],
    [[28, 28], 38, 'picture', true],
  ])(
    'is what comes first, where the room around it is no wider: %j, of %d px, a %s',
    (padding, size, first, isOnPicture) => {
      const [paddingBlock, paddingInline] = padding;
      const found = contrast({
        close: { size },
        box: { paddingBlock, paddingInline },
        blocks: [block(first)],
      });
      expect(found).toBeCloseTo(isOnPicture ? 1 : 21, 9);
    },
  );
  it('is the page outside of the box, as dark as the message makes it', () => {
    const outside = (strength: number, change: Partial<Message> = {}) =>
      contrast(
        { close: { place: 'outside' }, box: { backdropColour: '#ffffff', backdropStrength: strength } },
        change,
      );
    expect(outside(100)).toBeCloseTo(21, 9);
    expect(outside(50)).toBeCloseTo(contrastRatio('#000000', '#808080'), 9);
    expect(outside(0)).toBe(1);
    // Nothing is drawn behind what stops nobody.
    expect(outside(100, { format: 'flyin', anchor: 'bottom-end' })).toBe(1);
  });
  it('is both on the edge', () => {
    const edge = (ground: string, backdrop: string) =>
      contrast({
        close: { place: 'edge' },
        box: { ground: { kind: 'colour', colour: ground }, backdropColour: backdrop, backdropStrength: 100 },
      });
    expect([edge('#ffffff', '#000000'), edge('#000000', '#ffffff')]).toEqual([1, 1]);
    expect(edge('#ffffff', '#ffffff')).toBeCloseTo(21, 9);
  });
  it('is nothing to a sign that is a picture, once it is chosen', () => {
    const ground = '#000000';
    expect(contrast({ close: { ground, sign: 'picture', picture: 'drawn:moon' } })).toBe(21);
    expect(contrast({ close: { ground, sign: 'picture', picture: null } })).toBe(1);
    expect(contrast({ close: { ground, sign: 'cross', picture: 'drawn:moon' } })).toBe(1);
  });
});
