import type { BlockOf, CountdownUnit } from '@velarium/contract';
import { countdownEnd, countdownParts } from '@velarium/core/message';
import type { BlockContext } from '../context.ts';
import { element } from '../dom.ts';

/** Counts down in the units shown. A screen reader is told the time once a minute, not at every tick. */
export function drawCountdown(block: BlockOf<'countdown'>, context: BlockContext): HTMLElement {
  const { document, clock, isStill, onUndo, onAction, language = 'en' } = context;
  const view = document.defaultView as Window & typeof globalThis;
  const root = element(document, 'div', { class: 'countdown', role: 'timer' });
  const short = new Intl.NumberFormat(language, { useGrouping: false });
  const nameOf = nameIn(language);
  const padded = new Intl.NumberFormat(language, { minimumIntegerDigits: 2 });
  const figures = new Map<CountdownUnit, { readonly count: HTMLElement; readonly unit: Text }>();
  for (const { unit } of countdownParts(0, block.units)) {
    const count = element(document, 'b');
    const name = document.createTextNode('');
    figures.set(unit, { count, unit: name });
    root.append(element(document, 'span', { 'aria-hidden': 'true' }, [count, ' ', name]));
  }
  const spoken = element(document, 'span', { class: 'quiet', 'aria-live': 'polite' });
  root.append(spoken);
  const end = countdownEnd(block.until, { ...clock, nowMs: clock.nowMs() });

  const over = () => {
    if (block.whenOver === 'hide') root.hidden = true;
    if (block.whenOver === 'words') root.replaceChildren(block.overText);
    if (block.whenOver === 'close') onAction({ kind: 'close' });
  };
  const tick = () => {
    const leftMs = end - clock.nowMs();
    const parts = countdownParts(leftMs, block.units);
    for (const { unit, count } of parts) {
      const figure = figures.get(unit);
      if (!figure) continue;
      figure.count.textContent = (unit === 'days' ? short : padded).format(count);
      figure.unit.data = nameOf(unit, count);
    }
    const said = parts
      .filter(({ unit }) => unit !== 'seconds' || parts.length === 1)
      .map(({ unit, count }) => `${short.format(count)} ${nameOf(unit, count)}`)
      .join(', ');
    if (spoken.textContent !== said) spoken.textContent = said;
    if (isStill) return;
    if (leftMs <= 0) over();
    else timer = view.setTimeout(tick, leftMs % 1000 || 1000);
  };
  let timer = 0;
  tick();
  onUndo(() => view.clearTimeout(timer));
  return root;
}

/** What a unit is called beside this many of it, in plurals of the language (CLDR, as the browser has it). */
const nameIn =
  (language: string) =>
  (unit: CountdownUnit, count: number): string =>
    new Intl.NumberFormat(language, { style: 'unit', unit: unit.slice(0, -1), unitDisplay: 'long' })
      .formatToParts(count)
      .find(({ type }) => type === 'unit')?.value ?? '';
