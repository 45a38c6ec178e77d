import { z } from 'zod';
import { LIMITS } from './values.ts';

/** Whether a date and time is one that the calendar has: no thirteenth month, no 30 February. */
const isReal = (local: string): boolean => {
  const ms = Date.parse(`${local}:00Z`);
  return !Number.isNaN(ms) && new Date(ms).toISOString().slice(0, 16) === local;
};
const REAL = 'the calendar has no such day or time';

/** A date and time of day without a zone, to the minute: `2026-12-24T18:00`. */
export const localTimeSchema = z
  .string()
  .regex(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/, 'write it like 2026-12-24T18:00')
  .refine(isReal, REAL);
export const localDateSchema = z
  .string()
  .regex(/^\d{4}-\d{2}-\d{2}$/, 'write it like 2026-12-24')
  .refine((date) => isReal(`${date}T00:00`), REAL);
const timeOfDay = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'write it like 18:00');
/** A stretch may end with the day; it cannot begin there. */
const endOfStretch = z.string().regex(/^([01]\d:[0-5]\d|2[0-3]:[0-5]\d|24:00)$/, 'write it like 18:00');

/**
 * When a campaign runs. Every stretch is half-open: its beginning is in it, its end is not. Daylight-saving gaps and
 * overlaps are resolved as RFC 5545 and Temporal's "compatible" do.
 */
export const scheduleSchema = z.strictObject({
  zone: z.enum(['site', 'visitor']),
  start: localTimeSchema.nullable(),
  end: localTimeSchema.nullable(),
  /** 1 Monday to 7 Sunday; all seven when empty. */
  days: z.array(z.number().int().min(1).max(7)).max(7),
  /** Stretches of each day; the whole day when empty. */
  hours: z.array(z.strictObject({ from: timeOfDay, to: endOfStretch })).max(LIMITS.hours),
  /** Whole days left out, the last one included. */
  blackouts: z
    .array(
      z
        .strictObject({ from: localDateSchema, to: localDateSchema })
        .refine(({ from, to }) => from <= to, 'the last day cannot lie before the first'),
    )
    .max(LIMITS.blackouts),
});
export type Schedule = z.infer<typeof scheduleSchema>;
