/** Text kept under a name; falls back to the page's own life when the browser refuses storage. */
export interface Storage {
  read(name: string): string | null;
  write(name: string, value: string): void;
}

export function createStorage(): Storage {
  const fallback = new Map<string, string>();
  return {
    read(name) {
      try {
        return localStorage.getItem(name) ?? fallback.get(name) ?? null;
      } catch {
        return fallback.get(name) ?? null;
      }
    },
    write(name, value) {
      try {
        localStorage.setItem(name, value);
        fallback.delete(name);
      } catch {
        // Blocked or full: what this page has learned still holds for this page.
        fallback.set(name, value);
      }
    },
  };
}
