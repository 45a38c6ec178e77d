/** A page that is open runs the manifest it was opened with; by then it has been opened anew. */
const REPLACED_MS = 3_600_000;

/**
 * Whether a page runs a manifest although another has long taken its place.
 *
 * @param madeMs When the one it runs was made, milliseconds since 1970.
 * @param currentMs When the one in its place was; 0 where that is not known.
 */
export const isOutdated = (madeMs: number, currentMs: number, nowMs: number): boolean =>
  madeMs < currentMs && nowMs - currentMs > REPLACED_MS;
