/**
 * The token by which the studio opened this page for a preview, if it did, with the campaign that is tried. It comes in the fragment, which no server
 * sees, is taken out of the address at once and kept for the tab.
 */
export function takePreviewToken(): string | null {
  const name = 'velarium-preview';
  const [, token] = new RegExp(`^#${name}=([\\w.~-]+)$`).exec(location.hash) ?? [];
  try {
    if (token) {
      sessionStorage.setItem(name, token);
      history.replaceState(history.state, '', location.pathname + location.search);
    }
    return sessionStorage.getItem(name);
  } catch {
    return token ?? null;
  }
}
