/** The first part of the path that most of a site's pages share; nothing where none lies in a folder. */
export function usualFolder(pages: readonly { readonly path: string }[]): string | undefined {
  const counts = new Map<string, number>();
  for (const { path } of pages) {
    const folder = /^\/([^/?#]+)\/./.exec(path)?.[1];
    if (folder !== undefined) counts.set(folder, (counts.get(folder) ?? 0) + 1);
  }
  return [...counts].sort(([, a], [, b]) => b - a)[0]?.[0];
}
