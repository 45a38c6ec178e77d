/** The outermost page's window, `undefined` where it is of another origin. */
export function pageAround(): Window | undefined {
  try {
    return top?.location.host === undefined ? undefined : top;
  } catch {
    return undefined;
  }
}
