/** What is counted of campaigns by days, each in a column of its own: how often it happened. */
export const COUNTED = [
  'shown',
  'viewable',
  'clicked',
  'answering',
  'converted',
  'held',
  'closed',
  'closed_soon',
  'refused',
  'shared',
] as const;

/** Of these the visitors are counted as well. */
export const VISITED = ['shown', 'viewable', 'clicked', 'answering', 'converted', 'held'] as const;

type Kind = (typeof COUNTED)[number];

/** The columns of rows that say of one kind each how many. */
export const byKind = (kinds: readonly Kind[], many: string): string =>
  kinds.map((kind) => `coalesce(sum(${many}) FILTER (WHERE kind = '${kind}'), 0) AS ${kind}`).join(', ');
