/** Lengths of visit the line can show, seconds; it takes the first with room to the right of the last mark. */
const SCALES = [60, 180, 600, 3600] as const;

export function scaleFor(seconds: number): number {
  return SCALES.find((scale) => seconds <= scale * 0.85) ?? 3600;
}

/** Where the line is marked, seconds. */
export function ticksOf(scale: number): number[] {
  const step = scale <= 60 ? 10 : scale <= 180 ? 30 : scale <= 600 ? 60 : 600;
  return Array.from({ length: Math.floor(scale / step) + 1 }, (_, position) => position * step);
}

export const clock = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;

export const percent = (share: number): string => `${Math.round(share * 100)} %`;
