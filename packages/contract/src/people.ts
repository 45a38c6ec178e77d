import { z } from 'zod';
import { HELD_REASONS, MOST_KEPT_DAYS, PERSON_STATES } from './values.ts';

/** One field of an answer, under the label it was asked with. */
export const answeredFieldSchema = z.strictObject({
  /** The field's id and kind in the form; answers from before they were kept have none. */
  id: z.string().optional(),
  kind: z.string().optional(),
  label: z.string(),
  value: z.string(),
  /** Of the picture that came with it. */
  attachment: z.uuid().optional(),
});
export type AnsweredField = z.infer<typeof answeredFieldSchema>;

/** One answer, as it was given, with the words it was asked with. */
export const answerSchema = z.strictObject({
  id: z.uuid(),
  campaignId: z.uuid(),
  campaignName: z.string(),
  /** Who gave it; `null` where no mail address was asked for. */
  person: z
    .strictObject({
      id: z.uuid(),
      address: z.string(),
      state: z.enum(PERSON_STATES),
      /** They were asked to confirm, and the link has ended. */
      hasExpired: z.boolean(),
    })
    .nullable(),
  fields: z.array(answeredFieldSchema),
  consentText: z.string().nullable(),
  consentedAt: z.iso.datetime().nullable(),
  page: z.string(),
  /** The block that is the form, and the step it stood on; `null` for answers from before they were kept. */
  form: z.string().nullable(),
  step: z.string().nullable(),
  version: z.number().int(),
  variant: z.string(),
  /** The language it was asked in, where the message had several. */
  language: z.string().nullable(),
  device: z.string().nullable(),
  /** Host the visit came from, and its country in two letters; `null` where neither is known. */
  referrer: z.string().nullable(),
  country: z.string().nullable(),
  /** Why it is kept apart; `null` when it is not. */
  held: z.enum(HELD_REASONS).nullable(),
  submittedAt: z.iso.datetime(),
});
export type Answer = z.infer<typeof answerSchema>;

/** Which answers are asked for. Days are the site's own. */
export const answerFilterSchema = z.strictObject({
  q: z.string().trim().max(200).default(''),
  campaign: z.uuid().optional(),
  form: z.string().max(40).optional(),
  step: z.string().max(40).optional(),
  state: z.enum(PERSON_STATES).optional(),
  consent: z.enum(['asked', 'none']).optional(),
  country: z
    .string()
    .regex(/^[a-z]{2}$/)
    .optional(),
  source: z.string().max(300).optional(),
  from: z.iso.date().optional(),
  until: z.iso.date().optional(),
  isHeld: z.enum(['yes', 'no']).default('no'),
});
export type AnswerFilter = z.infer<typeof answerFilterSchema>;

export const answerPageSchema = z.strictObject({
  answers: z.array(answerSchema),
  /** Where the next page begins; `null` after the last. */
  next: z.string().nullable(),
});
export type AnswerPage = z.infer<typeof answerPageSchema>;

/** How many answers a filter finds; counted to a limit, and over the days. */
export const answerCountsSchema = z.strictObject({
  found: z.number().int(),
  isMore: z.boolean(),
  /** People of the whole site, by how they stand; those whose link to confirm has ended are among the waiting. */
  people: z.record(z.enum(PERSON_STATES), z.number().int()),
  expired: z.number().int(),
  /** The forms that were answered, of the campaign asked for, with the steps they stood on; none without a campaign. */
  forms: z.array(z.strictObject({ form: z.string(), step: z.string(), answers: z.number().int() })),
  /** Answers kept apart, on the whole site. */
  held: z.number().int(),
  /** The last 28 days of the site, oldest first. */
  days: z.array(z.strictObject({ day: z.iso.date(), answers: z.number().int() })),
});
export type AnswerCounts = z.infer<typeof answerCountsSchema>;

/** What went or will go to a person, in a line. */
export const sentToSchema = z.strictObject({
  id: z.uuid(),
  kind: z.string(),
  state: z.string(),
  dueAt: z.iso.datetime(),
  sentAt: z.iso.datetime().nullable(),
  words: z.string().nullable(),
});

/** Everything that is known of one person. */
export const personSchema = z.strictObject({
  id: z.uuid(),
  address: z.string(),
  state: z.enum(PERSON_STATES),
  stateAt: z.iso.datetime(),
  answers: z.array(
    answerSchema.extend({
      /** What was corrected, as it was before. */
      before: z.array(
        z.strictObject({ fields: z.array(answeredFieldSchema), by: z.string(), at: z.iso.datetime() }),
      ),
    }),
  ),
  sent: z.array(sentToSchema),
  /** Sessions in which they are remembered to have been on the site, newest first. */
  visits: z.array(
    z.strictObject({ startedAt: z.iso.datetime(), landing: z.string().nullable(), views: z.number().int() }),
  ),
});
export type Person = z.infer<typeof personSchema>;

export const correctAnswerSchema = z.strictObject({
  /** New values, by the place of the field in the answer. */
  values: z.array(z.string().max(4000)).min(1).max(60),
});
export type CorrectAnswer = z.infer<typeof correctAnswerSchema>;

export const judgeHeldSchema = z.strictObject({
  ids: z.array(z.uuid()).min(1).max(500),
  verdict: z.enum(['letThrough', 'throwAway']),
});
export type JudgeHeld = z.infer<typeof judgeHeldSchema>;

/** What is left of somebody who was erased: nothing that says who. */
export const erasureReceiptSchema = z.strictObject({
  id: z.uuid(),
  at: z.iso.datetime(),
  answers: z.number().int(),
  mails: z.number().int(),
});
export type ErasureReceipt = z.infer<typeof erasureReceiptSchema>;

/** Who exported, erased or corrected, and when. */
export const peopleNoteSchema = z.strictObject({
  id: z.uuid(),
  at: z.iso.datetime(),
  by: z.string(),
  what: z.enum(['exported', 'erased', 'corrected', 'told', 'imported', 'letThrough', 'thrownAway']),
  /** How many it was about. */
  count: z.number().int(),
});
export type PeopleNote = z.infer<typeof peopleNoteSchema>;

export const keepAnswersSchema = z.strictObject({
  /** Days answers are kept; `null` for ever. */
  days: z.number().int().min(1).max(MOST_KEPT_DAYS).nullable(),
});
export type KeepAnswers = z.infer<typeof keepAnswersSchema>;

export const doNotWriteSchema = z.strictObject({ text: z.string().max(2_000_000) });
export const doNotWriteResultSchema = z.strictObject({
  added: z.number().int(),
  known: z.number().int(),
  /** Lines that hold no address, with their numbers. */
  faults: z.array(z.strictObject({ line: z.number().int(), text: z.string() })),
});
export type DoNotWriteResult = z.infer<typeof doNotWriteResultSchema>;
