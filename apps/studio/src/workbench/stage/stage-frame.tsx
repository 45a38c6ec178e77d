import type { Device, Message } from '@velarium/contract';
import { type RenderedMessage, renderMessage } from '@velarium/render';
import { useEffect, useRef, useState } from 'react';
import { runByKeys } from '../../app/commands.ts';
import { cx } from '../../ui/cx.ts';
import { STAGE_SIZES } from './devices.ts';
import { type EditHooks, makeEditable, markSelected } from './editable.ts';

export interface StageFrameProps {
  readonly message: Message;
  readonly device: Device;
  /** The room there is, CSS pixels; the window is scaled to fit. */
  readonly width: number;
  readonly height: number;
  readonly stepId?: string;
  readonly selectedBlock?: string | null;
  /** A page of the site to stand behind the message; plain ground without. */
  readonly pageAddress?: string | undefined;
  readonly edit?: EditHooks;
  readonly isThumbnail?: boolean;
}

const EMPTY_PAGE = '<!doctype html><html lang="en"><title>Message</title><body></body></html>';
const NAME: Readonly<Record<Device, string>> = { desktop: 'Desktop', tablet: 'Tablet', mobile: 'Phone' };
const nothing = () => {};
const never = () => new Promise<void>(nothing);

/**
 * A window of a device at its real size, scaled down, in which the tag's own renderer draws the message. It is a
 * document of its own, so widths, media queries and focus are those of that window.
 */
export function StageFrame(props: StageFrameProps) {
  const {
    message,
    device,
    width,
    height,
    stepId,
    selectedBlock = null,
    pageAddress,
    edit,
    isThumbnail = false,
  } = props;
  const frame = useRef<HTMLIFrameElement>(null);
  const rendered = useRef<RenderedMessage | null>(null);
  /** What this very frame typed: it is on screen already, and drawing it again would lose the caret. */
  const typed = useRef<Message | null>(null);
  const drawnStep = useRef<string | undefined>(undefined);
  const hooks = useRef(edit);
  hooks.current = edit;
  const [isReady, setReady] = useState(false);
  const size = STAGE_SIZES[device];
  const scale = Math.min(width / size.width, height / size.height);

  useEffect(() => {
    const document = frame.current?.contentDocument;
    if (!isReady || !document) return;
    if (typed.current === message && drawnStep.current === stepId) return;
    rendered.current?.remove();
    const drawn = renderMessage(message, {
      parent: document.documentElement,
      isStill: true,
      onClose: nothing,
      onAction: nothing,
      onSend: never,
    });
    if (stepId) drawn.showStep(stepId);
    drawnStep.current = stepId;
    rendered.current = drawn;
    if (!hooks.current) return;
    makeEditable(drawn, message, {
      onSelect: (blockId) => hooks.current?.onSelect(blockId),
      onEdit: (change, key) =>
        hooks.current?.onEdit((current) => {
          const next = change(current);
          typed.current = next;
          return next;
        }, key),
    });
  }, [isReady, message, stepId]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: a new drawing must be marked again.
  useEffect(() => {
    if (rendered.current) markSelected(rendered.current, selectedBlock);
  }, [selectedBlock, message, stepId, isReady]);

  useEffect(() => () => rendered.current?.remove(), []);

  const onLoad = () => {
    const document = frame.current?.contentDocument;
    if (!document) return;
    // Undo, the palette and the rest work while one types in the message too.
    document.addEventListener('keydown', runByKeys, true);
    setReady(true);
  };

  return (
    <div
      className={cx(
        'relative overflow-hidden bg-sheet',
        isThumbnail ? 'rounded-sm border border-line' : 'rounded shadow-[0_0_0_1px_var(--color-line-strong)]',
      )}
      style={{ width: size.width * scale, height: size.height * scale }}
    >
      <div
        className="absolute top-0 left-0 origin-top-left"
        style={{ width: size.width, height: size.height, transform: `scale(${scale})` }}
      >
        {pageAddress ? (
          <iframe
            src={pageAddress}
            // No scripts: the page is scenery here, and its tag must not count this as a visit.
            sandbox=""
            tabIndex={-1}
            aria-hidden="true"
            title="The page behind"
            scrolling="no"
            className="pointer-events-none absolute inset-0 size-full border-0"
          />
        ) : (
          <GhostPage />
        )}
        <iframe
          ref={frame}
          srcDoc={EMPTY_PAGE}
          onLoad={onLoad}
          title={isThumbnail ? 'Preview' : `Message on ${NAME[device].toLowerCase()}`}
          {...(isThumbnail ? { tabIndex: -1, 'aria-hidden': true } : {})}
          scrolling="no"
          className={cx(
            'absolute inset-0 size-full border-0 bg-transparent',
            isThumbnail && 'pointer-events-none',
          )}
        />
      </div>
    </div>
  );
}

/** Plain ground: the hint of a page. */
function GhostPage() {
  return (
    <div aria-hidden="true" className="absolute inset-0 bg-[#f3f1ec] p-16">
      <div className="h-8 w-64 rounded bg-[#dedad0]" />
      <div className="mt-12 h-14 w-3/4 rounded bg-[#dedad0]" />
      {[92, 88, 95, 60, 90, 84].map((wide) => (
        <div key={wide} className="mt-6 h-5 rounded bg-[#e6e3da]" style={{ width: `${wide}%` }} />
      ))}
    </div>
  );
}
