/** How long a browser may take to begin writing, milliseconds. */
const BEGUN_BY_MS = 60_000;

/** Gives the person a file. */
export function saveFile(file: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(file);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), BEGUN_BY_MS);
}

export const saveJson = (value: unknown, name: string): void =>
  saveFile(new Blob([JSON.stringify(value, null, 2)], { type: 'application/json' }), name);
