import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { createDepth, scrolls } from './depth.ts';
import { createMouseLeaving } from './leaving-by-mouse.ts';
import { createBackGesture, createQuickScroll } from './leaving-by-touch.ts';
import { isReached, reachedHeight } from './reached.ts';
import { createViewable } from './viewable.ts';

describe('depth', () => {
  const at = (top: number, pageHeight = 4000, atMs = 0) => ({ top, windowHeight: 800, pageHeight, atMs });
  const scrolledByHand = () => {
    const depth = createDepth();
    depth.hand(0);
    depth.scrolled(100);
    return depth;
  };
  it('is the lowest edge of the window over the height of the page, not of the window', () => {
    expect(scrolledByHand().look(at(800))?.percent).toBeCloseTo(40, 1);
    expect(scrolledByHand().look(at(800))?.pixels).toBe(1600);
    expect(scrolledByHand().look(at(3199.6))?.percent).toBe(100);
  });
  it('counts from the first scroll by the visitor’s own hand', () => {
    const depth = createDepth();
    expect([depth.scrolled(5000), depth.look(at(2000))]).toEqual([false, undefined]);
    depth.hand(6000);
    expect(depth.scrolled(7499)).toBe(true);
    expect(depth.look(at(2000))?.percent).toBeCloseTo(70, 1);
    // From now on a script that scrolls only carries on.
    expect(depth.scrolled(60_000)).toBe(true);
  });
  it.each<[sinceHandMs: number, isByHand: boolean]>([
    [0, true],
    [1499, true],
    [1500, false],
  ])('a scroll %i ms after a sign of the hand', (sinceMs, isByHand) => {
    const depth = createDepth();
    depth.hand(1000);
    expect(depth.scrolled(1000 + sinceMs)).toBe(isByHand);
  });
  it.each<[top: number, height: number, percent: number | undefined]>([
    [0, 800, 100],
    [0, 801, 100],
    [0, 802, undefined],
  ])('a page %i pixels down of %i, which nobody has scrolled', (top, height, percent) => {
    const depth = createDepth();
    expect(depth.look(at(top, height, 500))).toBeUndefined();
    expect(depth.look(at(top, height, 1499))).toBeUndefined();
    expect(depth.look(at(top, height, 1500))?.percent).toBe(percent);
  });
  it('a page that grows before it has settled was not short', () => {
    const depth = createDepth();
    depth.look(at(0, 800, 0));
    expect(depth.look(at(0, 700, 900))).toBeUndefined();
    expect(depth.look(at(0, 700, 1899))).toBeUndefined();
    expect(depth.look(at(0, 4000, 5000))).toBeUndefined();
    expect(depth.deepest).toEqual({ percent: 0, pixels: 0 });
  });
  it('goes on in pixels where the page grows under it', () => {
    const depth = scrolledByHand();
    expect(depth.look(at(200, 1000))).toEqual({ percent: 100, pixels: 1000 });
    expect(depth.look(at(700, 4000))).toEqual({ percent: 100, pixels: 1500 });
  });
  it('never falls, whatever the page does', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 9000 }), fc.integer({ min: 100, max: 9000 })), {
          minLength: 1,
        }),
        (places) => {
          const depth = scrolledByHand();
          let before = depth.deepest;
          for (const [top, height] of places) {
            const grown = depth.look(at(top, height));
            const { deepest } = depth;
            expect(deepest.percent).toBeGreaterThanOrEqual(before.percent);
            expect(deepest.pixels).toBeGreaterThanOrEqual(before.pixels);
            expect(deepest.percent).toBeLessThanOrEqual(100);
            // It is told when it has grown, and not otherwise.
            expect(grown !== undefined).toBe(
              deepest.percent > before.percent || deepest.pixels > before.pixels,
            );
            before = deepest;
          }
        },
      ),
    );
  });
  it.each<[key: string | undefined, does: boolean]>([
    [' ', true],
    ['PageDown', true],
    ['End', true],
    ['ArrowUp', true],
    ['ArrowLeft', false],
    ['a', false],
    ['Escape', false],
    [undefined, true],
  ])('the key %j scrolls: %s', (key, does) => expect(scrolls(key)).toBe(does));
});

describe('an element is reached', () => {
  it.each<[what: string, elementHeight: number, seenHeight: number, is: boolean]>([
    ['half of it', 200, 100, true],
    ['less than half of it', 200, 99, false],
    ['one per cent of it', 200, 2, false],
    ['half of the window, of one much higher', 20_000, 400, true],
    ['less than half of the window', 20_000, 399, false],
    ['half a pixel less, which zoom leaves', 200, 99.5, true],
  ])('%s', (_what, elementHeight, seenHeight, is) => {
    expect(isReached({ elementHeight, seenHeight, windowHeight: 800 })).toBe(is);
  });
  it('the share that counts is at most half', () => {
    expect(reachedHeight({ elementHeight: 200, windowHeight: 800 })).toBe(100);
    expect(reachedHeight({ elementHeight: 2000, windowHeight: 800 })).toBe(400);
  });
});

