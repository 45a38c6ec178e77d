import type { ReactNode } from 'react';

/** What stands where nothing stands yet, a small drawing for each kind of place: 120 by 48, in two strengths of line. */
export type Drawing =
  | 'awning'
  | 'people'
  | 'letters'
  | 'map'
  | 'curve'
  | 'intervals'
  | 'sheets'
  | 'flag'
  | 'wires'
  | 'days'
  | 'layers'
  | 'lens'
  | 'key';

const DRAWINGS: Readonly<Record<Drawing, ReactNode>> = {
  awning: <path d="M6 8h108v18c-18 14-18 14-36 0-18 14-18 14-36 0-18 14-18 14-36 0zM42 8v18M78 8v18" />,
  people: (
    <>
      <path d="M18 44c0-11 6-16 14-16s14 5 14 16M74 44c0-11 6-16 14-16s14 5 14 16" />
      <circle cx={32} cy={18} r={7} />
      <circle cx={88} cy={18} r={7} />
      <path d="M48 12h14v9H55l-4 4v-4h-3z" strokeDasharray="2 2" />
    </>
  ),
  letters: (
    <>
      <path d="M14 12h40v26H14zM14 12l20 15 20-15" />
      <path d="M62 19h14M62 25h24M62 31h10" strokeDasharray="4 3" />
      <path d="M94 18l12 7-12 7" />
    </>
  ),
  map: (
    <>
      <path d="M12 8h96v32H12zM36 8v32M60 8v32M84 8v32M12 19h96M12 30h96" />
      <path d="M37 9h22v9H37zM61 20h22v9H61zM13 31h22v8H13z" fill="var(--color-line)" stroke="none" />
    </>
  ),
  curve: (
    <>
      <path d="M8 8c20 0 24 26 56 30" />
      <path d="M64 38c18 2 30 2 48 2" strokeDasharray="3 3" />
      <path d="M64 6v38" strokeDasharray="1 3" />
    </>
  ),
  intervals: (
    <>
      <path d="M12 42h96" />
      <path d="M28 12v18M24 12h8M24 30h8M60 18v14M56 18h8M56 32h8M92 8v12M88 8h8M88 20h8" />
      <path d="M23 21h10M55 26h10M87 13h10" strokeWidth={2} />
    </>
  ),
  sheets: (
    <>
      <path d="M20 10h24l6 6v26H20zM44 10v6h6" />
      <path d="M58 10h24l6 6v26H58zM82 10v6h6M26 22h16M26 28h18M26 34h12M64 22h16M64 28h18M64 34h12" />
      <path d="M92 14h10v28H92" strokeDasharray="2 2" />
    </>
  ),
  flag: (
    <>
      <path d="M6 44c22-2 26-20 46-20s28 14 62 20" />
      <path d="M52 24V4M52 5h20l-5 5 5 5H52" />
    </>
  ),
  wires: (
    <>
      <path d="M12 14h28v20H12zM80 14h28v20H80z" />
      <path d="M40 24h12M68 24h12" />
      <path d="M54 20v8M66 20v8" strokeWidth={2} />
    </>
  ),
  days: (
    <>
      <path d="M8 12h104M8 40h104M26 12v28M52 12v28M78 12v28M104 12v28" />
      <path d="M18 20h46v6H18z" fill="var(--color-line)" stroke="none" />
      <path d="M60 30h40v6H60z" strokeDasharray="2 2" />
    </>
  ),
  layers: <path d="M60 6l40 12-40 12-40-12zM20 26l40 12 40-12M20 34l40 12 40-12" />,
  lens: (
    <>
      <circle cx={54} cy={21} r={13} />
      <path d="M64 30l14 13M47 21h14" />
    </>
  ),
  key: (
    <>
      <circle cx={38} cy={24} r={10} />
      <path d="M48 24h36M72 24v8M80 24v6" />
      <circle cx={36} cy={24} r={2.5} />
    </>
  ),
};

export function Drawn({ what }: { readonly what: Drawing }) {
  return (
    <svg
      viewBox="0 0 120 48"
      className="w-32"
      aria-hidden="true"
      fill="none"
      stroke="var(--color-line-strong)"
    >
      {DRAWINGS[what]}
    </svg>
  );
}
