import { PREVIEW } from './is-previewed.ts';

/**
 * The token by which the studio opened this page for a preview, with the campaign that is tried. It comes in the fragment,
 * which no server sees, is taken out of the address and kept for the tab.
 */
export function takePreviewToken(): string | null {
  const [, token] = new RegExp(`^#${PREVIEW}=([\\w.~-]+)$`).exec(location.hash) ?? [];
  try {
    if (token) {
      sessionStorage.setItem(PREVIEW, token);
      history.replaceState(history.state, '', location.pathname + location.search);
    }
    return sessionStorage.getItem(PREVIEW);
  } catch {
    return token ?? null;
  }
}
