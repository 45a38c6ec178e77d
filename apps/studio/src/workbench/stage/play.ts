import type { RenderedMessage } from '@velarium/render';

/** What is drawn on the stage now, so that its motion can be played from the panel. */
const onStage = new Set<RenderedMessage>();

export function putOnStage(rendered: RenderedMessage): () => void {
  onStage.add(rendered);
  return () => onStage.delete(rendered);
}

/** Plays how the message comes or goes, on every window of the stage; after going it comes back. */
export function playEntrance(part: 'enter' | 'leave'): void {
  for (const rendered of onStage) {
    const layer = rendered.root.querySelector<HTMLElement>('.layer');
    if (!layer) continue;
    delete layer.dataset.leaving;
    delete layer.dataset.entering;
    // Reading a layout makes the browser see that an animation had ended.
    void rendered.box.offsetWidth;
    if (part === 'enter') {
      layer.dataset.entering = '';
      continue;
    }
    layer.dataset.leaving = '';
    const back = () => {
      setTimeout(() => delete layer.dataset.leaving, 500);
    };
    rendered.box.addEventListener('animationend', back, { once: true });
  }
}
