import { steadySelector } from '@velarium/core/elements';
import { elementChain, isOnlyOne } from './element-chain.ts';

/** The name the studio gives the frame in which an element is to be picked. */
const FRAME = 'velarium-pick';
const OUTLINE = 'velarium-outline';

/** Whether this page stands in the studio so that an element of it can be picked. */
export const isForPicking = (): boolean => window.parent !== window && window.name === FRAME;

/**
 * Lets an element of the page be picked: its outline follows the pointer, a press chooses it and goes no further. Only
 * a selector ever leaves the page.
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
  const targetOf = (event: Event): Element | undefined => {
    const element = event.target;
    return element instanceof Element && element !== document.documentElement && element.localName !== OUTLINE
      ? element
      : undefined;
  };
  addEventListener(
    'pointermove',
    (event) => {
      const element = targetOf(event);
      if (element) show(element);
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
        show(element);
        tell(steadySelector(elementChain(element), isOnlyOne(element)));
      },
      { capture: true },
    );
  }
  tell({ isReady: true });
}
