import { DEVICE_WORDS, languageName, languagesOf, WINDOW_OF } from '@velarium/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { cx } from '../../ui/cx.ts';
import { useGlide } from '../../ui/glide.ts';
import { SAMPLE_VISITORS } from '../message/personal-hint.tsx';
import { useWorkbench, useWorkbenchStore } from '../store.ts';
import { StageBar } from './stage-bar.tsx';
import { StageFrame } from './stage-frame.tsx';
import { useGround } from './use-ground.ts';
import { useInSight } from './use-in-sight.ts';

const GAP = 28;
const PADDING = 24;
/** Room for a line below a window, and for one more where it has more to say. */
const [CAPTION, MORE] = [24, 16];
/** How large a real window stands in the zoom "real". */
const REAL = 1;

/** Desktop and phone side by side, or a tablet, as large as the room allows, over a page of the site. */
export function Stage() {
  const store = useWorkbenchStore();
  const message = useWorkbench((state) => state.tried ?? state.document.message);
  const pages = useWorkbench((state) => state.document.rule.reach.pages);
  const devices = useWorkbench((state) => state.document.rule.reach.devices);
  const stepId = useWorkbench((state) => state.stepId);
  const selectedBlock = useWorkbench((state) => state.selectedBlock);
  const view = useWorkbench((state) => state.stage);
  const scope = useWorkbench((state) => state.scope);
  const ground = useGround(
    useWorkbench((state) => state.siteId),
    pages,
  );
  const glide = useGlide(store.getState().siteId, store.getState().id);
  const room = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });

  useEffect(() => {
    const element = room.current;
    if (!element) return;
    const observer = new ResizeObserver(
      ([entry]) => entry && setSize({ width: entry.contentRect.width, height: entry.contentRect.height }),
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const isReal = view.zoom === 'real';
  const { scroller, onDrawn } = useInSight(isReal);
  const pageAddress = view.ground === 'page' ? ground.address : undefined;

  const isToldMore = (['desktop', 'mobile'] as const).some((device) => !devices.includes(device));
  const height = size.height - CAPTION - (isToldMore ? MORE : 0);
  const phoneWidth = Math.min((height / WINDOW_OF.mobile.height) * WINDOW_OF.mobile.width, size.width * 0.28);
  const edit = useMemo(
    () => ({ onEdit: store.getState().editMessage, onSelect: store.getState().select }),
    [store],
  );
  const factOf = useMemo(() => {
    const facts = view.visitor === null ? undefined : SAMPLE_VISITORS[view.visitor]?.facts;
    return facts ? (name: string) => (facts as Readonly<Record<string, string>>)[name] ?? '' : null;
  }, [view.visitor]);
  // Texts that are filled in for somebody are for looking at: typing would write the person's name into the message.
  const language =
    view.language !== null && languagesOf(message).includes(view.language) ? view.language : undefined;
  const isTranslation = language !== undefined && language !== message.languages?.original;
  // Other languages are written beside the original, under Languages.
  const canType = store.getState().canEdit && factOf === null && !isTranslation;
  const frames =
    view.shows === 'tablet'
      ? ([{ device: 'tablet', caption: 'Tablet, 820 by 1180', width: size.width }] as const)
      : ([
          { device: 'desktop', caption: 'Desktop, 1280 by 800', width: size.width - phoneWidth - GAP },
          { device: 'mobile', caption: 'Phone, 390 by 844', width: phoneWidth },
        ] as const);
  return (
    <section
      aria-label="Stage"
      className="grid min-h-0 min-w-0 grid-rows-[auto_1fr] bg-line/35"
      style={glide('message')}
    >
      <StageBar ground={pageAddress ? ground.words : ''} />
      <div
        ref={scroller}
        className="min-h-0 min-w-0 overflow-auto"
        style={{ padding: `0 ${PADDING}px 10px` }}
      >
        <div
          ref={room}
          className={cx('flex size-full items-start', !isReal && 'justify-center')}
          style={{ gap: GAP }}
        >
          {height > 0 &&
            frames.map(({ device, caption, width }) => (
              <figure
                key={device}
                className={cx(
                  'grid flex-none gap-1',
                  scope === device && 'rounded outline-2 outline-offset-4 outline-sail',
                )}
              >
                <StageFrame
                  message={message}
                  device={device}
                  width={width}
                  height={height}
                  stepId={stepId}
                  selectedBlock={selectedBlock}
                  pageAddress={pageAddress}
                  isMessageHidden={view.isMessageHidden}
                  isDark={view.isDark}
                  factOf={factOf}
                  language={language}
                  {...(isReal ? { scale: REAL } : {})}
                  {...(device === 'mobile' ? {} : { onDrawn })}
                  {...(canType ? { edit } : {})}
                />
                <figcaption className="w-0 min-w-full text-xs text-soft">
                  {caption}{' '}
                  {scope === device && <strong className="ml-2 font-medium text-sail">▸ being set</strong>}
                  {isTranslation && <span className="ml-2">in {languageName(language)}</span>}
                  {!devices.includes(device) && (
                    <strong className="inline-block font-medium text-hold">
                      ◇ never shown on {DEVICE_WORDS[device]}s
                    </strong>
                  )}
                </figcaption>
              </figure>
            ))}
        </div>
      </div>
    </section>
  );
}
