import type { Device, LookStyle, Message, MessageFile } from '@velarium/contract';
import { moveBlock, type PersonalFacts, WINDOW_OF } from '@velarium/core';
import type { RenderedMessage } from '@velarium/render';
import { useEffect, useRef, useState } from 'react';
import { useParams } from 'react-router';
import { runByKeys } from '../../app/commands.ts';
import { drawStill, EMPTY_PAGE } from '../../library/draw-still.ts';
import { useDesign } from '../../library/use-design.ts';
import { cx } from '../../ui/cx.ts';
import { caretOf, putCaret } from './caret.ts';
import { showGrip } from './drag.ts';
import { type EditHooks, type Editing, makeEditable, markSelected } from './editable.ts';
import { putOnStage } from './play.ts';

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
  /** Each time it has been drawn anew. */
  readonly onDrawn?: (drawn: RenderedMessage) => void;
  /** What visitors were given of it: drawn as it was, whatever its Look says today. */
  readonly frozen?: MessageFile;
  /** A Look that is being made, in place of the one the message follows. */
  readonly look?: LookStyle;
  /** Which of its languages; as it was written where nothing is said. */
  readonly language?: string | undefined;
  /** Whom the texts are filled for; without, their places stand as written. */
  readonly factOf?: PersonalFacts | null;
  readonly isMessageHidden?: boolean;
  /** As on a device that asks for dark pages. */
  readonly isDark?: boolean;
  /** Drawn this many times smaller than real; as large as there is room without. */
  readonly scale?: number;
}

/** Thumbnails show texts as most visitors read them. */
const NOTHING_KNOWN: PersonalFacts = () => '';
const NAME: Readonly<Record<Device, string>> = { desktop: 'Desktop', tablet: 'Tablet', mobile: 'Phone' };
const nothing = () => {};

/** The part of a window that a thumbnail shows, CSS pixels of that window. */
interface CloseUp {
  readonly zoom: number;
  readonly left: number;
  readonly top: number;
}
const FROM_AFAR: CloseUp = { zoom: 1, left: 0, top: 0 };
/** How much of a thumbnail the message may fill, and how near one goes: the page around it stays hinted. */
const FILLED = { width: 0.86, height: 0.9 };
const NEAREST = 2.4;

const NEAR_STRIP = 1.7;

