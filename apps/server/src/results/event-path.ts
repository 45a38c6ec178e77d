/** The path of an event's page, where nothing else tells pages apart: what core's `countedPath` makes of it. */
export const barePath = (event: string): string =>
  `coalesce(nullif(rtrim(split_part(split_part(${event}.page, '#', 1), '?', 1), '/'), ''), '/')`;

/** The path an event's page is counted under: kept with the event where it is more than a path. */
export const eventPath = (event: string): string => `coalesce(${event}.counted_path, ${barePath(event)})`;
