/** What a browser keeps for this tab, also across a reload; nothing where it keeps nothing. */
export function keptForTab(name: string): unknown {
  try {
    return JSON.parse(sessionStorage.getItem(name) ?? 'null') ?? undefined;
  } catch {
    return undefined;
  }
}

/** Whether there was room for it; where there was none, what was kept before stays. */
export function keepForTab(name: string, value: unknown): boolean {
  try {
    sessionStorage.setItem(name, JSON.stringify(value));
    return true;
  } catch {
    return false;
  }
}

export function forgetForTab(name: string): void {
  try {
    sessionStorage.removeItem(name);
  } catch {
    // Storage is refused, so nothing was kept.
  }
}
