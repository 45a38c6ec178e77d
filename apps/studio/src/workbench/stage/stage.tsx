import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { sitesQuery } from '../../api/queries.ts';
import { useWorkbench, useWorkbenchStore } from '../store.ts';
import { STAGE_SIZES } from './devices.ts';
import { StageFrame } from './stage-frame.tsx';

const GAP = 28;
const PADDING = 24;
const CAPTION = 24;

/** Desktop and phone side by side, as large as the room allows, over a page of the site. */
export function Stage() {
  const store = useWorkbenchStore();
  const message = useWorkbench((state) => state.document.message);
  const include = useWorkbench((state) => state.document.rule.reach.pages.include);
  const stepId = useWorkbench((state) => state.stepId);
  const selectedBlock = useWorkbench((state) => state.selectedBlock);
  const siteId = useWorkbench((state) => state.siteId);
  const { data: sites } = useQuery(sitesQuery);
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

  const origin = sites?.find(({ id }) => id === siteId)?.origins[0];
  const first = include.find((page) => page.kind === 'exact');
  const address = first?.kind === 'exact' ? first.address : '/';
  const pageAddress = origin && (address.startsWith('/') ? origin + address : address);

  const height = size.height - CAPTION;
  const phoneWidth = Math.min(
    (height / STAGE_SIZES.mobile.height) * STAGE_SIZES.mobile.width,
    size.width * 0.28,
  );
  const edit = {
    onEdit: store.getState().editMessage,
    onSelect: store.getState().select,
  };
  const frames = [
    { device: 'desktop', caption: 'Desktop, 1280 by 800', width: size.width - phoneWidth - GAP },
    { device: 'mobile', caption: 'Phone, 390 by 844', width: phoneWidth },
  ] as const;
  return (
    <section
      aria-label="Stage"
      className="min-h-0 min-w-0 bg-line/35"
      style={{ padding: PADDING, paddingBottom: 10 }}
    >
      <div ref={room} className="flex size-full items-center justify-center" style={{ gap: GAP }}>
        {height > 0 &&
          frames.map(({ device, caption, width }) => (
            <figure key={device} className="grid gap-1">
              <StageFrame
                message={message}
                device={device}
                width={width}
                height={height}
                stepId={stepId}
                selectedBlock={selectedBlock}
                pageAddress={pageAddress}
                {...(store.getState().canEdit ? { edit } : {})}
              />
              <figcaption className="text-xs text-soft">{caption}</figcaption>
            </figure>
          ))}
      </div>
    </section>
  );
}
