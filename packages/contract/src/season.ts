import { z } from 'zod';
import { localDateSchema } from './schedule.ts';

/** Days of a site's year that its team should know of: a sale, school holidays. Both ends are in it. */
const seasonDaysSchema = z.strictObject({
  from: localDateSchema,
  to: localDateSchema,
  text: z.string().trim().min(1, 'say what it is').max(120),
});

export const saveSeasonDaysSchema = seasonDaysSchema.refine(({ from, to }) => from <= to, {
  message: 'the last day cannot lie before the first',
  path: ['to'],
});
export type SaveSeasonDays = z.infer<typeof saveSeasonDaysSchema>;

export const seasonNoteSchema = seasonDaysSchema.extend({
  id: z.uuid(),
  /** Written by the team, or brought in with a calendar. */
  source: z.enum(['team', 'calendar']),
});
export type SeasonNote = z.infer<typeof seasonNoteSchema>;

export const seasonSchema = z.strictObject({
  notes: z.array(seasonNoteSchema),
  /** Where the season is given out as a calendar; `null` while it is not. Whoever knows the address reads it. */
  address: z.string().nullable(),
});
export type Season = z.infer<typeof seasonSchema>;

/** A calendar to bring in: the text of an iCalendar file (RFC 5545). */
export const bringCalendarSchema = z.strictObject({ text: z.string().max(2_000_000) });

/** What was brought in, and what of it could not be. */
export const broughtCalendarSchema = z.strictObject({
  season: seasonSchema,
  brought: z.number().int(),
  left: z.array(z.string()),
});
export type BroughtCalendar = z.infer<typeof broughtCalendarSchema>;
