import { documentSentence, type Phrase, type SentencePart, sentenceText } from '@velarium/core';
import { Copy } from 'lucide-react';
import { type ReactNode, useMemo } from 'react';
import { useNames } from '../board/use-names.ts';
import { ReachLine } from '../forecast/reach-line.tsx';
import { IconButton } from '../ui/button.tsx';
import { copy } from '../ui/copy.ts';
import { Popover } from '../ui/popover.tsx';
import { AudienceControl } from './controls/audience/audience-control.tsx';
import { DevicesControl } from './controls/devices-control.tsx';
import { CapsControl } from './controls/limits/caps-control.tsx';
import { HoldoutControl, MemoryControl } from './controls/limits/counting-control.tsx';
import { OrderControl } from './controls/limits/order-control.tsx';
import { ScheduleControl } from './controls/limits/schedule-control.tsx';
import { TrialControl } from './controls/limits/trial-control.tsx';
import { MomentControl } from './controls/moment/moment-control.tsx';
import { PagesControl } from './controls/pages/pages-control.tsx';
import { PauseControl } from './controls/pause-control.tsx';
import { PlaceControl } from './controls/place-control.tsx';
import { ClosingControl } from './message/box/close-fold.tsx';
import { hasEdits, useWorkbench, useWorkbenchLater } from './store.ts';
import { useWishes } from './use-wishes.ts';

/** What each phrase opens. */
const CONTROLS: Readonly<Record<SentencePart, { readonly label: string; readonly control: ReactNode }>> = {
  place: { label: 'Format and place', control: <PlaceControl /> },
  moment: { label: 'Moment', control: <MomentControl /> },
  pages: { label: 'Pages', control: <PagesControl /> },
  devices: { label: 'Devices', control: <DevicesControl /> },
  audience: { label: 'Audience', control: <AudienceControl /> },
  schedule: { label: 'Schedule', control: <ScheduleControl /> },
  busy: { label: 'Beside other campaigns', control: <OrderControl /> },
  priority: { label: 'Beside other campaigns', control: <OrderControl /> },
  memory: { label: 'Without memory', control: <MemoryControl /> },
  experiment: {
    label: 'Experiment',
    control: (
      <div className="grid gap-4">
        <HoldoutControl />
        <TrialControl />
      </div>
    ),
  },
  closing: { label: 'Way out', control: <ClosingControl /> },
  caps: { label: 'How often', control: <CapsControl /> },
  afterClose: { label: 'After a close', control: <PauseControl after="afterClose" /> },
  afterNo: { label: 'After a no', control: <PauseControl after="afterNo" /> },
  afterConversion: { label: 'After a conversion', control: <PauseControl after="afterConversion" /> },
};

/** The campaign's whole behaviour in words; each phrase opens what changes it. */
export function SentenceBar() {
  useWishes();
  const document = useWorkbenchLater((state) => state.document);
  const isEdited = useWorkbench(hasEdits);
  const names = useNames(useWorkbench((state) => state.siteId));
  const phrases = useMemo(() => documentSentence(document, names), [document, names]);
  const text = sentenceText(phrases);
  const copySentence = () =>
    copy(text, {
      said: 'The sentence is on the clipboard.',
      byHand: 'Select the sentence and copy it by hand.',
    });
  return (
    <div className="border-b border-line">
      <section aria-label="Rule sentence" className="flex items-start gap-3 px-5 pt-3 pb-1 max-lg:pb-3">
        <p
          className="max-h-[5.625rem] flex-1 overflow-auto font-serif text-xl leading-[1.5]"
          aria-live="polite"
        >
          {isEdited && <span className="text-hold">With the edits: </span>}
          {phrases.map((phrase, position) => (
            <PhraseWords key={phrase.part ?? `between-${position}`} phrase={phrase} />
          ))}
        </p>
        <IconButton label="Copy the sentence" onClick={copySentence}>
          <Copy size={15} aria-hidden />
        </IconButton>
      </section>
      <ReachLine />
    </div>
  );
}

function PhraseWords({ phrase: { text, part } }: { readonly phrase: Phrase }) {
  if (part === null) return <span className="text-soft">{text}</span>;
  const { label, control } = CONTROLS[part];
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
