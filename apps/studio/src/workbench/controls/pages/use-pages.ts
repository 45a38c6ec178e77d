import type { PageRule, Pages } from '@velarium/contract';
import { isSame } from '@velarium/core';
import { useWorkbench, useWorkbenchStore } from '../../store.ts';

export type PageList = 'include' | 'exclude';

export const usePages = (): Pages => useWorkbench((state) => state.document.rule.reach.pages);

/** Changes of the page rules; each is a step of undo by itself. */
export function usePageEdits() {
  const store = useWorkbenchStore();
  const edit = (change: (pages: Pages) => Pages, key: string) =>
    store
      .getState()
      .editRule(
        (rule) => ({ ...rule, reach: { ...rule.reach, pages: change(rule.reach.pages) } }),
        `pages.${key}`,
      );
  return {
    edit,
    add: (list: PageList, rule: PageRule) =>
      edit(
        (pages) => {
          const isThere = pages[list].some((one) => isSame(one, rule));
          // "Every page" and single pages together would make the single ones mean nothing.
          const kept = list === 'include' ? pages[list].filter(({ kind }) => kind !== 'every') : pages[list];
          return isThere ? pages : { ...pages, [list]: [...kept, rule] };
        },
        `add.${list}.${JSON.stringify(rule)}`,
      ),
    remove: (list: PageList, at: number) =>
      edit((pages) => ({ ...pages, [list]: pages[list].filter((_, n) => n !== at) }), `remove.${list}.${at}`),
    set: (list: PageList, at: number, rule: PageRule) =>
      edit(
        (pages) => ({ ...pages, [list]: pages[list].map((old, n) => (n === at ? rule : old)) }),
        `${list}.${at}`,
      ),
  };
}
