import { describe, expect, it } from 'vitest';
import { PLAIN_LOOK } from '../look/looks.ts';
import { boxStyle } from '../look/resolve.ts';
import { newBlock } from '../message/plain.ts';
import { plainMessage } from '../testing/arbitrary.ts';
import { coverage, WINDOW_OF } from './measure.ts';

const share = (message: Partial<typeof plainMessage>, device: 'desktop' | 'mobile' = 'desktop') => {
  const whole = { ...plainMessage, ...message };
  const [step] = whole.steps;
  if (!step) throw new Error('expected a step');
  return coverage(whole, step, PLAIN_LOOK, device);
};
const style = (all: object) => ({ all, tablet: {}, mobile: {} });
const step = (...blocks: object[]) => [{ id: 'first', role: 'first', blocks }] as never;
const block = (kind: Parameters<typeof newBlock>[0], more: object = {}) => ({
  ...newBlock(kind),
  id: 'one',
  ...more,
});

describe('about how much of a window a message covers', () => {
  it('is the whole of it where it is as high and wide as that', () => {
    expect(share({ format: 'fullscreen' })).toBe(1);
    const whole = { width: { unit: 'percent', value: 100 }, height: { unit: 'percent', value: 100 } };
    // A box keeps sixteen pixels free on either side.
    expect(share({ style: style(whole) as never })).toBeCloseTo(1 - 32 / 1280, 5);
  });
  it('is that of its sizes where it has them, and never more than its limits', () => {
    const sized = { width: { unit: 'px', value: 640 }, height: { unit: 'percent', value: 50 } };
    // The desktop's window is 1280 wide: half of it, half as high.
    expect(share({ style: style(sized) as never })).toBeCloseTo(0.25, 5);
    expect(share({ style: style({ ...sized, mostHeight: 400 }) as never })).toBeCloseTo(
      (640 * 400) / (1280 * 800),
      5,
    );
    expect(share({ style: style({ ...sized, leastHeight: 600 }) as never })).toBeCloseTo(
      (640 * 600) / (1280 * 800),
      5,
    );
    expect(share({ style: style({ ...sized, height: { unit: 'px', value: 5000 } }) as never })).toBeCloseTo(
      0.5,
      5,
    );
  });
  it('is of windows that stand for their kind', () => {
    expect(WINDOW_OF).toEqual({
      desktop: { width: 1280, height: 800 },
      tablet: { width: 820, height: 1180 },
      mobile: { width: 390, height: 844 },
    });
  });
  it('is as high as the lines of its words, by letters half as wide as they are high', () => {
    const box = { width: { unit: 'px', value: 640 }, paddingInline: 0, paddingBlock: 0, leastHeight: 0 };
    const height = (...blocks: object[]) =>
      (share({ style: style(box) as never, steps: step(...blocks) }) * 1280 * 800) / 640;
    const sized = (textSize: number, more: object = {}) => ({
      style: { all: { textSize, ...more }, tablet: {}, mobile: {} },
    });
    const heading = (letters: number, more: object = {}) =>
      block('heading', { text: 'x'.repeat(letters), ...sized(20, more) });
    const text = (letters: number, more: object = {}) =>
      block('text', { content: [[{ text: 'x'.repeat(letters) }]], ...more });
    // Sixty-four letters of 10 px fill a line of 640; fourteen pixels are between blocks.
    expect(height(heading(64))).toBeCloseTo(20 * 1.2 + 14, 6);
    expect(height(heading(65))).toBeCloseTo(2 * 20 * 1.2 + 14, 6);
    expect(height(heading(0))).toBeCloseTo(20 * 1.2 + 14, 6);
    expect(height(heading(64, { paddingBlock: 8 }))).toBeCloseTo(20 * 1.2 + 16 + 14, 6);
    expect(height(heading(64, { hidden: true }))).toBeCloseTo(14, 6);
    expect(height(heading(200, { height: { unit: 'px', value: 30 } }))).toBeCloseTo(30 + 14, 6);
    expect(height(text(64, sized(20)))).toBeCloseTo(20 * 1.5 + 14, 6);
    const { textSize } = PLAIN_LOOK;
    expect(height(text(1))).toBeCloseTo(textSize * 1.5 + 14, 6);
    expect(height(text(1, { size: 'small' }))).toBeCloseTo(textSize * 0.8125 * 1.5 + 14, 6);
    expect(height(block('heading', { text: 'x' }))).toBeCloseTo(textSize * 1.5 * 1.2 + 14, 6);
    expect(height(heading(64), text(64, sized(20)))).toBeCloseTo(24 + 14 + 30 + 14, 6);
    // Columns share the width: a quarter of it holds sixteen letters, and the highest counts.
    const columns = block('columns', {
      columns: [
        { id: 'a', share: 1, blocks: [heading(17)] },
        { id: 'b', share: 3, blocks: [heading(48)] },
      ],
    });
    expect(height(columns)).toBeCloseTo(2 * 24 + 14 + 14, 6);
    const padded = { ...box, paddingInline: 100, paddingBlock: 30 };
    expect(
      (share({ style: style(padded) as never, steps: step(heading(45)) }) * 1280 * 800) / 640,
    ).toBeCloseTo(2 * 24 + 14 + 60, 6);
  });
  it('grows by what each block is high', () => {
    const { paddingInline } = boxStyle(plainMessage, PLAIN_LOOK, 'desktop');
    const inner = 460 - 2 * paddingInline;
    const height = (...blocks: object[]) => (share({ steps: step(...blocks) }) * 1280 * 800) / 460;
    const none = height();
    const of = (one: object) => height(one) - none - 14;
    expect(of(block('space', { height: 120 }))).toBeCloseTo(120, 3);
    expect(of(block('divider'))).toBeCloseTo(1, 3);
    expect(of(block('film', { ratio: 200 }))).toBeCloseTo(inner / 2, 3);
    expect(of(block('picture', { ratio: 100 }))).toBeCloseTo(inner, 3);
    expect(of(block('picture', { ratio: null }))).toBeCloseTo(inner / 1.6, 3);
    expect(of(block('frame', { height: 300 }))).toBeCloseTo(300, 3);
    const ways = ['a', 'b', 'c'].map((id) => ({ id, way: 'mail', label: id, address: '' }));
    expect(of(block('share', { ways, columns: 2 }))).toBeCloseTo(104, 3);
    expect(of(block('button'))).toBeCloseTo(48, 3);
    // Room above a text and below it.
    expect(of(block('space', { height: 120, style: style({ hidden: true }) }))).toBeCloseTo(0, 3);
    const roomy = { text: 'One line', style: style({ paddingBlock: 20 }) };
    expect(of(block('heading', roomy)) - of(block('heading', { text: 'One line' }))).toBeCloseTo(40, 3);
    const fields = [{ kind: 'email' }, { kind: 'hidden' }];
    expect(of(block('form', { fields, consentText: '' }))).toBeCloseTo(78 + 56, 3);
    expect(of(block('form', { fields, consentText: 'I agree' }))).toBeCloseTo(78 + 56 + 52, 3);
  });
});

