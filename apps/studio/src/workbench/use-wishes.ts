import { documentSentence, readWishes, sentenceText } from '@velarium/core';
import { useReader } from '../app/commands.ts';
import { useNames } from '../board/use-names.ts';
import { useSiteWords } from '../site/use-site-words.ts';
import { readColour } from '../ui/colour-text.tsx';
import { useLookStyle } from './message/use-message.ts';
import { useWorkbench, useWorkbenchStore } from './store.ts';

/** Lets a rule be typed into the palette, and says the whole sentence back before it is changed. */
export function useWishes(): void {
  const store = useWorkbenchStore();
  const siteId = useWorkbench((state) => state.siteId);
  const names = useNames(siteId);
  const words = useSiteWords(siteId);
  const look = useLookStyle();
  useReader((typed) => {
    const { document, canEdit, selectedBlock, setDocument, tryOn } = store.getState();
    if (!canEdit || typed.trim() === '') return undefined;
    const variants = document.variants.map(({ id }) => id);
    const design = {
      message: document.message,
      chosen: selectedBlock,
      textSize: look.textSize,
      colour: readColour,
    };
    const { apply, isUnderstood, designs, rest, reasons } = readWishes(typed, { ...words, variants, design });
    if (!isUnderstood) return reasons.length > 0 ? { refused: reasons.join(', ') } : undefined;
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
  }, `${words.pages.length} pages, ${words.groups.length} groups, ${words.campaigns.length} campaigns`);
}
