import { useQuery } from '@tanstack/react-query';
import type { SitePage } from '@velarium/contract';
import { counted, figure } from '@velarium/core';
import { useEffect, useRef, useState } from 'react';
import { z } from 'zod';
import { elementsQuery, openPreview } from '../../../api/queries.ts';
import { useSite } from '../../../site/use-site.ts';
import { Button } from '../../../ui/button.tsx';
import { Dialog } from '../../../ui/dialog.tsx';
import { Select } from '../../../ui/select.tsx';
import { useWorkbench } from '../../store.ts';
import { useCoverage } from '../pages/use-coverage.ts';

/** What the page in the frame tells. It is a page: nothing of it is believed before it is read. */
const pickedSchema = z.union([
  z.strictObject({ velarium: z.literal('pick'), isReady: z.literal(true) }),
  z.strictObject({
    velarium: z.literal('pick'),
    selector: z.string().min(1).max(300),
    isFragile: z.boolean(),
    why: z.string().max(300),
    /** How many elements of this page it finds. */
    count: z.number().int().min(0),
    leadsAway: z.boolean(),
    /** From what was pressed outwards, and which of them is chosen. */
    trail: z.array(z.string().max(120)).max(40),
    at: z.number().int().min(0),
  }),
]);
type Picked = Extract<z.infer<typeof pickedSchema>, { selector: string }>;

/** Pages that cannot be framed, or lack the tag, never answer. */
const PATIENCE_MS = 8000;

export interface ElementPickerProps {
  /** Whether a click on it is waited for: a link leads away before anything can be seen. */
  readonly isForClick?: boolean;
  readonly onPick: (selector: string) => void;
  readonly onClose: () => void;
}

