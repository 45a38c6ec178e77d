import type { Device, Message } from '@velarium/contract';
import { type MeasuredStep, WINDOW_OF } from '@velarium/core';
import { belowEdge } from '@velarium/render';
import { useEffect, useState } from 'react';
import { drawStill, EMPTY_PAGE, type StillOptions } from './draw-still.ts';
import { type Design, useDesign } from './use-design.ts';

/** Who still types is not measured after. */
const SETTLED_MS = 400;
/** Longest that pictures are waited for. */
const PICTURES_MS = 3000;
const NOTHING: readonly MeasuredStep[] = [];

/** What is measured: messages of one campaign, each in a language of its own, in a window of each of its devices. */
export interface Wanted {
  readonly messages: readonly { readonly message: Message; readonly language?: string | undefined }[];
  readonly devices: readonly Device[];
}

/** Of each wanted, of each message. */
type Measured = readonly (readonly (readonly MeasuredStep[])[])[];

/** Measures every step of every message, in windows that nobody sees. Keep the list. */
export function useMeasured(
  siteId: string,
  wanted: readonly Wanted[],
  settledMs = SETTLED_MS,
): { readonly measured: Measured; readonly isDone: boolean } {
  const design = useDesign(siteId);
  const [last, setLast] = useState<{
    readonly of?: readonly Wanted[];
    readonly by?: Design;
    readonly measured: Measured;
  }>({ measured: [] });
  useEffect(() => {
    if (design.isPending) return;
    const stop = new AbortController();
    const measure = async ({ message, language }: Wanted['messages'][number], devices: readonly Device[]) => {
      const all = await Promise.all(
        // What cannot be drawn here is not measured; the rest is.
        devices.map((device) =>
          measureOn(message, { device, design, language }, stop.signal).catch(() => NOTHING),
        ),
      );
      return all.flat();
    };
    const timer = setTimeout(async () => {
      const all: (readonly MeasuredStep[])[][] = [];
      for (const { messages, devices } of wanted)
        all.push(await Promise.all(messages.map((one) => measure(one, devices))));
      if (!stop.signal.aborted) setLast({ of: wanted, by: design, measured: all });
    }, settledMs);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [wanted, design, settledMs]);
  // What was measured last stands until all of this is.
  return { measured: last.measured, isDone: last.of === wanted && last.by === design };
}

async function measureOn(
  message: Message,
  options: StillOptions,
  signal: AbortSignal,
): Promise<readonly MeasuredStep[]> {
  const { device } = options;
  const { width, height } = WINDOW_OF[device];
  const frame = document.createElement('iframe');
  frame.ariaHidden = 'true';
  frame.title = 'Measuring';
  frame.tabIndex = -1;
  frame.srcdoc = EMPTY_PAGE;
  frame.style.cssText = `position:fixed;inset:0 auto auto 0;border:0;visibility:hidden;pointer-events:none;z-index:-1;width:${width}px;height:${height}px`;
  try {
    await new Promise((loaded) => {
      frame.onload = loaded;
      document.body.append(frame);
    });
    const inside = frame.contentDocument;
    if (signal.aborted || !inside) return NOTHING;
    const drawn = drawStill(inside, message, options);
    // A picture or the letters may be what says how high the box is; what does not come is measured as visitors would see it.
    const pictures = [...drawn.root.querySelectorAll('img')].map((image) => image.decode().catch(() => {}));
    const letters = inside.fonts.ready;
    await Promise.race([
      Promise.all([...pictures, letters]),
      new Promise((late) => setTimeout(late, PICTURES_MS)),
    ]);
    if (signal.aborted) return NOTHING;
    return message.steps.map(({ id }) => {
      drawn.showStep(id);
      return { device, step: id, ...belowEdge(drawn) };
    });
  } finally {
    frame.remove();
  }
}
