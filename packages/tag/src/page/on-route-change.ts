import { on } from '../observe/on.ts';

/**
 * Calls `callback` when a script changes the address without loading a document. The Navigation API sees it
 * whatever the page has done to `history`; older browsers get `history` wrapped, which calls on to the original.
 */
export function onRouteChange(callback: () => void): void {
  const { navigation } = window as { navigation?: EventTarget };
  if (navigation) {
    on(navigation, ['currententrychange'], callback);
    return;
  }
  for (const name of ['pushState', 'replaceState'] as const) {
    const original = history[name];
    try {
      history[name] = function (this: History, ...values) {
        original.apply(this, values);
        callback();
      };
    } catch {
      // A frozen history: `popstate` alone must do.
    }
  }
  on(window, ['popstate'], callback);
}
