import { useQuery } from '@tanstack/react-query';
import { documentSentence, readWishes, sentenceText } from '@velarium/core';
import { campaignsQuery, groupsQuery, sitePagesQuery } from '../api/queries.ts';
import { useReader } from '../app/commands.ts';
import { useNames } from '../board/use-names.ts';
import { useWorkbench, useWorkbenchStore } from './store.ts';

/** Lets a rule be typed into the palette, and says the whole sentence back before it is changed. */
export function useWishes(): void {
  const store = useWorkbenchStore();
  const siteId = useWorkbench((state) => state.siteId);
  const names = useNames(siteId);
  const { data: pages = [] } = useQuery(sitePagesQuery(siteId));
  const { data: groups = [] } = useQuery(groupsQuery(siteId));
  const { data: campaigns = [] } = useQuery(campaignsQuery(siteId));
  useReader((typed) => {
    const { document, canEdit, setDocument } = store.getState();
    if (!canEdit || typed.trim() === '') return undefined;
    const kinds = [...new Set(pages.flatMap(({ kind }) => kind ?? []))];
    const versions = document.variants.map(({ id }) => id);
    const { apply, isUnderstood, rest } = readWishes(typed, { pages, groups, campaigns, kinds, versions });
    if (!isUnderstood) return undefined;
    return {
      words: sentenceText(documentSentence(apply(document), names)),
      rest: rest.join(', '),
      run: () => setDocument(apply),
    };
  }, `${pages.length} pages, ${groups.length} groups, ${campaigns.length} campaigns`);
}
