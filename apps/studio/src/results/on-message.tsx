import { useQuery } from '@tanstack/react-query';
import type { Device } from '@velarium/contract';
import { counted, type DoneThere, doneOnMessage, figure, percent, stepName, WINDOW_OF } from '@velarium/core';
import { useState, useSyncExternalStore } from 'react';
import type { CampaignFound } from '../api/results.ts';
import { frozenFileQuery, versionQuery } from '../api/versions.ts';
import { Segments } from '../ui/segments.tsx';
import { BLOCK_WORDS, blockWords } from '../workbench/message/block-names.tsx';
import { StageFrame } from '../workbench/stage/stage-frame.tsx';

/** The room for the window of each device, CSS pixels. */
const ROOM: Readonly<Record<Device, { readonly width: number; readonly height: number }>> = {
  desktop: { width: 640, height: 400 },
  tablet: { width: 400, height: 500 },
  mobile: { width: 260, height: 500 },
};
/** What a narrow window leaves beside it. */
const BESIDE = 40;

interface OnMessageProps {
  readonly results: CampaignFound;
}

/** What was clicked and written, drawn on the message as visitors had it, and in words beside it. */
export function OnMessage({ results }: OnMessageProps) {
  const [device, setDevice] = useState<Device>('desktop');
  const [chosen, setChosen] = useState<string>();
  const [ofVariant, setVariant] = useState<string>();
  const latest = results.versions[0]?.version ?? null;
  const { data: version } = useQuery(versionQuery(results.id, latest));
  // Only of those that this version has there is a message to draw it on.
  const had = results.onMessage.filter(({ variant }) =>
    version?.files.some((one) => one.variant === variant),
  );
  const done = had.find(({ variant }) => variant === ofVariant) ?? had[0];
  const hash = version?.files.find(({ variant }) => variant === done?.variant)?.hash;
  const { data: file } = useQuery(frozenFileQuery(results.id, hash));
  if (!done || !file || !version) return null;
  const { message } = file;
  const { places, elsewhere } = doneOnMessage(message, done);
  const steps = message.steps.filter(({ id }) => places.some(({ step }) => step === id));
  const step = steps.find(({ id }) => id === chosen)?.id ?? steps[0]?.id;
  const here = places.filter((one) => one.step === step);
  return (
    <section aria-label="On the message itself" className="grid gap-3">
      <div className="flex flex-wrap items-end gap-4">
        <h2 className="mr-auto font-serif text-xl">On the message itself</h2>
        {had.length > 1 && (
          <Segments
            label="Variant"
            value={done.variant}
            onChange={setVariant}
            options={had.map(({ variant }) => ({ value: variant, label: variant.toUpperCase() }))}
          />
        )}
        {steps.length > 1 && step && (
          <Segments
            label="Step"
            value={step}
            onChange={setChosen}
            options={steps.map(({ id }) => ({ value: id, label: stepName(message, id) }))}
          />
        )}
        <div className="w-40">
          <Segments<Device>
            label="Device"
            value={device}
            onChange={setDevice}
            options={[
              { value: 'desktop', label: 'Desktop' },
              { value: 'mobile', label: 'Phone' },
            ]}
          />
        </div>
      </div>
      <div className="grid items-start gap-8 lg:grid-cols-[auto_1fr]">
        <Drawn
          key={`${device} ${step} ${done.variant}`}
          file={file}
          device={device}
          step={step ?? ''}
          here={here}
        />
        <div className="grid content-start gap-2">
          <ol>
            {here.map((one, n) => (
              <li
                key={`${one.part} ${one.field ? 'field' : ''}`}
                className="flex gap-3 border-b border-line py-2"
              >
                <Mark number={n + 1} />
                <span className="grid flex-1">
                  <span className="font-medium">{nameOf(one)}</span>
                  <span className="text-xs text-soft">{whatWasDone(one)}</span>
                </span>
                <span className="text-right tabular-nums">
                  <b className="font-semibold">{figure(one.visitors)}</b>
                  <span className="block text-xs text-soft">{percent(one.share)} of those who saw it</span>
                </span>
              </li>
            ))}
          </ol>
          <p className="text-xs text-soft">
            Visitors of these days, on version {version.version} as they had it.
            {elsewhere > 0 &&
              ` Something was done as well on ${counted(elsewhere, 'part')} that this version does not have.`}
          </p>
        </div>
      </div>
    </section>
  );
}

const nameOf = ({ block, field }: DoneThere): string =>
  field
    ? `“${field.label || 'A field'}”`
    : `${BLOCK_WORDS[block.kind]} ${blockWords(block) && `“${blockWords(block)}”`}`.trim();

const whatWasDone = ({ field, gaveUp }: DoneThere): string =>
  !field
    ? 'was clicked'
    : gaveUp === 0
      ? 'was written into'
      : `was written into; ${figure(gaveUp)} of them went no further and sent nothing`;

/** A number that stands on the message and before its line. */
const Mark = ({ number }: { readonly number: number }) => (
  <span
    aria-hidden="true"
    className="grid size-6 flex-none place-items-center rounded-full border border-paper bg-ink text-xs font-semibold text-paper"
  >
    {number}
  </span>
);

interface DrawnProps {
  readonly file: Parameters<typeof StageFrame>[0]['frozen'] & object;
  readonly device: Device;
  readonly step: string;
  readonly here: readonly DoneThere[];
}

const onResize = (tell: () => void) => {
  window.addEventListener('resize', tell);
  return () => window.removeEventListener('resize', tell);
};

/** The window of a device with the message in it, and over it where each thing was done. */
function Drawn({ file, device, step, here }: DrawnProps) {
  const [boxes, setBoxes] = useState<ReadonlyMap<string, DOMRect>>(new Map());
  const { height } = ROOM[device];
  const windowWidth = useSyncExternalStore(onResize, () => window.innerWidth);
  const width = Math.min(ROOM[device].width, windowWidth - BESIDE);
  const size = WINDOW_OF[device];
  const scale = Math.min(width / size.width, height / size.height);
  const selectorOf = ({ part, field }: DoneThere) => `[data-${field ? 'field' : 'block'}="${part}"]`;
  return (
    <div className="relative w-fit max-w-full overflow-hidden" inert>
      <StageFrame
        message={file.message}
        frozen={file}
        device={device}
        width={width}
        height={height}
        stepId={step}
        onDrawn={({ root }) =>
          setBoxes(
            new Map(
              here.flatMap((one) => {
                const box = root.querySelector(selectorOf(one))?.getBoundingClientRect();
                return box && box.width > 0 ? [[selectorOf(one), box]] : [];
              }),
            ),
          )
        }
      />
      {here.map((one, n) => {
        const box = boxes.get(selectorOf(one));
        return (
          box && (
            <span
              key={selectorOf(one)}
              data-part={one.part}
              className="absolute rounded-sm outline-2 outline-offset-2 outline-sail"
              style={{
                left: box.left * scale,
                top: box.top * scale,
                width: box.width * scale,
                height: box.height * scale,
              }}
            >
              <span className="absolute top-1/2 -left-9 -translate-y-1/2">
                <Mark number={n + 1} />
              </span>
            </span>
          )
        );
      })}
    </div>
  );
}