describe('what a format looks like before anything is said', () => {
  const box = (format: string, anchor: string, device: 'desktop' | 'mobile' = 'desktop') =>
    boxStyle({ ...plainMessage, format: format as never, anchor: anchor as never }, PLAIN_LOOK, device);
  it.each([
    [
      'modal',
      'center',
      { width: { unit: 'px', value: 460 }, paddingBlock: 28, backdropStrength: 62, offsetBlock: 16 },
    ],
    ['popup', 'center', { width: { unit: 'px', value: 340 }, paddingBlock: 22, backdropStrength: 0 }],
    ['flyin', 'bottom-end', { width: { unit: 'px', value: 340 }, corners: PLAIN_LOOK.corners.box }],
    [
      'slidein',
      'end',
      { width: { unit: 'px', value: 380 }, height: { unit: 'percent', value: 100 }, corners: 0 },
    ],
    [
      'slidein',
      'top',
      { width: { unit: 'percent', value: 100 }, height: { unit: 'content' }, offsetInline: 0 },
    ],
    ['bar', 'top', { paddingBlock: 12, paddingInline: 20, width: { unit: 'percent', value: 100 } }],
    ['fullscreen', 'center', { align: 'center', shadow: 'none', backdropStrength: 62 }],
  ] as const)('%s at %s', (format, anchor, expected) => {
    expect(box(format, anchor)).toMatchObject(expected);
  });
  it('on a phone has less room inside', () => {
    expect(box('modal', 'center', 'mobile').paddingInline).toBe(22);
  });
});
