import type { ExitCertainty, Trigger, TriggerKind } from '@velarium/contract';
import { EARLY_SIGN, LIKELY_SIGN } from '@velarium/core';
import type { ReactNode } from 'react';

/** Lines of a page, from `y` on. */
const lines = (y: number, count: number, width = 46) =>
  Array.from({ length: count }, (_, n) => (
    <path
      // biome-ignore lint/suspicious/noArrayIndexKey: a line has no name but its place.
      key={n}
      d={`M31 ${y + n * 7}h${n % 3 === 2 ? width * 0.6 : width}`}
      className="stroke-line-strong"
    />
  ));
const WINDOW = (
  <>
    <rect x="24" y="6" width="72" height="60" rx="2" className="fill-sheet stroke-ink" />
    <path d="M24 15h72" className="stroke-ink" />
  </>
);
const PHONE = <rect x="42" y="4" width="36" height="64" rx="5" className="fill-sheet stroke-ink" />;
const pointer = (x: number, y: number) => (
  <path d={`M${x} ${y}l0 13 3.4-3.2 2.2 5 2.4-1-2.2-5 4.6-.2z`} className="fill-ink stroke-sheet" />
);
const clock = (x: number, y: number) => (
  <g className="fill-sheet stroke-sail" strokeWidth="1.8">
    <circle cx={x} cy={y} r="11" />
    <path d={`M${x} ${y - 6.5}v6.5l4.5 3`} fill="none" />
  </g>
);
const way = (d: string) => <path d={d} className="stroke-sail" strokeWidth="1.8" strokeDasharray="3 3" />;
const head = (d: string) => <path d={d} className="stroke-sail" strokeWidth="1.8" />;

/** What happens, drawn: the visitor's page in ink, the moment in the accent. */
const DRAWN: Readonly<Record<Exclude<TriggerKind, 'exitMouse'>, ReactNode>> = {
  time: (
    <>
      {WINDOW}
      {lines(24, 5)}
      {clock(92, 56)}
    </>
  ),
  sessionTime: (
    <>
      <rect x="14" y="12" width="60" height="48" rx="2" className="fill-paper stroke-line-strong" />
      {WINDOW}
      {lines(24, 5)}
      {clock(92, 56)}
    </>
  ),
  scroll: (
    <>
      {WINDOW}
      {lines(22, 6)}
      <path d="M24 48h72" className="stroke-sail" strokeWidth="1.8" />
      {way('M106 14v42')}
      {head('M102 52l4 6 4-6')}
    </>
  ),
  exitTouch: (
    <>
      {PHONE}
      {way('M60 56V20')}
      {head('M55 25l5-7 5 7')}
      <circle cx="60" cy="58" r="5" className="fill-sail stroke-none" />
    </>
  ),
  tabReturn: (
    <>
      {WINDOW}
      <path d="M24 6h26v9M50 6h26v9" className="stroke-ink" />
      {lines(24, 5)}
      {way('M64 11C70-2 36-2 38 8')}
      {head('M34 4l4 5 5-4')}
    </>
  ),
  inactivity: (
    <>
      {WINDOW}
      {lines(24, 5)}
      {pointer(56, 34)}
      <g className="stroke-sail" strokeWidth="1.8">
        <path d="M84 44h16M84 68h16M86 44c0 8 12 8 12 12s-12 4-12 12M98 44c0 8-12 8-12 12s12 4 12 12" />
      </g>
    </>
  ),
  articleEnd: (
    <>
      {WINDOW}
      {lines(22, 4)}
      <path d="M48 54h24" className="stroke-sail" strokeWidth="1.8" />
      <circle cx="60" cy="54" r="3" className="fill-sheet stroke-sail" strokeWidth="1.8" />
    </>
  ),
  element: (
    <>
      {WINDOW}
      {lines(22, 3)}
      <rect
        x="36"
        y="46"
        width="48"
        height="26"
        className="fill-sail-wash stroke-sail"
        strokeWidth="1.8"
        strokeDasharray="3 2"
      />
    </>
  ),
  interact: (
    <>
      {WINDOW}
      {lines(22, 2)}
      <rect x="36" y="38" width="40" height="16" className="fill-sail-wash stroke-sail" strokeWidth="1.8" />
      {pointer(70, 46)}
    </>
  ),
  count: (
    <>
      <rect x="16" y="14" width="40" height="46" rx="2" className="fill-paper stroke-line-strong" />
      <rect x="32" y="11" width="40" height="46" rx="2" className="fill-paper stroke-line-strong" />
      <rect x="50" y="8" width="44" height="52" rx="2" className="fill-sheet stroke-sail" strokeWidth="1.8" />
      <text x="72" y="41" textAnchor="middle" className="fill-sail stroke-none font-serif text-xl">
        3
      </text>
    </>
  ),
  event: (
    <>
      {WINDOW}
      {lines(24, 5, 30)}
      <circle cx="78" cy="42" r="3" className="fill-sail stroke-none" />
      <path d="M86 34a11 11 0 0 1 0 16M93 28a19 19 0 0 1 0 28" className="stroke-sail" strokeWidth="1.8" />
    </>
  ),
  hand: (
    <>
      {WINDOW}
      <path
        d="M50 30c-5 0-3 9-8 9 5 0 3 9 8 9M70 30c5 0 3 9 8 9-5 0-3 9-8 9"
        className="stroke-sail"
        strokeWidth="1.8"
      />
    </>
  ),
  load: (
    <>
      {WINDOW}
      {lines(34, 4)}
      <path d="M31 25h58" className="stroke-line" strokeWidth="4" />
      <path d="M31 25h58" className="stroke-sail" strokeWidth="4" />
    </>
  ),
};

