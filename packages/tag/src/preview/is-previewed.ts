/** Under which name the studio's token comes in the fragment of an address, and is kept for the tab. */
export const PREVIEW = 'velarium-preview';

/** Whether the studio opened this page, or an earlier one of this tab, for a preview. */
export function isPreviewed(): boolean {
  try {
    return location.hash.includes(PREVIEW) || PREVIEW in sessionStorage;
  } catch {
    // Storage is refused, and no token came.
    return false;
  }
}
