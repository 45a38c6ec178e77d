import type { ReactNode } from 'react';

/** The page around everything that is done without being signed in. */
export function Door({ words, children }: { readonly words: string; readonly children: ReactNode }) {
  return (
    <main className="grid h-full grid-cols-[1fr_1.1fr]">
      <div className="relative hidden overflow-hidden border-r border-line md:block" aria-hidden="true">
        <VisitDrawing />
      </div>
      <div className="col-span-2 grid w-full max-w-sm content-center gap-4 justify-self-center px-6 md:col-span-1">
        <h1 className="font-serif text-4xl italic">Velarium</h1>
        <p className="mb-2 text-soft">{words}</p>
        {children}
      </div>
    </main>
  );
}

const LINES = Array.from({ length: 9 }, (_, i) => ({
  y: 120 + i * 70,
  mark: 110 + ((i * 137) % 360),
  opacity: 0.25 + i * 0.08,
}));
const TICKS = Array.from({ length: 25 }, (_, t) => ({ x: 60 + t * 20, length: t % 5 === 0 ? 9 : 4 }));

/** What the instrument is about: a visit as a line, and the moment on it. */
function VisitDrawing() {
  return (
    <svg viewBox="0 0 600 800" preserveAspectRatio="xMidYMid slice" className="size-full" aria-hidden="true">
      {LINES.map(({ y, mark, opacity }) => (
        <g key={y} stroke="var(--color-line-strong)">
          <path d={`M60 ${y}H540`} strokeWidth="1" />
          {TICKS.map(({ x, length }) => (
            <path key={x} d={`M${x} ${y}v${length}`} strokeWidth="0.7" />
          ))}
          <path d={`M${mark} ${y - 26}v26`} stroke="var(--color-sail)" strokeWidth="1.5" />
          <path
            d={`M${mark} ${y - 26}h44v14c-8 6-14 6-22 0-8 6-14 6-22 0z`}
            fill="var(--color-sail)"
            stroke="none"
            opacity={opacity}
          />
        </g>
      ))}
    </svg>
  );
}
