import type { DataCondition } from '@velarium/contract';
import { compare } from '../audience/compare.ts';

/** What stands in an event's data at a path in dots; data is whatever a page has sent. */
export function valueAt(data: unknown, path: string): unknown {
  let value = data;
  for (const key of path.split('.')) {
    if (typeof value !== 'object' || value === null || !Object.hasOwn(value, key)) return undefined;
    value = (value as Record<string, unknown>)[key];
  }
  return value;
}

/** Whether an event's data is as asked; where nothing is asked it is. */
export function isAsAsked(condition: DataCondition | null, data: unknown): boolean {
  if (!condition) return true;
  const value = valueAt(data, condition.path);
  if (typeof condition.value !== 'number')
    return condition.comparison === 'exactly' && value === condition.value;
  return typeof value === 'number' && compare(value, condition.comparison, condition.value);
}
