/** Listens and returns the undo. Passive and capturing, so it neither delays the page nor misses what it stops. */
export function on(
  target: EventTarget,
  types: readonly string[],
  callback: (event: Event) => void,
): () => void {
  const options = { passive: true, capture: true };
  for (const type of types) target.addEventListener(type, callback, options);
  return () => {
    for (const type of types) target.removeEventListener(type, callback, options);
  };
}

/** Undoes several things as one. */
export const all = (undo: readonly (() => void)[]) => () => {
  for (const take of undo) take();
};

/** The element of an event that a selector finds, looking outwards. A selector that is none finds nothing, nor does the document. */
export function closest({ target }: Event, selector: string): Element | null {
  try {
    return (target as Element).closest(selector);
  } catch {
    return null;
  }
}

export function find(selector: string): Element | null {
  try {
    return document.querySelector(selector);
  } catch {
    return null;
  }
}
