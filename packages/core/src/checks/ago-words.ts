const ago = new Intl.RelativeTimeFormat('en-GB', { numeric: 'auto' });
const MINUTE_MS = 60_000;

/** `just now`, `5 minutes ago`, `3 hours ago`, `2 days ago`. */
export function agoWords(atMs: number, nowMs: number): string {
  const minutes = Math.round((nowMs - atMs) / MINUTE_MS);
  if (minutes < 1) return 'just now';
  if (minutes < 120) return ago.format(-minutes, 'minute');
  const hours = Math.round(minutes / 60);
  return hours < 48 ? ago.format(-hours, 'hour') : ago.format(-Math.round(hours / 24), 'day');
}
