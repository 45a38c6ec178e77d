import type { Block, Message } from '@velarium/contract';
import { messageSchema } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { newBlock } from '../message/plain.ts';
import { allBlocks } from '../message/walk.ts';
import { siteWords, startOfWishes } from '../testing/site-words.ts';
import { readWishes } from './read-wishes.ts';

const heading = { ...newBlock('heading'), id: 'heading', text: 'Clear skies' } as Block;
const button = { ...newBlock('button'), id: 'button', label: 'Book' } as Block;
const text = { ...newBlock('text'), id: 'text' } as Block;
const message: Message = {
  ...startOfWishes.message,
  steps: [{ id: 'first', role: 'first', blocks: [heading, text, button] }],
};
const start = { ...startOfWishes, message };
const wish = (typed: string, chosen: string | null = null, of = message) => {
  const site = siteWords();
  const { apply, rest, designs } = readWishes(typed, {
    ...site,
    design: { ...site.design, message: of, chosen },
  });
  return { message: apply({ ...start, message: of }).message, rest, designs };
};
const blockOf = (changed: Message, kind: Block['kind']) =>
  allBlocks(changed).find((one) => one.kind === kind);

describe('wishes about the design', () => {
  it.each<[string, (changed: Message) => unknown, unknown]>([
    ['background dark green', ({ style }) => style.all.ground, { kind: 'colour', colour: '#006400' }],
    ['make the background #123456', ({ style }) => style.all.ground, { kind: 'colour', colour: '#123456' }],
    ['white background on phones', ({ style }) => style.mobile.ground, { kind: 'colour', colour: '#ffffff' }],
    ['background accent', ({ style }) => style.all.ground, { kind: 'colour', colour: 'accent' }],
    ['heading larger on phones', (one) => blockOf(one, 'heading')?.style.mobile.textSize, 29],
    ['heading much larger', (one) => blockOf(one, 'heading')?.style.all.textSize, 35],
    ['text smaller', (one) => blockOf(one, 'text')?.style.all.textSize, 13],
    ['heading 40 px', (one) => blockOf(one, 'heading')?.style.all.textSize, 40],
    ['make the heading white', (one) => blockOf(one, 'heading')?.style.all.colour, '#ffffff'],
    ['button red', (one) => blockOf(one, 'button')?.style.all.ground, { kind: 'colour', colour: '#ff0000' }],
    ['button text white', (one) => blockOf(one, 'button')?.style.all.colour, '#ffffff'],
    ['heading bold', (one) => blockOf(one, 'heading')?.style.all.weight, 'strong'],
    ['heading centred', (one) => blockOf(one, 'heading')?.style.all.align, 'center'],
    ['centre everything', ({ style }) => style.all.align, 'center'],
    ['hide the text on phones', (one) => blockOf(one, 'text')?.style.mobile.hidden, true],
    ['420 wide', ({ style }) => style.all.width, { unit: 'px', value: 420 }],
    ['width 80 %', ({ style }) => style.all.width, { unit: 'percent', value: 80 }],
    [
      '440 by 340',
      ({ style }) => [style.all.width, style.all.height],
      [
        { unit: 'px', value: 440 },
        { unit: 'px', value: 340 },
      ],
    ],
    ['rounded corners', ({ style }) => style.all.corners, 16],
    ['corners 6', ({ style }) => style.all.corners, 6],
    ['padding 32', ({ style }) => style.all.paddingInline, 32],
    ['2 px red border', ({ style }) => [style.all.borderWidth, style.all.borderColour], [2, '#ff0000']],
    ['no shadow', ({ style }) => style.all.shadow, 'none'],
    ['move to the lower left', ({ anchor }) => anchor, 'bottom-start'],
    ['move it to the top on phones', ({ style }) => style.mobile.anchor, 'top'],
    ['put it in the upper right corner', ({ anchor }) => anchor, 'top-end'],
    ['fades in', ({ motion }) => motion.enter.kind, 'fade'],
    [
      'make it drift in from the left over half a second',
      ({ motion }) => [motion.enter.kind, motion.enter.from, motion.enter.ms],
      ['drift', 'start', 500],
    ],
    ['fade out', ({ motion }) => motion.leave.kind, 'fade'],
    ['no animation', ({ motion }) => [motion.enter.kind, motion.leave.kind], ['none', 'none']],
    ['close button on the left', ({ close }) => close.corner, 'start'],
    ['close button on the edge', ({ close }) => close.place, 'edge'],
    ['arrives from the top', ({ motion }) => motion.enter.from, 'top'],
    ['60 % of the window wide', ({ style }) => style.all.width, { unit: 'percent', value: 60 }],
    ['close button outside', ({ close }) => close.place, 'outside'],
    ['close button 40 px', ({ close }) => close.size, 40],
    ['close button after 5 seconds', ({ close }) => close.delaySeconds, 5],
    ['a click outside does not close it', ({ backdropCloses }) => backdropCloses, false],
    ['the page behind can’t be scrolled', ({ holdsPage }) => holdsPage, true],
    ['make the heading twice as large', (one) => blockOf(one, 'heading')?.style.all.textSize, 48],
    ['heading half the size', (one) => blockOf(one, 'heading')?.style.all.textSize, 12],
    ['with a dark green background', ({ style }) => style.all.ground, { kind: 'colour', colour: '#006400' }],
    ['no close on outside click', ({ backdropCloses }) => backdropCloses, false],
    ['heading: bold', (one) => blockOf(one, 'heading')?.style.all.weight, 'strong'],
    ['add a soft shadow', ({ style }) => style.all.shadow, 'lifted'],
    ['bigger close button', ({ close }) => close.size, 44],
    ['animation: sweep', ({ motion }) => motion.enter.kind, 'sweep'],
    [
      'make the title larger and bold',
      (one) => [blockOf(one, 'heading')?.style.all.textSize, blockOf(one, 'heading')?.style.all.weight],
      [29, 'strong'],
    ],
    ['with rounded corners', ({ style }) => style.all.corners, 16],
    ['closing by a click outside', ({ backdropCloses }) => backdropCloses, true],
    ['larger text', (one) => blockOf(one, 'text')?.style.all.textSize, 19],
    ['white heading', (one) => blockOf(one, 'heading')?.style.all.colour, '#ffffff'],
    ['smaller heading on mobile', (one) => blockOf(one, 'heading')?.style.mobile.textSize, 20],
    ['centre the text', (one) => blockOf(one, 'text')?.style.all.align, 'center'],
    ['align left', ({ style }) => style.all.align, 'start'],
    ['font size 20', (one) => blockOf(one, 'text')?.style.all.textSize, 20],
    ['put it bottom left', ({ anchor }) => anchor, 'bottom-start'],
    ['darken the background by 40%', ({ style }) => style.all.backdropStrength, 40],
    ['close after 20 s', ({ close }) => close.afterSeconds, 20],
    [
      'button leads to /shop',
      (one) => blockOf(one, 'button'),
      expect.objectContaining({ action: { kind: 'link', newTab: false, address: '/shop' } }),
    ],
    [
      'link the button to /shop in a new tab',
      (one) => blockOf(one, 'button'),
      expect.objectContaining({ action: { kind: 'link', newTab: true, address: '/shop' } }),
    ],
    [
      'change the heading to "Clear tonight"',
      (one) => blockOf(one, 'heading'),
      expect.objectContaining({ text: 'Clear tonight' }),
    ],
    [
      'button says “Come along”',
      (one) => blockOf(one, 'button'),
      expect.objectContaining({ label: 'Come along' }),
    ],
    [
      'heading says "Tonight, and tomorrow"',
      (one) => blockOf(one, 'heading'),
      expect.objectContaining({ text: 'Tonight, and tomorrow' }),
    ],
  ])('%s', (typed, of, expected) => {
    const { message: changed, rest } = wish(typed);
    expect(rest).toEqual([]);
    expect(of(changed)).toEqual(expected);
    expect(messageSchema.safeParse(changed).success).toBe(true);
  });
  // A heading is one and a half times as large as the text of 16 px, and a step is a fifth.
  it.each<[string, number]>([
    ['heading larger', 29],
    ['heading smaller', 20],
    ['heading much larger', 35],
    ['heading a lot smaller', 17],
    ['heading a little larger', 26],
    ['heading slightly larger', 26],
    ['heading a bit smaller', 22],
    ['heading twice as large', 48],
    ['heading half the size', 12],
    ['heading 3 times as large', 72],
    ['heading 30 px', 30],
    ['text larger', 19],
    ['button smaller', 13],
  ])('%s: %d px', (typed, px) => {
    const kind = typed.split(' ')[0] as Block['kind'];
    expect(blockOf(wish(typed).message, kind)?.style.all.textSize).toBe(px);
  });
  it('what is small changes by two pixels at least, and small text by what it is', () => {
    const one = (block: Block): Message => ({
      ...message,
      steps: [{ id: 'first', role: 'first', blocks: [block] }],
    });
    const tiny = one({ ...heading, style: { ...heading.style, all: { textSize: 12 } } } as Block);
    const sizeOf = (typed: string, of: Message) =>
      allBlocks(wish(typed, null, of).message)[0]?.style.all.textSize;
    expect(sizeOf('heading a little larger', tiny)).toBe(14);
    expect(sizeOf('heading a little smaller', tiny)).toBe(10);
    expect(sizeOf('text larger', one({ ...text, size: 'small' } as Block))).toBe(16);
  });
  it.each<[string, string, unknown]>([
    [
      'fade in from the left in 300 ms',
      'fades in from the left in 0.3 s',
      { kind: 'fade', from: 'start', ms: 300 },
    ],
    ['fades in over 2 seconds', 'fades in in 2 s', { kind: 'fade', from: 'bottom', ms: 2000 }],
    [
      'sweep out to the right in 1 s',
      'sweeps out to the right in 1 s',
      { kind: 'sweep', from: 'end', ms: 1000 },
    ],
    ['fade out', 'fades out', { kind: 'fade', ms: 140 }],
  ])('%s', (typed, said, motion) => {
    const { designs, rest, message: changed } = wish(typed);
    expect([designs, rest]).toEqual([[said], []]);
    expect(changed.motion[/ out/.test(typed) ? 'leave' : 'enter']).toMatchObject(motion as object);
    expect(changed.motion[/ out/.test(typed) ? 'enter' : 'leave']).toEqual(
      message.motion[/ out/.test(typed) ? 'enter' : 'leave'],
    );
  });
  it.each<[string, string, (changed: Message) => unknown, unknown]>([
    ['smaller close button', 'smaller close button', ({ close }) => close.size, 28],
    ['close button bigger', 'bigger close button', ({ close }) => close.size, 44],
    [
      'a click outside does not close it',
      'a click beside it does not close it',
      (one) => one.backdropCloses,
      false,
    ],
    ['clicking outside closes it', 'a click beside it closes it', (one) => one.backdropCloses, true],
    ['the page behind can be scrolled', 'the page behind can be scrolled', (one) => one.holdsPage, false],
    ['hold the page', 'the page behind cannot be scrolled', (one) => one.holdsPage, true],
    ['rounded corners', 'corners rounded', ({ style }) => style.all.corners, 16],
    ['square corners', 'corners square', ({ style }) => style.all.corners, 0],
    ['no border', 'border 0 px', ({ style }) => style.all.borderWidth, 0],
    ['red border', 'border 1 px red', ({ style }) => style.all.borderWidth, 1],
    ['no backdrop', 'backdrop 0 %', ({ style }) => style.all.backdropStrength, 0],
    [
      'heading background red',
      'heading background red',
      (one) => blockOf(one, 'heading')?.style.all,
      { ground: { kind: 'colour', colour: '#ff0000' } },
    ],
    [
      'button text white',
      'button text white',
      (one) => blockOf(one, 'button')?.style.all,
      { colour: '#ffffff' },
    ],
  ])('%s is said back as “%s”', (typed, said, of, expected) => {
    const { designs, rest, message: changed } = wish(typed);
    expect([designs, rest, of(changed)]).toEqual([[said], [], expected]);
  });
  it('a button leads where it is said, in a new tab where that is said or was so', () => {
    const leads = (typed: string, of = message) => {
      const one = blockOf(wish(typed, null, of).message, 'button');
      return one?.kind === 'button' ? one.action : undefined;
    };
    expect(leads('button leads to /shop')).toEqual({ kind: 'link', address: '/shop', newTab: false });
    expect(leads('button leads to /shop in a new tab')).toMatchObject({ newTab: true });
    const apart = { ...button, action: { kind: 'link', address: '/a', newTab: true } } as Block;
    const of: Message = { ...message, steps: [{ id: 'first', role: 'first', blocks: [apart] }] };
    expect(leads('button leads to /shop', of)).toEqual({ kind: 'link', address: '/shop', newTab: true });
  });
  it('of what the message has none or several of nothing is changed', () => {
    const of = (...blocks: Block[]): Message => ({
      ...message,
      steps: [{ id: 'first', role: 'first', blocks }],
    });
    for (const typed of ['button leads to /shop', 'heading says "Hi"'])
      expect(wish(typed, null, of(text)).rest).toEqual([`${typed} (the message has none)`]);
    const two = of(heading, { ...heading, id: 'other' } as Block);
    expect(wish('heading says "Hi"', null, two).rest).toEqual([
      'heading says "Hi" (there are several; choose one on the stage first)',
    ]);
    const long = 'x'.repeat(120);
    expect(wish(`heading says "${long}"`).rest).toEqual([]);
    expect(wish(`heading says "${long}x"`).rest).toEqual([`heading says "${long}x" (at most 120 letters)`]);
    expect(wish('fade in over 900 seconds').rest).toEqual(['fade in over 900 seconds (out of range)']);
  });
  it('words of several things, each its own', () => {
    const { designs, rest } = wish('heading says "Star party", button says "Join"');
    expect(rest).toEqual([]);
    expect(designs).toEqual(['heading says “Star party”', 'button says “Join”']);
  });
  it('several at once, each said back, beside a rule', () => {
    const {
      message: changed,
      designs,
      rest,
    } = wish('background dark green, heading larger on phones, 420 wide and after 5 seconds');
    expect(rest).toEqual([]);
    expect(designs).toEqual(['background dark green', 'heading larger, on phones', 'width 420 px']);
    expect(changed.style.all.width).toEqual({ unit: 'px', value: 420 });
  });
  it('a border is said back with its colour, and without one where it has none', () => {
    expect(wish('2 px red border').designs).toEqual(['border 2 px red']);
    expect(wish('3 px border').designs).toEqual(['border 3 px']);
  });
  it.each<[string, string[]]>([
    ['background vermilionish', ['background vermilionish']],
    ['heading 400 px', ['heading 400 px (out of range)']],
    ['countdown larger', ['countdown larger']],
    ['hide the countdown', ['hide the countdown (the message has none)']],
    ['move to the centre', ['move to the centre (a fly-in does not stand there)']],
    ['button leads to javascript:alert(1)', ['button leads to javascript:alert(1)']],
    ['close button 400 px', ['close button 400 px (out of range)']],
    ['picture on the left', ['picture on the left']],
    ['padding 900', ['padding 900 (out of range)']],
  ])('of %j what cannot be is said: %j', (typed, expected) => {
    const { rest, message: same } = wish(typed);
    expect(rest).toEqual(expected);
    expect(same).toEqual(message);
  });
  it('one of several is changed when it is the chosen one, and its words only then', () => {
    const second = { ...button, id: 'second' } as Block;
    const two = { ...message, steps: [{ id: 'first', role: 'first' as const, blocks: [button, second] }] };
    expect(wish('button leads to /shop', null, two).rest).toEqual([
      'button leads to /shop (there are several; choose one on the stage first)',
    ]);
    const [first, other] = allBlocks(wish('button red', 'second', two).message);
    expect(first?.style.all.ground).toBeUndefined();
    expect(other?.style.all.ground).toEqual({ kind: 'colour', colour: '#ff0000' });
    // With none chosen it is all of them.
    expect(allBlocks(wish('button red', null, two).message).every(({ style }) => style.all.ground)).toBe(
      true,
    );
  });
});
