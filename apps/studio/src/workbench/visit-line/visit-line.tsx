import { useQuery } from '@tanstack/react-query';
import type { Device } from '@velarium/contract';
import { momentMarks, type PlacedTrigger, shareAt, triggerWords } from '@velarium/core';
import { Pause, Play, Square } from 'lucide-react';
import { useState } from 'react';
import { groupsQuery } from '../../api/queries.ts';
import { useCommands } from '../../app/commands.ts';
import { Button, IconButton } from '../../ui/button.tsx';
import { cx } from '../../ui/cx.ts';
import { Mark } from '../../ui/mark.tsx';
import { Select } from '../../ui/select.tsx';
import { TRIGGER_KINDS } from '../controls/moment/trigger-kinds.tsx';
import { useMoment, useMomentEdits } from '../controls/moment/use-moment.ts';
import { useWorkbench } from '../store.ts';
import { curveWords } from './curve-words.ts';
import { clock, percent, scaleFor, ticksOf } from './scale.ts';
import { Strip } from './strip.tsx';
import { type CurveChoice, useCurves } from './use-curves.ts';
import { useRun } from './use-run.ts';

const DEPTH_TICKS = [0, 25, 50, 75, 100].map((at) => ({ at, words: `${at} %` }));
const DEVICE_OPTIONS: readonly { readonly value: Device | 'any'; readonly label: string }[] = [
  { value: 'any', label: 'on any device' },
  { value: 'desktop', label: 'on desktops' },
  { value: 'tablet', label: 'on tablets' },
  { value: 'mobile', label: 'on phones' },
];

/**
 * A visit from arrival on, in seconds and in depth, over the site's own curves. Triggers that have a place on it are
 * marks; the others are named beside it.
 */
