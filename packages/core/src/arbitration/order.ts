const LEAST = 1;
const MOST = 9;

/**
 * The priority, 1 to 9, that puts a campaign at a place among others in falling order of theirs. Who is moved up goes
 * before whatever stands below that place, and who is moved down after whatever stands above it, as far as there are
 * priorities left: between two equals there is no room, so it passes all of them.
 */
export function placeInOrder(others: readonly number[], at: number, moved: 'up' | 'down'): number {
  const above = others[at - 1];
  const below = others[at];
  if (above === undefined) return Math.min(MOST, (below ?? 4) + 1);
  if (below === undefined) return Math.max(LEAST, above - 1);
  if (above === below) return moved === 'up' ? Math.min(MOST, below + 1) : Math.max(LEAST, above - 1);
  const middle = (above + below) / 2;
  return moved === 'up' ? Math.ceil(middle) : Math.floor(middle);
}
