import type { Comparison } from '@velarium/contract';

export function compare(value: number, comparison: Comparison, wanted: number): boolean {
  if (comparison === 'exactly') return value === wanted;
  return comparison === 'atLeast' ? value >= wanted : value <= wanted;
}
