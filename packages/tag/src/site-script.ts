/** Where the tag came from, read from its own script element: the edge's origin and the site's key. */
export interface SiteScript {
  readonly edge: string;
  readonly key: string;
}

const ADDRESS = /^(https?:\/\/[^/]+)\/tag\/([a-z0-9]{12})\.js/;

/** Must run while the script runs first; `currentScript` is gone afterwards. */
export function findSiteScript(document: Document): SiteScript | undefined {
  const script = document.currentScript as HTMLScriptElement | null;
  const [, edge, key] = ADDRESS.exec(script?.src ?? '') ?? [];
  // A match has both.
  return edge ? { edge, key: key as string } : undefined;
}
