/** What is kept as long as the page lives, also where the browser keeps nothing or forgets it. */
const here = new Map<string, unknown>();

/** What is kept for this tab, also across a reload where the browser does so. */
export function keptForTab(name: string): unknown {
  if (here.has(name)) return here.get(name);
  try {
    return JSON.parse(sessionStorage.getItem(name) ?? 'null') ?? undefined;
  } catch {
    return undefined;
  }
}

/** Whether there was room for it to outlive a reload; where there was none, what was kept for one before stays. */
export function keepForTab(name: string, value: unknown): boolean {
  here.set(name, value);
  try {
    sessionStorage.setItem(name, JSON.stringify(value));
    return true;
  } catch {
    return false;
  }
}

export function forgetForTab(name: string): void {
  here.delete(name);
  try {
    sessionStorage.removeItem(name);
  } catch {
    // Storage is refused, so nothing was kept.
  }
}
