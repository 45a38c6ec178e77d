/** One measured figure beside its reference, taken in the same run. */
export interface Figure {
  readonly what: string;
  readonly ours: string;
  readonly reference: string;
  /** Ours over the reference; what is better is said by `target`. */
  readonly ratio: string;
  readonly target: string;
  readonly isMet: boolean;
}

export const perSecond = (value: number): string => `${Math.round(value).toLocaleString('en-GB')} /s`;
export const times = (value: number): string =>
  value >= 10 ? `${Math.round(value)}x` : `${value.toFixed(2)}x`;

/** The one in the middle, 0 of none. */
export const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
