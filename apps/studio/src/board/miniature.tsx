import type { Anchor, Format, Miniature as From, MiniaturePart } from '@velarium/contract';
import type { CSSProperties } from 'react';
import { cx } from '../ui/cx.ts';

/** A desktop window of 1280 by 800 CSS pixels, sixteen of them one here. */
const WIDTH = 80;
const HEIGHT = 50;
const ROOM = 3;
const GAP = 1.6;
const HEIGHTS: Readonly<Record<MiniaturePart, number>> = {
  picture: 11,
  heading: 3.2,
  text: 3.4,
  field: 3.6,
  button: 4.4,
  line: 0.6,
};

const stackHeight = (parts: readonly MiniaturePart[]): number =>
  parts.reduce((sum, part) => sum + HEIGHTS[part], 0) + GAP * Math.max(0, parts.length - 1);

type Row = From['rows'][number];
const rowHeight = (columns: Row): number => Math.max(0, ...columns.map(stackHeight));

interface Placed {
  readonly part: MiniaturePart;
  readonly x: number;
  readonly y: number;
  readonly width: number;
}

/** Every part where it stands in a box of this width: rows below each other, columns side by side. */
function placed({ rows }: From, boxWidth: number): Placed[] {
  return rows.flatMap((columns, n) => {
    const top = rows.slice(0, n).reduce((sum, row) => sum + rowHeight(row) + GAP, 0);
    const width = (boxWidth - GAP * (columns.length - 1)) / columns.length;
    return columns.flatMap((parts, column) =>
      parts.map((part, at) => ({
        part,
        x: column * (width + GAP),
        y: top + stackHeight(parts.slice(0, at)) + (at > 0 ? GAP : 0),
        width,
      })),
    );
  });
}

interface MiniatureProps {
  readonly format: Format;
  readonly anchor: Anchor;
  readonly of: From;
  readonly className?: string;
  readonly style?: CSSProperties;
}

/** A message from afar, as it stands in a desktop window; what it does is said beside it. */
export function Miniature({ format, anchor, of, className, style }: MiniatureProps) {
  const { rows, ground, hasVeil } = of;
  const wanted =
    rows.reduce((sum, row) => sum + rowHeight(row), 0) + GAP * Math.max(0, rows.length - 1) + 2 * ROOM;
  const isTall =
    format === 'fullscreen' || (format === 'slidein' && (anchor === 'start' || anchor === 'end'));
  const isBar = format === 'bar';
  const margin = isTall || isBar || format === 'slidein' ? 0 : 1.5;
  const width = Math.max(14, of.width * WIDTH);
  const height = isTall ? HEIGHT : isBar ? 7 : Math.min(wanted, HEIGHT - 2 * margin);
  const left = anchor.endsWith('start')
    ? margin
    : anchor.endsWith('end')
      ? WIDTH - width - margin
      : (WIDTH - width) / 2;
  const top = anchor.startsWith('top')
    ? margin
    : anchor.startsWith('bottom')
      ? HEIGHT - height - margin
      : (HEIGHT - height) / 2;
  const inside = { left: left + ROOM, top: top + (isBar ? 1.2 : ROOM), width: width - 2 * ROOM };
  // What would not fit is drawn smaller, all of it alike.
  const scale = Math.min(1, (height - 2 * ROOM) / Math.max(1, wanted - 2 * ROOM));
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      aria-hidden="true"
      className={cx(
        'flex-none rounded-sm border border-line-strong bg-sheet forced-color-adjust-none',
        className,
      )}
      {...(style ? { style } : {})}
    >
      <g fill="var(--color-line)">
        <rect width={WIDTH} height={6} opacity={0.8} />
        <rect x={8} y={11} width={34} height={3} />
        {[17, 21, 25, 29, 33, 37, 41].map((y) => (
          <rect key={y} x={8} y={y} width={y % 8 === 1 ? 56 : 62} height={1.4} opacity={0.8} />
        ))}
      </g>
      {hasVeil && <rect width={WIDTH} height={HEIGHT} fill="var(--color-ink)" opacity={0.34} />}
      <rect
        x={left}
        y={top}
        width={width}
        height={height}
        rx={isTall || isBar ? 0 : 1}
        fill={ground}
        stroke={of.ink}
        strokeOpacity={0.25}
        strokeWidth={0.4}
      />
      {isBar ? (
        <BarParts of={of} {...inside} />
      ) : (
        <g transform={`translate(${inside.left} ${inside.top}) scale(1 ${scale})`}>
          {placed(of, inside.width).map((one) => (
            <Part key={`${one.x} ${one.y}`} of={of} {...one} />
          ))}
        </g>
      )}
    </svg>
  );
}

function Part({ of: { ink, accent }, part, x, y, width }: Placed & { readonly of: From }) {
  switch (part) {
    case 'picture':
      return <rect x={x} y={y} width={width} height={11} fill={accent} opacity={0.45} />;
    case 'heading':
      return <rect x={x} y={y} width={width * 0.7} height={2.4} fill={ink} />;
    case 'text':
      return (
        <g fill={ink} opacity={0.55}>
          <rect x={x} y={y} width={width} height={1} />
          <rect x={x} y={y + 2} width={width * 0.8} height={1} />
        </g>
      );
    case 'field':
      return (
        <rect
          x={x}
          y={y}
          width={width}
          height={3.2}
          fill="none"
          stroke={ink}
          strokeWidth={0.5}
          opacity={0.7}
        />
      );
    case 'button':
      return <rect x={x} y={y} width={Math.min(width, 22)} height={3.8} rx={0.6} fill={accent} />;
    case 'line':
      return <rect x={x} y={y} width={width} height={0.5} fill={ink} opacity={0.5} />;
  }
}

/** A bar has one line: its words, and what can be pressed. */
function BarParts({
  of,
  left,
  top,
  width,
}: {
  readonly of: From;
  readonly left: number;
  readonly top: number;
  readonly width: number;
}) {
  const parts = of.rows.flat(2);
  const hasButton = parts.includes('button');
  return (
    <>
      <rect x={left} y={top + 1.6} width={width * (hasButton ? 0.5 : 0.7)} height={1.6} fill={of.ink} />
      {hasButton && (
        <rect x={left + width - 16} y={top + 0.4} width={16} height={4} rx={0.6} fill={of.accent} />
      )}
    </>
  );
}
