import { useQuery } from '@tanstack/react-query';
import { documentSentence, readWishes, sentenceText, wallClock } from '@velarium/core';
import { campaignsQuery, groupsQuery, sitePagesQuery } from '../api/queries.ts';
import { useReader } from '../app/commands.ts';
import { useNames } from '../board/use-names.ts';
import { useSite } from '../site/use-site.ts';
import { readColour } from '../ui/colour-text.tsx';
import { useLookStyle } from './message/use-message.ts';
import { useWorkbench, useWorkbenchStore } from './store.ts';

/** Lets a rule be typed into the palette, and says the whole sentence back before it is changed. */
export function useWishes(): void {
  const store = useWorkbenchStore();
  const siteId = useWorkbench((state) => state.siteId);
  const names = useNames(siteId);
  const site = useSite(siteId);
  const { data: pages = [] } = useQuery(sitePagesQuery(siteId));
  const { data: groups = [] } = useQuery(groupsQuery(siteId));
  const { data: campaigns = [] } = useQuery(campaignsQuery(siteId));
  const look = useLookStyle();
  useReader((typed) => {
    const { document, canEdit, selectedBlock, setDocument, tryOn } = store.getState();
    if (!canEdit || typed.trim() === '') return undefined;
    const kinds = [...new Set(pages.flatMap(({ kind }) => kind ?? []))];
    const variants = document.variants.map(({ id }) => id);
    const today = new Date(wallClock(Date.now(), site?.timeZone ?? 'UTC')).toISOString().slice(0, 10);
    const design = {
      message: document.message,
      chosen: selectedBlock,
      textSize: look.textSize,
      colour: readColour,
    };
    const wishes = { pages, groups, campaigns, kinds, variants, today, design };
    const { apply, isUnderstood, designs, rest } = readWishes(typed, wishes);
    if (!isUnderstood) return undefined;
    const next = apply(document);
    const isOfRule =
      sentenceText(documentSentence(next, names)) !== sentenceText(documentSentence(document, names));
    return {
      sentence: isOfRule || designs.length === 0 ? sentenceText(documentSentence(next, names)) : '',
      designs,
      rest: rest.join(', '),
      show() {
        tryOn(next.message);
        return () => tryOn(null);
      },
      run: () => setDocument(apply),
    };
  }, `${pages.length} pages, ${groups.length} groups, ${campaigns.length} campaigns`);
}
