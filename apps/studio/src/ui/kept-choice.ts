/** What somebody chose in this browser; nothing where it keeps nothing. */
export function keptChoice(name: string): string | null {
  try {
    return localStorage.getItem(name);
  } catch {
    return null;
  }
}

/** Keeps what somebody chose for the next time, where the browser lets us and has room. */
export function keepChoice(name: string, value: string): void {
  try {
    localStorage.setItem(name, value);
  } catch {
    // It holds as long as the page does.
  }
}