/** A page of the site in a frame, on which an element is pointed at and chosen. */
export function ElementPicker({ isForClick = false, onPick, onClose }: ElementPickerProps) {
  const siteId = useWorkbench((state) => state.siteId);
  const site = useSite(siteId);
  const { pages, covered } = useCoverage();
  const offered = covered.length > 0 ? covered : pages;
  const [wanted, setWanted] = useState<string | null>(null);
  const path = wanted ?? offered[0]?.path ?? '/';
  const origin = site?.origins[0] ?? '';
  const { data: ticket } = useQuery({
    queryKey: ['pick', siteId],
    queryFn: () => openPreview(siteId),
    gcTime: 0,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const frame = useRef<HTMLIFrameElement>(null);
  const [isReady, setReady] = useState(false);
  const [isLate, setLate] = useState(false);
  const [picked, setPicked] = useState<Picked | null>(null);

  // biome-ignore lint/correctness/useExhaustiveDependencies: another page begins the waiting anew.
  useEffect(() => {
    setReady(false);
    setLate(false);
    setPicked(null);
    const timer = setTimeout(() => setLate(true), PATIENCE_MS);
    const onMessage = (event: MessageEvent) => {
      if (event.source !== frame.current?.contentWindow || event.origin !== origin) return;
      const read = pickedSchema.safeParse(event.data);
      if (!read.success) return;
      clearTimeout(timer);
      setLate(false);
      setReady(true);
      if ('selector' in read.data) setPicked(read.data);
    };
    addEventListener('message', onMessage);
    return () => {
      clearTimeout(timer);
      removeEventListener('message', onMessage);
    };
  }, [path, origin, ticket]);

  return (
    <Dialog isOpen onClose={onClose} title="Pick an element of the page" className="w-[min(96vw,70rem)]">
      <div className="grid gap-3">
        <Select
          label="Page"
          isLabelHidden
          className="max-w-md"
          value={path}
          options={offered
            .slice(0, 200)
            .map((page) => ({ value: page.path, label: `${page.title} · ${page.path}` }))}
          onChange={setWanted}
        />
        <div className="relative h-[52vh] overflow-hidden rounded border border-line-strong bg-sheet">
          {ticket && origin && (
            <iframe
              key={path}
              ref={frame}
              // By this name the tag knows what the page stands here for.
              name="velarium-pick"
              title="Page to pick from"
              src={`${origin}${path}#velarium-preview=${ticket.token}`}
              sandbox="allow-scripts allow-same-origin"
              className="size-full border-0"
            />
          )}
          {!isReady && (
            <p role="status" className="absolute inset-x-0 bottom-0 border-t border-line bg-paper px-3 py-2">
              {isLate
                ? 'This page does not answer: it cannot be shown here, or it does not carry the tag. Choose another, or type the selector.'
                : 'Loading the page …'}
            </p>
          )}
        </div>
        {picked && (
          <Trail
            picked={picked}
            onStep={(step) => frame.current?.contentWindow?.postMessage({ velarium: 'step', step }, origin)}
          />
        )}
        {picked && <OnOtherPages siteId={siteId} selector={picked.selector} pages={offered} path={path} />}
        {picked?.leadsAway && isForClick && (
          <p role="alert" className="border border-hold px-3 py-2">
            ▲ A click here leads to another page before a message can be seen. Wait for the pointer over it
            instead, or let the message open on the page it leads to.
          </p>
        )}
        <div className="flex min-h-9 items-center gap-3">
          <p aria-live="polite" className="min-w-0 flex-1">
            {picked ? (
              <>
                <code className="font-semibold">{picked.selector}</code>{' '}
                <span className="text-soft">finds {counted(picked.count, 'element')} here.</span>{' '}
                <span className={picked.isFragile ? 'text-hold' : 'text-soft'}>
                  {picked.isFragile ? '▲ ' : ''}
                  {picked.why}
                </span>
              </>
            ) : (
              <span className="text-soft">Point at an element, press it, and its selector is proposed.</span>
            )}
          </p>
          <Button onClick={onClose}>Cancel</Button>
          <Button tone="main" disabled={!picked} onClick={() => picked && onPick(picked.selector)}>
            Take it
          </Button>
        </div>
      </div>
    </Dialog>
  );
}

interface OnOtherPagesProps {
  readonly siteId: string;
  readonly selector: string;
  readonly pages: readonly SitePage[];
  /** The page in the frame, which is looked at already. */
  readonly path: string;
}

/** Pages looked into at once, as their source has them. */
const LOOKED_AT = 8;

/** On which of the other pages the element is too. */
function OnOtherPages({ siteId, selector, pages, path }: OnOtherPagesProps) {
  const others = pages.filter((page) => page.path !== path).slice(0, LOOKED_AT);
  const { data, error } = useQuery({
    ...elementsQuery(siteId, { selectors: [selector], paths: others.map((page) => page.path) }),
    enabled: others.length > 0,
  });
  const [seen] = data ?? [];
  if (others.length === 0 || error) return null;
  const titles = others.filter((page) => seen?.pages.includes(page.path)).map(({ title }) => title);
  return (
    <p aria-live="polite" className="text-soft">
      {!seen
        ? 'Looking for it on other pages …'
        : titles.length === 0
          ? `On none of ${counted(seen.of, 'other page')} that were looked into, as their source has them.`
          : `Also on ${titles.join(', ')}: ${figure(titles.length)} of ${counted(seen.of, 'other page')} that were looked into.`}
    </p>
  );
}

interface TrailProps {
  readonly picked: Picked;
  readonly onStep: (step: number) => void;
}

/** What was pressed and what it stands in, outermost first; each can be chosen. */
const Trail = ({ picked: { trail, at }, onStep }: TrailProps) => (
  <ol aria-label="From the page inwards" className="flex flex-wrap items-center gap-1">
    {trail
      .map((words, n) => ({ words, n }))
      .reverse()
      .map(({ words, n }) => (
        <li key={n} className="flex items-center gap-1">
          <button
            type="button"
            aria-pressed={n === at}
            onClick={() => onStep(n)}
            className="h-6 rounded px-1.5 font-mono hover:bg-sail-wash aria-pressed:bg-ink aria-pressed:text-sheet"
          >
            {words}
          </button>
          {n > 0 && (
            <span aria-hidden className="text-soft">
              ›
            </span>
          )}
        </li>
      ))}
  </ol>
);
