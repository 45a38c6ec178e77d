import type { Style, Styled, StyleKey } from '@velarium/contract';
import { type Scope, useWorkbench } from '../../store.ts';

/** One thing of a style in the scope that is being set, with a way to drop what is said there. */
export interface Styling {
  readonly scope: Scope;
  /** What is said in this scope. */
  readonly said: Style;
  /** What holds in this scope where nothing is said in it. */
  readonly below: Style;
  set<Key extends StyleKey>(key: Key, value: NonNullable<Style[Key]>): void;
  drop(...keys: StyleKey[]): void;
}

export function useStyling(
  styled: Styled,
  defaults: Style,
  onChange: (change: (old: Styled) => Styled, part: string) => void,
): Styling {
  const scope = useWorkbench((state) => state.scope);
  return {
    scope,
    said: styled[scope],
    below: scope === 'all' ? defaults : { ...defaults, ...styled.all },
    set: (key, value) =>
      onChange((old) => ({ ...old, [scope]: { ...old[scope], [key]: value } }), `${scope}.${key}`),
    drop: (...keys) =>
      onChange(
        (old) => ({
          ...old,
          [scope]: Object.fromEntries(
            Object.entries(old[scope]).filter(([key]) => !keys.includes(key as StyleKey)),
          ),
        }),
        `${scope}.drop`,
      ),
  };
}
