import { type ConversionCounts, conversionRate, counted } from '@velarium/core';
import { Tooltip } from './tooltip.tsx';

const percent = (value: number) => `${(value * 100).toFixed(1)} %`;

export interface RateProps extends ConversionCounts {
  /** The rate at the right end of the scale, shared by all rows so that they can be compared. */
  readonly scaleTo: number;
}

/** A conversion rate of unique visitors, never without its 95 % interval. */
export function Rate({ converters, visitors, scaleTo }: RateProps) {
  const { value, low, high } = conversionRate({ converters, visitors });
  if (value === null) return <span className="text-soft">no visitors yet</span>;
  const at = (rate: number) => `${Math.min(100, (rate / scaleTo) * 100)}%`;
  return (
    <Tooltip
      text={`${converters} of ${counted(visitors, 'visitor')} converted. With 95 % confidence the true rate lies between ${percent(low)} and ${percent(high)}.`}
    >
      <button type="button" className="grid w-full cursor-help gap-1 text-left">
        <span>
          {percent(value)}{' '}
          <span className="text-xs text-soft">
            {percent(low)} to {percent(high)}
          </span>
        </span>
        <span aria-hidden="true" className="relative block h-2 border-b border-line forced-color-adjust-none">
          <span
            className="absolute top-[3px] h-[3px] bg-line-strong"
            style={{ left: at(low), width: `calc(${at(high)} - ${at(low)})` }}
          />
          <span className="absolute top-0 h-2 w-[3px] -translate-x-px bg-ink" style={{ left: at(value) }} />
        </span>
      </button>
    </Tooltip>
  );
}

/** Rows with fewer visitors than this have intervals too wide to set the scale for the others. */
const TELLING_VISITORS = 30;

/** A round end for the rows' common scale, a little beyond the highest interval that tells something. */
export function rateScale(rows: readonly ConversionCounts[]): number {
  const highest = Math.max(
    0.05,
    ...rows.filter(({ visitors }) => visitors >= TELLING_VISITORS).map((row) => conversionRate(row).high),
  );
  return Math.min(1, Math.ceil(highest * 20) / 20);
}
