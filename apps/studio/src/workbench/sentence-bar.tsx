import { documentSentence, type Phrase, type SentencePart, sentenceText } from '@velarium/core';
import { Copy } from 'lucide-react';
import { type ReactNode, useMemo } from 'react';
import { IconButton } from '../ui/button.tsx';
import { Popover } from '../ui/popover.tsx';
import { tell } from '../ui/toast.tsx';
import { CapsControl } from './controls/caps-control.tsx';
import { DevicesControl } from './controls/devices-control.tsx';
import { MomentControl } from './controls/moment-control.tsx';
import { PagesControl } from './controls/pages-control.tsx';
import { PauseControl } from './controls/pause-control.tsx';
import { PlaceControl } from './controls/place-control.tsx';
import { useWorkbench } from './store.ts';

/** Parts without a control of their own yet are said, and changed through the API. */
const CONTROLS: Readonly<
  Partial<Record<SentencePart, { readonly label: string; readonly control: ReactNode }>>
> = {
  place: { label: 'Format and place', control: <PlaceControl /> },
  moment: { label: 'Moment', control: <MomentControl /> },
  pages: { label: 'Pages', control: <PagesControl /> },
  devices: { label: 'Devices', control: <DevicesControl /> },
  caps: { label: 'How often', control: <CapsControl /> },
  afterClose: { label: 'After a close', control: <PauseControl after="afterClose" /> },
  afterConversion: { label: 'After a conversion', control: <PauseControl after="afterConversion" /> },
};

/** The campaign's whole behaviour in words; each phrase opens what changes it. */
export function SentenceBar() {
  const document = useWorkbench((state) => state.document);
  const phrases = useMemo(() => documentSentence(document), [document]);
  const text = sentenceText(phrases);
  const copy = () =>
    navigator.clipboard.writeText(text).then(
      () => tell('The sentence is on the clipboard.'),
      () => tell('The browser did not allow copying. Select the sentence and copy it by hand.'),
    );
  return (
    <section aria-label="Rule sentence" className="flex items-start gap-3 border-b border-line px-5 py-3">
      <p
        className="max-h-[5.4rem] flex-1 overflow-auto font-serif text-[1.22rem] leading-[1.5]"
        aria-live="polite"
      >
        {phrases.map((phrase, position) => (
          <PhraseWords key={phrase.part ?? `between-${position}`} phrase={phrase} />
        ))}
      </p>
      <IconButton label="Copy the sentence" onClick={copy}>
        <Copy size={15} aria-hidden />
      </IconButton>
    </section>
  );
}

function PhraseWords({ phrase: { text, part } }: { readonly phrase: Phrase }) {
  const known = part && CONTROLS[part];
  if (!known) return <span className={part ? undefined : 'text-soft'}>{text}</span>;
  const { label, control } = known;
  return (
    <Popover
      label={label}
      trigger={
        <button
          type="button"
          data-part={part}
          className="inline rounded-sm text-left underline decoration-sail/60 decoration-1 underline-offset-[5px] hover:bg-sail-wash hover:decoration-sail data-[state=open]:bg-sail-wash"
        >
          {text}
        </button>
      }
    >
      {control}
    </Popover>
  );
}