/** Pixels of a window 800 high, as high as it is drawn. */
const DRAWN_HIGH = 60 / 800;

/** What makes each sign of leaving: how near the top the pointer must be, and how far it has to go. */
const SIGNS: Readonly<
  Record<ExitCertainty, { readonly zone: number; readonly ends: number; readonly words: string }>
> = {
  early: {
    zone: EARLY_SIGN.zone,
    ends: 20,
    words: `A quick move up, ${EARLY_SIGN.zone} pixels from the top: soonest, and now and then for who only wants a menu.`,
  },
  likely: {
    zone: LIKELY_SIGN.zone,
    ends: 12,
    words: `A move up, ${LIKELY_SIGN.zone} pixels from the top: most who do this leave.`,
  },
  certain: {
    zone: 0,
    ends: 0,
    words: 'The pointer is out through the top: no mistake, and the last moment.',
  },
};

/** The three signs of leaving differ in where the pointer is when it is believed. */
function Leaving({ certainty }: { readonly certainty: ExitCertainty }) {
  const { zone, ends } = SIGNS[certainty];
  return (
    <>
      {WINDOW}
      {lines(30, 4)}
      <rect
        x="24"
        y={certainty === 'certain' ? -3 : 6}
        width="72"
        height={certainty === 'certain' ? 9 : Math.max(4, zone * DRAWN_HIGH)}
        className="fill-sail stroke-none"
        opacity="0.3"
      />
      {way(`M68 56C70 44 74 ${ends + 20} 78 ${ends + 8}`)}
      {pointer(78, ends - 2)}
    </>
  );
}

/** A picture of what a trigger means, and what of its choices makes a difference; its words stand beside it. */
export const TriggerPicture = ({ trigger }: { readonly trigger: Trigger }) => (
  <svg viewBox="0 -4 120 78" aria-hidden="true" className="w-24 flex-none" fill="none" strokeLinecap="round">
    {trigger.kind === 'exitMouse' ? <Leaving certainty={trigger.certainty} /> : DRAWN[trigger.kind]}
  </svg>
);

/** What the chosen sign of leaving comes to. */
export const signWords = (certainty: ExitCertainty): string => SIGNS[certainty].words;
