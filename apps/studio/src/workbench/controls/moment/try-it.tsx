import type { Trigger } from '@velarium/contract';
import {
  createDepth,
  createMomentState,
  createMouseLeaving,
  createQuickScroll,
  EXIT_ARMED_MS,
  type Fact,
  isMetBy,
} from '@velarium/core';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { cx } from '../../../ui/cx.ts';

/** The window the little one stands for, CSS pixels high. */
const WINDOW_HEIGHT = 800;
const TICK_MS = 100;

const armedWords = (leftMs: number): string =>
  leftMs > 0 ? `Armed in ${(leftMs / 1000).toFixed(1)} s` : 'Armed: leave now';

/** What to do in the little window, for the triggers that can be tried in one. */
const HOW: Readonly<Partial<Record<Trigger['kind'], string>>> = {
  exitMouse: 'Move the pointer in, wait for it to be armed, and leave through the top.',
  exitTouch: 'Scroll down to the end, then quickly up.',
  inactivity: 'Move the pointer in, then hold it still.',
  scroll: 'Scroll in here.',
  time: 'Move the pointer in, and wait.',
};

/** A little window in which one can leave, scroll or stand still, and see the real trigger react. */
export function TryIt({ trigger }: { readonly trigger: Trigger }) {
  const how = HOW[trigger.kind];
  if (how === undefined || (trigger.kind === 'exitTouch' && trigger.by === 'back')) return null;
  return (
    <LittleWindow key={JSON.stringify(trigger)} trigger={trigger}>
      {how}
    </LittleWindow>
  );
}

function LittleWindow({ trigger, children }: { readonly trigger: Trigger; readonly children: ReactNode }) {
  const pane = useRef<HTMLElement>(null);
  const [said, setSaid] = useState<{ readonly words: string; readonly isMet: boolean }>({
    words: 'Not tried yet',
    isMet: false,
  });
  const [round, setRound] = useState(0);

  // biome-ignore lint/correctness/useExhaustiveDependencies: each round begins the trial anew.
  useEffect(() => {
    const element = pane.current;
    if (!element) return;
    const moment = createMomentState(
      { join: 'any', triggers: [trigger], notBeforeSeconds: 0, againAfterSeconds: null },
      '',
      isMetBy,
    );
    const scroll = createQuickScroll();
    // Whatever scrolls the little window stands for a finger on a page.
    scroll.press(true);
    const leaving = createMouseLeaving();
    const depth = createDepth();
    let beganMs: number | undefined;
    let activeMs = 0;
    let isMet = false;
    const isLeaving = trigger.kind === 'exitMouse' || trigger.kind === 'exitTouch';
    const times = () => {
      const nowMs = performance.now();
      const pageVisibleMs = beganMs === undefined ? 0 : nowMs - beganMs;
      return {
        pageVisibleMs,
        sessionVisibleMs: pageVisibleMs,
        stillMs: beganMs === undefined ? 0 : nowMs - activeMs,
        counts: { viewsInSession: 1, viewsOfPage: 1, sessions: 1 },
      };
    };
    const look = (words: string) => {
      if (isMet) return;
      const remaining = moment.remaining(times());
      isMet = remaining <= 0;
      setSaid({
        isMet,
        words: isMet
          ? 'It would open now'
          : Number.isFinite(remaining)
            ? `${(remaining / 1000).toFixed(1)} s to go`
            : words,
      });
    };
    const tell = (fact: Fact, words: string) => {
      moment.feed(fact, times());
      look(words);
    };
    const begin = () => {
      if (beganMs === undefined) beganMs = performance.now();
      activeMs = performance.now();
    };
    const onMove = (event: PointerEvent) => {
      begin();
      const box = element.getBoundingClientRect();
      const scale = WINDOW_HEIGHT / box.height;
      const certainty = leaving.move(
        {
          x: (event.clientX - box.left) * scale,
          y: (event.clientY - box.top) * scale,
          atMs: performance.now(),
          isMouse: true,
        },
        false,
      );
      if (certainty) tell({ kind: 'exitMouse', certainty }, `A sign that is ${certainty} only`);
    };
    const onLeave = (event: PointerEvent) => {
      const box = element.getBoundingClientRect();
      const certainty = leaving.out(
        { x: event.clientX - box.left, y: event.clientY - box.top - 1, isOut: true, pageWidth: box.width },
        false,
      );
      if (certainty) tell({ kind: 'exitMouse', certainty }, 'A certain sign, but not armed yet');
    };
    const onScroll = () => {
      begin();
      const { scrollTop, clientHeight, scrollHeight } = element;
      const scale = WINDOW_HEIGHT / clientHeight;
      const top = scrollTop * scale;
      // Nothing but a hand scrolls it.
      depth.hand(performance.now());
      depth.scrolled(performance.now());
      const reached = depth.look({
        top,
        windowHeight: WINDOW_HEIGHT,
        pageHeight: scrollHeight * scale,
        atMs: performance.now(),
      });
      const { percent } = depth.deepest;
      if (reached) tell({ kind: 'scrolled', ...reached }, `${Math.round(percent)} % of the page`);
      if (scroll.scroll(top, performance.now(), WINDOW_HEIGHT))
        tell({ kind: 'exitTouch', by: 'scrollUp' }, 'Quick, but not armed yet');
    };
    const timer = setInterval(() => {
      if (beganMs === undefined || isMet) return;
      if ('seconds' in trigger) look('');
      // Leaving is not believed at once, and then at any moment.
      if (isLeaving) look(armedWords(EXIT_ARMED_MS - times().pageVisibleMs));
    }, TICK_MS);
    element.addEventListener('pointermove', onMove);
    element.addEventListener('pointerleave', onLeave);
    element.addEventListener('scroll', onScroll, { passive: true });
    return () => {
      clearInterval(timer);
      element.removeEventListener('pointermove', onMove);
      element.removeEventListener('pointerleave', onLeave);
      element.removeEventListener('scroll', onScroll);
    };
  }, [trigger, round]);

  const isScrolled = trigger.kind === 'scroll' || trigger.kind === 'exitTouch';
  return (
    <div>
      <section
        ref={pane}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reachable by keys; the arrows scroll it.
        tabIndex={0}
        aria-label="Try it here"
        className={cx(
          'h-24 overflow-hidden rounded border border-line-strong bg-paper',
          isScrolled && 'overflow-y-auto',
        )}
      >
        <div className="sticky top-0 border-b border-line bg-line/40 px-2 py-0.5 text-xs text-soft">
          {children}
        </div>
        {isScrolled && <LongPage />}
      </section>
      <div className="mt-1 flex items-center gap-2 text-xs">
        <span aria-live="polite" className={said.isMet ? 'font-semibold text-sail' : 'text-soft'}>
          {said.isMet ? '● ' : '○ '}
          {said.words}
        </span>
        {said.isMet && (
          <button
            type="button"
            className="ml-auto underline underline-offset-2"
            onClick={() => {
              setSaid({ words: 'Not tried yet', isMet: false });
              setRound((old) => old + 1);
            }}
          >
            Try again
          </button>
        )}
      </div>
    </div>
  );
}

/** Lines of a page, eight windows long. */
const LongPage = () => (
  <div aria-hidden className="grid gap-3 p-3">
    {Array.from({ length: 48 }, (_, line) => (
      // biome-ignore lint/suspicious/noArrayIndexKey: lines that never change.
      <div key={line} className="h-1.5 rounded bg-line" style={{ width: `${60 + ((line * 37) % 40)}%` }} />
    ))}
  </div>
);