export function VisitLine() {
  // While one works on something else the line stays in sight, without its explanations.
  const isInFocus = useWorkbench((state) => state.side === 'moment');
  const canEdit = useWorkbench((state) => state.canEdit);
  const moment = useMoment();
  const { join, triggers, notBeforeSeconds, againAfterSeconds } = moment;
  const edits = useMomentEdits();
  const [choice, setChoice] = useState<CurveChoice>({ of: 'covered', device: 'any' });
  const curves = useCurves(choice);
  const { data: groups = [] } = useQuery(groupsQuery(useWorkbench((state) => state.siteId)));
  const [held, setHeld] = useState<number | null>(null);
  const play = useRun();

  const { timed, scrolled, others, decidingSecond, lastSecond } = momentMarks(moment);
  const scale = held ?? scaleFor(lastSecond);
  const addTime = () =>
    edits.add({ kind: 'time', seconds: Math.min(scale - 1, Math.round(lastSecond + 10)) });
  const addDepth = () => edits.add({ kind: 'scroll', unit: 'percent', amount: 50 });
  useCommands('Visit line', [
    ...(canEdit
      ? [
          { id: 'mark.time', label: 'Add a time mark', keys: 'm', run: addTime },
          { id: 'mark.depth', label: 'Add a depth mark', keys: 'k', run: addDepth },
          {
            id: 'mark.join',
            label: join === 'any' ? 'Wait for all marks' : 'The first mark opens it',
            keys: 'j',
            run: () => edits.change({ join: join === 'any' ? 'all' : 'any' }, 'join'),
          },
        ]
      : []),
    {
      id: 'visit.play',
      label: play.isPlaying ? 'Hold the visit' : 'Play the visit',
      keys: 'l',
      run: play.toggle,
    },
  ]);

  const height = isInFocus ? 76 : 44;
  const columns =
    others.length > 0 || play.run
      ? 'grid-cols-[2rem_minmax(0,3fr)_minmax(0,1.35fr)_minmax(0,11rem)]'
      : 'grid-cols-[2rem_minmax(0,3fr)_minmax(0,1.35fr)]';
  const remove = (at: number) => (triggers.length > 1 && canEdit ? () => edits.remove(at) : undefined);
  return (
    <section aria-label="Visit line" className="border-t border-line px-5 pt-2 pb-1.5">
      {isInFocus && (
        <div className="mb-1.5 flex min-h-7 items-center gap-2 max-lg:flex-wrap">
          <h2 className="font-medium">A visit</h2>
          <Select
            label="Curves of"
            isLabelHidden
            className="w-36"
            value={choice.of}
            options={[
              { value: 'covered', label: 'to these pages' },
              { value: 'site', label: 'to the whole site' },
              ...groups.map(({ id, name }) => ({ value: id, label: `to ${name}` })),
            ]}
            onChange={(of) => setChoice({ ...choice, of })}
          />
          <Select
            label="Curves on"
            isLabelHidden
            className="w-36"
            value={choice.device}
            options={DEVICE_OPTIONS}
            onChange={(device) => setChoice({ ...choice, device })}
          />
          <p aria-live="polite" className="min-w-0 flex-1 truncate text-soft">
            {curveWords(
              curves,
              choice,
              groups.find(({ id }) => id === choice.of)?.name,
              decidingSecond,
              scrolled[0]?.trigger.amount,
            )}
          </p>
          {canEdit && (
            <>
              <Button tone="quiet" className="h-7 px-2" onClick={addTime}>
                + Time mark
              </Button>
              <Button tone="quiet" className="h-7 px-2" onClick={addDepth}>
                + Depth mark
              </Button>
            </>
          )}
        </div>
      )}
      <div className={cx('grid gap-x-4', columns)}>
        <div className="grid justify-items-start">
          <IconButton label={play.isPlaying ? 'Hold the visit' : 'Play the visit'} onClick={play.toggle}>
            {play.isPlaying ? <Pause size={15} aria-hidden /> : <Play size={15} aria-hidden />}
          </IconButton>
          {play.run && (
            <IconButton label="End the visit" onClick={play.stop}>
              <Square size={13} aria-hidden />
            </IconButton>
          )}
        </div>
        <Strip
          title="The visit by seconds"
          max={scale}
          height={height}
          ticks={ticksOf(scale).map((at) => ({ at, words: at === 0 ? 'arrival' : clock(at) }))}
          curve={curves.seconds}
          cursor={play.run?.seconds ?? null}
          shades={[
            ...(notBeforeSeconds > 0
              ? [{ from: 0, to: notBeforeSeconds, words: `Nothing opens before ${clock(notBeforeSeconds)}` }]
              : []),
            ...(againAfterSeconds !== null && decidingSecond !== null
              ? [
                  {
                    from: decidingSecond,
                    to: decidingSecond + againAfterSeconds,
                    words: `Not again for ${againAfterSeconds} s after it is gone`,
                  },
                ]
              : []),
          ]}
        >
          {timed.map(({ trigger, at }, lane) => {
            const { seconds: value } = trigger;
            const share = shareAt(curves.seconds, value);
            return (
              <Mark
                key={at}
                label={TRIGGER_KINDS.time.label}
                value={value}
                max={scale}
                lane={lane % 3}
                isSecond={timed.length > 1 && value !== decidingSecond}
                words={`${triggerWords(trigger)}${share === undefined ? '' : ` · ${percent(share)} still here`}`}
                onChange={(next) => canEdit && edits.setTrigger(at, { kind: 'time', seconds: next })}
                onRemove={remove(at)}
                onHold={(isHeld) => setHeld(isHeld ? scale : null)}
              />
            );
          })}
        </Strip>
        <Strip
          title="The visit by depth"
          max={100}
          height={height}
          ticks={DEPTH_TICKS}
          curve={curves.depth}
          cursor={play.run?.depth ?? null}
          shades={[]}
        >
          {scrolled.map(({ trigger, at }, lane) => {
            const { amount: value } = trigger;
            const share = shareAt(curves.depth, value);
            return (
              <Mark
                key={at}
                label={TRIGGER_KINDS.scroll.label}
                value={value}
                max={100}
                lane={lane % 3}
                isSecond={false}
                words={`${value} %${share === undefined ? '' : ` · ${percent(share)} get here`}`}
                onChange={(amount) =>
                  canEdit && edits.setTrigger(at, { kind: 'scroll', unit: 'percent', amount })
                }
                onRemove={remove(at)}
                onHold={() => {}}
              />
            );
          })}
        </Strip>
        <Signs others={others} join={join} hasMarks={timed.length + scrolled.length > 0} />
      </div>
      {play.run && (
        <div className="mt-1 grid grid-cols-[2rem_minmax(0,3fr)_minmax(0,1.35fr)_minmax(0,11rem)] items-center gap-x-4 text-xs">
          <span className="tabular-nums">{clock(play.run.seconds)}</span>
          <input
            type="range"
            aria-label="Second of the visit"
            min={0}
            max={scale}
            step={0.5}
            value={Math.min(scale, play.run.seconds)}
            onChange={(event) => play.putSeconds(event.target.valueAsNumber)}
            className="w-full accent-ink"
          />
          <input
            type="range"
            aria-label="Depth reached in the visit"
            min={0}
            max={100}
            value={play.run.depth}
            onChange={(event) => play.putDepth(event.target.valueAsNumber)}
            className="w-full accent-ink"
          />
          <span
            aria-live="polite"
            className={play.run.state === 'open' ? 'font-semibold text-sail' : 'text-soft'}
          >
            {RUN_WORDS[play.run.state]}
          </span>
        </div>
      )}
    </section>
  );
}

const RUN_WORDS = { waiting: '○ Not yet', open: '● It is open', gone: '◌ It has closed by itself' } as const;

/** Triggers without a place on the line, and how all of them are joined. */
function Signs({
  others,
  join,
  hasMarks,
}: {
  readonly others: readonly PlacedTrigger[];
  readonly join: 'any' | 'all';
  readonly hasMarks: boolean;
}) {
  if (others.length === 0) return null;
  return (
    <ul aria-label="Signs without a place on the line" className="min-w-0 overflow-hidden text-xs">
      {others.slice(0, 3).map(({ trigger, at }, n) => {
        const { sign: Sign } = TRIGGER_KINDS[trigger.kind];
        return (
          <li key={at} className="flex h-5 items-center gap-1.5">
            <Sign size={12} aria-hidden className="flex-none text-sail" />
            <span className="truncate" title={triggerWords(trigger)}>
              {hasMarks || n > 0 ? (join === 'any' ? 'or ' : 'and ') : ''}
              {triggerWords(trigger)}
            </span>
          </li>
        );
      })}
      {others.length > 3 && <li className="text-soft">and {others.length - 3} more</li>}
    </ul>
  );
}
