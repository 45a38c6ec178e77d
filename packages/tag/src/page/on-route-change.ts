interface NavigationLike {
  addEventListener(type: 'currententrychange', callback: () => void): void;
  removeEventListener(type: 'currententrychange', callback: () => void): void;
}

/**
 * Calls `callback` when a script changes the address without loading a document. The Navigation API sees it
 * whatever the page has done to `history`; older browsers get `history` wrapped, which calls on to the original.
 */
export function onRouteChange(callback: () => void): () => void {
  const { navigation } = window as { navigation?: NavigationLike };
  if (navigation) {
    navigation.addEventListener('currententrychange', callback);
    return () => navigation.removeEventListener('currententrychange', callback);
  }
  const undo: (() => void)[] = [];
  for (const name of ['pushState', 'replaceState'] as const) {
    const original = history[name];
    const wrapped: typeof original = function (this: History, ...values) {
      original.apply(this, values);
      callback();
    };
    try {
      history[name] = wrapped;
      undo.push(() => {
        if (history[name] === wrapped) history[name] = original;
      });
    } catch {
      // A frozen history: `popstate` alone must do.
    }
  }
  addEventListener('popstate', callback);
  undo.push(() => removeEventListener('popstate', callback));
  return () => {
    for (const take of undo) take();
  };
}
