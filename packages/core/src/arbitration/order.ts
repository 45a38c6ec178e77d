const LEAST = 1;
const MOST = 9;

/**
 * The priority, 1 to 9, that puts a campaign at a place among others in falling order of theirs. Between two equals
 * there is no room, and it joins them.
 */
export function placeInOrder(others: readonly number[], at: number): number {
  const above = others[at - 1];
  const below = others[at];
  if (above === undefined) return Math.min(MOST, (below ?? 4) + 1);
  if (below === undefined) return Math.max(LEAST, above - 1);
  return Math.round((above + below) / 2);
}
