import { type ConversionCounts, conversionRate } from '../statistics/conversion-rate.ts';

/** The most certain first: by the lower end of the rate's interval, so that two of two never lead a hundred of a thousand. */
export function byCertainty<Row>(rows: readonly Row[], countsOf: (row: Row) => ConversionCounts): Row[] {
  return rows
    .map((row) => ({ row, low: conversionRate(countsOf(row)).low, visitors: countsOf(row).visitors }))
    .sort((a, b) => b.low - a.low || b.visitors - a.visitors)
    .map(({ row }) => row);
}

/** A rate whose interval is wider than this says nothing yet: points of 100. */
const TOO_WIDE = 0.2;
/** Whether too few visitors came to say anything of a rate. */
export function saysLittle(counts: ConversionCounts): boolean {
  const { value, low, high } = conversionRate(counts);
  return value === null || high - low > TOO_WIDE;
}
