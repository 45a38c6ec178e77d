/** Where the visitor's record lies. */
export const recordName = (siteKey: string) => `velarium:${siteKey}`;

/** Text kept under a name; falls back to the page's own life when the browser or the visitor refuses storage. */
export interface Storage {
  read(name: string): string | null;
  write(name: string, value: string): void;
  /** Whether what is written outlives the page. */
  isKept(): boolean;
  /** From now on what is written outlives the page, or does not. */
  allow(isAllowed: boolean): void;
  /** What only this page knows. */
  readonly fallback: Map<string, string>;
  /** The browser's storage behind it; asking for it may throw. */
  readonly keep: () => globalThis.Storage;
}

/** Reads what is kept and keeps nothing: what this page learns, only this page knows. */
export function createReader(isAllowed: boolean): Storage {
  const kept = createStorage(isAllowed);
  const learned = new Map<string, string>();
  return {
    ...kept,
    read: (name) => learned.get(name) ?? kept.read(name),
    write: (name, value) => learned.set(name, value),
    // Nothing that is kept is taken away either.
    keep: () => sessionStorage,
  };
}

export function createStorage(
  isAllowed: boolean,
  keep: () => globalThis.Storage = () => localStorage,
): Storage {
  const fallback = new Map<string, string>();
  return {
    fallback,
    keep,
    read(name) {
      let value: string | null | undefined;
      try {
        value = isAllowed ? keep().getItem(name) : null;
      } catch {
        // Refused: what this page has learned still holds for this page.
      }
      return value ?? fallback.get(name) ?? null;
    },
    write(name, value) {
      fallback.set(name, value);
      try {
        if (!isAllowed) return;
        keep().setItem(name, value);
        fallback.delete(name);
      } catch {
        // Blocked or full.
      }
    },
    isKept: () => !fallback.size,
    allow(next) {
      isAllowed = next;
    },
  };
}
