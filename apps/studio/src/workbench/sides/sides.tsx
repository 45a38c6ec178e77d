import { type ReactNode, useId } from 'react';
import { Fold } from '../../ui/fold.tsx';
import { ReadOnly } from '../../ui/read-only.ts';
import { AudienceControl } from '../controls/audience/audience-control.tsx';
import { DevicesControl } from '../controls/devices-control.tsx';
import { CapsControl } from '../controls/limits/caps-control.tsx';
import { AfreshControl, HoldoutControl, MemoryControl } from '../controls/limits/counting-control.tsx';
import { OrderControl } from '../controls/limits/order-control.tsx';
import { ScheduleControl } from '../controls/limits/schedule-control.tsx';
import { TrialControl } from '../controls/limits/trial-control.tsx';
import { MomentControl } from '../controls/moment/moment-control.tsx';
import { PagesControl } from '../controls/pages/pages-control.tsx';
import { PauseControl } from '../controls/pause-control.tsx';
import { MessageSide } from '../message/message-side.tsx';
import { type Side, useWorkbench, useWorkbenchStore } from '../store.ts';

export const SIDES: readonly { readonly side: Side; readonly label: string; readonly question: string }[] = [
  { side: 'message', label: 'Message', question: 'what it says' },
  { side: 'moment', label: 'Moment', question: 'when it opens' },
  { side: 'reach', label: 'Reach', question: 'where and on what' },
  { side: 'limits', label: 'Limits', question: 'how often' },
];

/** The four sides of a campaign: one open, the others a press away. */
export function Sides() {
  const { openSide } = useWorkbenchStore().getState();
  const side = useWorkbench((state) => state.side);
  const canEdit = useWorkbench((state) => state.canEdit);
  const id = useId();
  const label = SIDES.find((one) => one.side === side)?.label;
  return (
    <div className="flex min-h-0 min-w-0 flex-col border-line lg:border-l">
      <div className="flex border-b border-line px-2">
        {SIDES.map(({ side: one, label: name, question }, position) => (
          <button
            key={one}
            type="button"
            title={`${question} (${position + 1})`}
            aria-expanded={one === side}
            aria-controls={one === side ? id : undefined}
            onClick={() => openSide(one)}
            className="-mb-px h-10 flex-1 rounded-t border-b-2 border-transparent font-serif text-lg leading-none text-soft hover:bg-sail-wash aria-expanded:border-sail aria-expanded:text-ink"
          >
            {name}
          </button>
        ))}
      </div>
      <section
        // A side begins at its top, wherever the one before was scrolled to.
        key={side}
        id={id}
        aria-label={label}
        className="grid min-h-0 flex-1 content-start gap-5 overflow-y-auto px-4 pt-4 pb-6"
      >
        <ReadOnly value={!canEdit}>{CONTENT[side]}</ReadOnly>
      </section>
    </div>
  );
}

const CONTENT: Readonly<Record<Side, ReactNode>> = {
  message: <MessageSide />,
  moment: <MomentControl />,
  reach: (
    <>
      <PagesControl />
      <DevicesControl />
      <AudienceControl />
    </>
  ),
  limits: (
    <>
      <CapsControl />
      <div>
        <Fold title="Stays away">
          <PauseControl after="afterClose" />
          <PauseControl after="afterNo" />
          <PauseControl after="afterConversion" />
        </Fold>
        <Fold title="Schedule">
          <ScheduleControl />
        </Fold>
        <Fold title="Beside other campaigns">
          <OrderControl />
        </Fold>
        <Fold title="Memory and counting">
          <MemoryControl />
          <HoldoutControl />
          <AfreshControl />
        </Fold>
        <Fold title="Experiment">
          <TrialControl />
        </Fold>
      </div>
    </>
  ),
};