/** As near to the message as its box allows, within the window. */
function closeUpOf(box: DOMRect, window: { readonly width: number; readonly height: number }): CloseUp {
  if (box.width === 0 || box.height === 0) return FROM_AFAR;
  // Of what goes from edge to edge the middle says what it is.
  const isStrip =
    window.width > window.height && box.width > FILLED.width * window.width && box.height < window.height / 4;
  const zoom = Math.max(
    isStrip ? NEAR_STRIP : 1,
    Math.min(
      (FILLED.width * window.width) / box.width,
      (FILLED.height * window.height) / box.height,
      NEAREST,
    ),
  );
  const within = (middle: number, whole: number) =>
    Math.min(Math.max(middle - whole / zoom / 2, 0), whole - whole / zoom);
  return {
    zoom,
    left: within(box.left + box.width / 2, window.width),
    top: within(box.top + box.height / 2, window.height),
  };
}

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
    look,
    language,
    frozen,
    factOf = isThumbnail ? NOTHING_KNOWN : null,
    isMessageHidden = false,
    isDark = false,
  } = props;
  const siteId = useWorkbenchSite();
  const design = useDesign(siteId);
  const frame = useRef<HTMLIFrameElement>(null);
  const rendered = useRef<RenderedMessage | null>(null);
  /** What this very frame typed: it is on screen already, and drawing it again would lose the caret. */
  const typed = useRef<Message | null>(null);
  const drawnWith = useRef<readonly unknown[]>([]);
  const leaveStage = useRef<() => void>(nothing);
  const hooks = useRef(edit);
  hooks.current = edit;
  const onDrawn = useRef(props.onDrawn);
  onDrawn.current = props.onDrawn;
  const [isReady, setReady] = useState(false);
  const [closeUp, setCloseUp] = useState(FROM_AFAR);
  const size = WINDOW_OF[device];
  const { ref: place, isNear } = useNear(isThumbnail);
  const scale = props.scale ?? Math.min(width / size.width, height / size.height);

  const editing = useRef<Editing>(undefined);
  const mark = useRef(nothing);
  const unmark = useRef(nothing);
  mark.current = () => {
    unmark.current();
    unmark.current = nothing;
    const drawn = rendered.current;
    if (!drawn) return;
    markSelected(drawn, selectedBlock);
    if (selectedBlock === null || !hooks.current) return;
    // Not as if typed here: what has moved must be drawn anew.
    unmark.current = showGrip(drawn, message, selectedBlock, (id, to) =>
      hooks.current?.onEdit((current) => moveBlock(current, id, to), 'block.move'),
    );
  };

  useEffect(() => {
    const document = frame.current?.contentDocument;
    if (!isReady || !document || design.isPending) return;
    // All that a drawing shows beside the message, which stands there already where it was typed.
    const withWhat = [stepId, design.key, look, language, frozen, factOf, device, isDark];
    const draw = () => {
      const isDrawn = withWhat.every((one, n) => one === drawnWith.current[n]);
      if (typed.current === message && isDrawn) return;
      const known = typed.current;
      editing.current?.flush();
      // What was typed a moment ago comes with a message of its own, which is drawn then.
      if (typed.current !== known) return;
      // Whoever types when something loaded late, or somebody else's change, is drawn goes on typing.
      const caret = rendered.current ? caretOf(rendered.current) : undefined;
      rendered.current?.remove();
      const drawn = drawStill(document, message, {
        design,
        device,
        isDark,
        factOf,
        look,
        language,
        frozen,
      });
      leaveStage.current();
      leaveStage.current = isThumbnail ? nothing : putOnStage(drawn);
      drawnWith.current = withWhat;
      if (stepId) drawn.showStep(stepId);
      rendered.current = drawn;
      onDrawn.current?.(drawn);
      if (isThumbnail) setCloseUp(closeUpOf(drawn.box.getBoundingClientRect(), WINDOW_OF[device]));
      editing.current?.stop();
      editing.current = undefined;
      if (hooks.current)
        editing.current = makeEditable(drawn, message, {
          onSelect: (blockId) => hooks.current?.onSelect(blockId),
          onEdit: (change, key) =>
            hooks.current?.onEdit((current) => {
              const next = change(current);
              typed.current = next;
              return next;
            }, key),
        });
      mark.current();
      if (caret) putCaret(drawn, caret);
    };
    if (!rendered.current) return draw();
    // The frame that shows what was typed comes first; drawing the other windows anew can wait for it.
    let timer: ReturnType<typeof setTimeout>;
    const nextFrame = requestAnimationFrame(() => {
      timer = setTimeout(draw);
    });
    return () => {
      cancelAnimationFrame(nextFrame);
      clearTimeout(timer);
    };
  }, [isReady, message, stepId, design, look, language, frozen, factOf, device, isThumbnail, isDark]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: what is drawn anew is marked by that itself.
  useEffect(() => mark.current(), [selectedBlock]);

  useEffect(
    () => () => {
      editing.current?.stop();
      unmark.current();
      leaveStage.current();
      rendered.current?.remove();
    },
    [],
  );

  const onLoad = () => {
    const document = frame.current?.contentDocument;
    if (!document) return;
    // Undo, the palette and the rest work while one types in the message too.
    document.addEventListener('keydown', runByKeys, true);
    setReady(true);
  };

  return (
    <div
      ref={place}
      className={cx(
        'relative overflow-hidden bg-sheet',
        isThumbnail ? 'rounded-sm border border-line' : 'rounded shadow-[0_0_0_1px_var(--color-line-strong)]',
      )}
      style={{ width: size.width * scale, height: size.height * scale }}
    >
      <div
        className="absolute top-0 left-0 origin-top-left"
        style={{
          width: size.width,
          height: size.height,
          transform: `scale(${scale * closeUp.zoom}) translate(${-closeUp.left}px, ${-closeUp.top}px)`,
        }}
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
        {isNear && (
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
              isMessageHidden && 'invisible',
            )}
          />
        )}
      </div>
    </div>
  );
}

/** Whether a thumbnail has come near the part of a gallery that is seen: dozens of documents are dear to make. */
function useNear(isLazy: boolean) {
  const ref = useRef<HTMLDivElement>(null);
  const [isNear, setNear] = useState(!isLazy);
  useEffect(() => {
    const element = ref.current;
    if (isNear || !element) return;
    const observer = new IntersectionObserver(([entry]) => entry?.isIntersecting && setNear(true), {
      rootMargin: '200px',
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, [isNear]);
  return { ref, isNear };
}

/** The site one is working on: every stage stands on a page of one. */
const useWorkbenchSite = (): string => {
  const { siteId = '' } = useParams();
  return siteId;
};

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
