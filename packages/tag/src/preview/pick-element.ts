import { elementWords, meantOf, steadySelector } from '@velarium/core/elements';
import { elementChain, isOnlyOne } from './element-chain.ts';

/** The name the studio gives the frame in which an element is to be picked. */
const FRAME = 'velarium-pick';
const OUTLINE = 'velarium-outline';
/** Steps of a trail that are told at most, outwards from what was picked. */
const MOST_STEPS = 12;

/** Whether this page stands in the studio so that an element of it can be picked. */
export const isForPicking = (): boolean => window.parent !== window && window.name === FRAME;

/**
 * Lets an element of the page be picked: its outline follows the pointer, a press chooses what is meant there and goes no
 * further. From there the arrow keys, or the studio, go outwards and back in. Only selectors and their counts ever leave
 * the page.
 */
export function pickElement(): void {
  const tell = (message: object) => window.parent.postMessage({ velarium: 'pick', ...message }, '*');
  const outline = document.createElement(OUTLINE);
  outline.style.cssText =
    'all:initial;position:fixed;pointer-events:none;z-index:2147483647;border:2px solid #a4471f;background:#a4471f22;border-radius:2px;display:none';
  document.documentElement.append(outline);
  const show = (element: Element) => {
    const { left, top, width, height } = element.getBoundingClientRect();
    Object.assign(outline.style, {
      display: 'block',
      left: `${left - 2}px`,
      top: `${top - 2}px`,
      width: `${width}px`,
      height: `${height}px`,
    });
  };
  /** From what was pressed outwards; and which of them is chosen. */
  let trail: Element[] = [];
  let chosen = 0;
  const choose = (at: number) => {
    const element = trail[at];
    if (!element) return;
    chosen = at;
    show(element);
    const proposal = steadySelector(elementChain(element), isOnlyOne(element));
    const link = element.closest('a[href]');
    tell({
      ...proposal,
      count: document.querySelectorAll(proposal.selector).length,
      leadsAway: !!link && !/^(#|javascript:)/i.test(link.getAttribute('href') ?? ''),
      trail: elementChain(trail[0] as Element)
        .slice(0, MOST_STEPS)
        .map(elementWords),
      at,
    });
  };
  const targetOf = (event: Event): Element | undefined => {
    const [element] = event.composedPath();
    // What lies in a shadow root cannot be named by a selector of the page; its host can.
    const own = element instanceof Element && element.getRootNode() === document ? element : event.target;
    return own instanceof Element && own !== document.documentElement && own.localName !== OUTLINE
      ? own
      : undefined;
  };
  const outwards = (element: Element): Element[] => {
    const all: Element[] = [];
    for (let at: Element | null = element; at && at !== document.body; at = at.parentElement) all.push(at);
    return all;
  };
  addEventListener(
    'pointermove',
    (event) => {
      const element = targetOf(event);
      if (!element || trail.length > 0) return;
      const chain = outwards(element);
      show(chain[meantOf(elementChain(element))] ?? element);
    },
    { passive: true },
  );
  for (const kind of ['pointerdown', 'mousedown', 'mouseup', 'click', 'submit']) {
    addEventListener(
      kind,
      (event) => {
        event.preventDefault();
        event.stopImmediatePropagation();
        const element = targetOf(event);
        if (kind !== 'click' || !element) return;
        trail = outwards(element);
        choose(meantOf(elementChain(element)));
        // The press was taken away, and the focus with it: the arrows are pressed here.
        window.focus();
      },
      { capture: true },
    );
  }
  addEventListener(
    'keydown',
    (event) => {
      const step = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
      if (step === 0 || trail.length === 0) return;
      event.preventDefault();
      event.stopImmediatePropagation();
      choose(chosen + step);
    },
    { capture: true },
  );
  // The studio says which step of the trail is meant.
  addEventListener('message', ({ source, data }) => {
    const step = (data as { velarium?: unknown; step?: unknown } | null)?.velarium === 'step' && data.step;
    if (source === window.parent && Number.isInteger(step)) choose(step);
  });
  tell({ isReady: true });
}
