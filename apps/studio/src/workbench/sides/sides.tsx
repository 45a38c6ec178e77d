import type { Message } from '@velarium/contract';
import { Accordion } from 'radix-ui';
import type { ReactNode } from 'react';
import { Slider } from '../../ui/slider.tsx';
import { BlockControl } from '../controls/block-control.tsx';
import { CapsControl } from '../controls/caps-control.tsx';
import { ColoursControl } from '../controls/colour-control.tsx';
import { DevicesControl } from '../controls/devices-control.tsx';
import { MomentControl } from '../controls/moment-control.tsx';
import { PagesControl } from '../controls/pages-control.tsx';
import { PauseControl } from '../controls/pause-control.tsx';
import { PlaceControl } from '../controls/place-control.tsx';
import { type Side, useWorkbench, useWorkbenchStore } from '../store.ts';

export const SIDES: readonly { readonly side: Side; readonly label: string; readonly question: string }[] = [
  { side: 'message', label: 'Message', question: 'what it says' },
  { side: 'moment', label: 'Moment', question: 'when it opens' },
  { side: 'reach', label: 'Reach', question: 'where and on what' },
  { side: 'limits', label: 'Limits', question: 'how often' },
];

/** The four sides of a campaign as drawers: one open, the others in sight. */
export function Sides() {
  const { openSide } = useWorkbenchStore().getState();
  const side = useWorkbench((state) => state.side);
  return (
    <Accordion.Root
      type="single"
      value={side}
      onValueChange={(next) => next && openSide(next as Side)}
      className="flex min-h-0 flex-col border-l border-line"
    >
      {SIDES.map(({ side: one, label, question }, position) => (
        <Accordion.Item
          key={one}
          value={one}
          className="flex min-h-0 flex-col border-b border-line data-[state=open]:flex-1"
        >
          <Accordion.Header>
            <Accordion.Trigger className="group flex h-10 w-full items-baseline gap-3 px-4 pt-2.5 text-left hover:bg-sail-wash data-[state=open]:hover:bg-transparent">
              <span className="font-serif text-lg leading-none group-data-[state=open]:text-sail">
                {label}
              </span>
              <span className="text-xs text-soft">{question}</span>
              <kbd className="ml-auto text-xs text-soft">{position + 1}</kbd>
            </Accordion.Trigger>
          </Accordion.Header>
          <Accordion.Content className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)] content-start gap-5 overflow-auto px-4 pt-1 pb-5">
            {CONTENT[one]}
          </Accordion.Content>
        </Accordion.Item>
      ))}
    </Accordion.Root>
  );
}

const CONTENT: Readonly<Record<Side, ReactNode>> = {
  message: <MessageSide />,
  moment: <MomentControl />,
  reach: (
    <>
      <PagesControl />
      <DevicesControl />
    </>
  ),
  limits: (
    <>
      <CapsControl />
      <PauseControl after="afterClose" />
      <PauseControl after="afterConversion" />
    </>
  ),
};

const STEP_NAME: Readonly<Record<Message['steps'][number]['role'], string>> = {
  first: 'First step',
  success: 'After it is sent',
};

function MessageSide() {
  const { editMessage, showStep } = useWorkbenchStore().getState();
  const message = useWorkbench((state) => state.document.message);
  const stepId = useWorkbench((state) => state.stepId);
  const hasWidth = message.format !== 'bar' && message.format !== 'fullscreen';
  return (
    <>
      {message.steps.length > 1 && (
        <fieldset className="flex gap-px border border-line-strong">
          <legend className="sr-only">Steps</legend>
          {message.steps.map(({ id, role }) => (
            <button
              key={id}
              type="button"
              aria-pressed={id === stepId}
              onClick={() => showStep(id)}
              className="h-8 flex-1 hover:bg-sail-wash aria-pressed:bg-ink aria-pressed:text-sheet"
            >
              {STEP_NAME[role]}
            </button>
          ))}
        </fieldset>
      )}
      <BlockControl />
      <PlaceControl />
      {hasWidth && (
        <Slider
          label="Width"
          value={message.width}
          min={240}
          max={900}
          step={10}
          unit="px"
          onChange={(width) => editMessage((old) => ({ ...old, width }), 'width')}
        />
      )}
      <ColoursControl />
    </>
  );
}