describe('viewable (MRC viewable-impression guideline: half of it for one continuous second)', () => {
  it.each<[what: string, seen: [isSeen: boolean, atMs: number][], is: boolean]>([
    [
      'a second',
      [
        [true, 0],
        [true, 1000],
      ],
      true,
    ],
    [
      'a millisecond less',
      [
        [true, 0],
        [true, 999],
      ],
      false,
    ],
    [
      'a tab that hides at that very moment',
      [
        [true, 0],
        [false, 1000],
      ],
      true,
    ],
    [
      'a tab that hides just before',
      [
        [true, 0],
        [false, 999],
      ],
      false,
    ],
    [
      'two halves of a second',
      [
        [true, 0],
        [false, 600],
        [true, 700],
        [true, 1300],
      ],
      false,
    ],
    [
      'the second after a break',
      [
        [true, 0],
        [false, 600],
        [true, 700],
        [true, 1700],
      ],
      true,
    ],
    [
      'never seen',
      [
        [false, 0],
        [false, 5000],
      ],
      false,
    ],
  ])('%s', (_what, seen, is) => {
    const viewable = createViewable();
    expect(seen.some(([isSeen, atMs]) => viewable.see(isSeen, atMs))).toBe(is);
  });
  it('says how long to wait', () => {
    const viewable = createViewable();
    expect(viewable.remainingMs(0)).toBe(Number.POSITIVE_INFINITY);
    viewable.see(true, 100);
    expect(viewable.remainingMs(400)).toBe(700);
    viewable.see(false, 500);
    expect(viewable.remainingMs(600)).toBe(Number.POSITIVE_INFINITY);
  });
});

describe('leaving by mouse', () => {
  const move = (fromY: number, toY: number, ms: number, { isMouse = true, isChoosing = false } = {}) => {
    const leaving = createMouseLeaving();
    leaving.move({ x: 0, y: fromY, atMs: 0, isMouse }, false);
    return leaving.move({ x: 0, y: toY, atMs: ms, isMouse }, isChoosing);
  };
  it.each<[what: string, fromY: number, toY: number, ms: number, sign: string | undefined]>([
    ['up fast in the upper part', 300, 159, 100, 'early'],
    ['just below the upper part', 400, 160, 100, undefined],
    ['up, but not fast', 239, 159, 100, undefined],
    ['near the top edge, up', 80, 39, 100, 'likely'],
    ['just below it', 80, 40, 100, undefined],
    ['near the top edge, hardly moving', 69, 39, 100, undefined],
    ['down', 10, 39, 10, undefined],
    ['two places at one time', 300, 39, 0, undefined],
  ])('%s', (_what, fromY, toY, ms, sign) => expect(move(fromY, toY, ms)).toBe(sign));
  it('never by a finger, nor over an open list of choices, nor from a finger to a mouse', () => {
    expect(move(300, 20, 10, { isMouse: false })).toBeUndefined();
    expect(move(300, 20, 10, { isChoosing: true })).toBeUndefined();
    const mixed = createMouseLeaving();
    mixed.move({ x: 0, y: 700, atMs: 0, isMouse: false }, false);
    expect(mixed.move({ x: 0, y: 20, atMs: 10, isMouse: true }, false)).toBeUndefined();
  });
  it.each<
    [what: string, out: Partial<Parameters<ReturnType<typeof createMouseLeaving>['out']>[0]>, is: boolean]
  >([
    ['through the top edge', {}, true],
    ['at the very edge', { y: 0 }, true],
    ['below it', { y: 1 }, false],
    ['into a frame', { isOut: false }, false],
    ['onto the scroll bar', { x: 1265 }, false],
  ])('%s', (_what, how, is) => {
    const leaving = createMouseLeaving();
    leaving.move({ x: 600, y: 300, atMs: 0, isMouse: true }, false);
    const out = { x: 600, y: -4, isOut: true, pageWidth: 1265, ...how };
    expect(leaving.out(out, false)).toBe(is ? 'certain' : undefined);
    expect(leaving.out(out, true)).toBeUndefined();
    expect(createMouseLeaving().out(out, false)).toBeUndefined();
  });
});

describe('leaving by touch', () => {
  const flick = (downTo: number, upTo: number, ms: number, isTouch = true) => {
    const scroll = createQuickScroll();
    scroll.press(isTouch);
    scroll.scroll(downTo, 0, 800);
    scroll.press(isTouch);
    scroll.scroll(downTo, 1000, 800);
    return scroll.scroll(upTo, 1000 + ms, 800);
  };
  it.each<[what: string, downTo: number, upTo: number, ms: number, is: boolean]>([
    ['a quick scroll up after a screen down', 800, 519, 400, true],
    ['not a screen down', 799, 300, 400, false],
    ['not far enough up', 800, 520, 400, false],
    ['not quick', 800, 0, 500, false],
    ['down', 800, 1200, 400, false],
  ])('%s', (_what, downTo, upTo, ms, is) => expect(flick(downTo, upTo, ms)).toBe(is));
  it('never by a wheel', () => expect(flick(1600, 0, 400, false)).toBe(false));
  it('the back gesture holds once, after a tap, and lets the second one go', () => {
    const gesture = createBackGesture();
    expect(gesture.back(false)).toBe(false);
    expect([gesture.tap(), gesture.tap()]).toEqual([true, false]);
    expect(gesture.back(true)).toBe(false);
    expect(gesture.back(false)).toBe(true);
    expect([gesture.back(false), gesture.tap()]).toEqual([false, false]);
  });
});
