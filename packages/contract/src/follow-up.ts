import { z } from 'zod';
import { mailAddressSchema } from './account.ts';
import { languageTagSchema } from './message/languages.ts';
import { line, richTextSchema } from './message/text.ts';
import { LIMITS } from './values.ts';

/** A mail as it is written in the studio; drawn in the site's Look. Texts may hold places, `{{answer.name|friend}}`. */
export const mailDraftSchema = z.strictObject({
  subject: z.string().trim().min(1, 'write a subject').max(200),
  /** What a mail window shows beside the subject. */
  preview: line(200),
  heading: line(200),
  text: richTextSchema,
  picture: z.strictObject({ id: z.uuid(), alt: line(300) }).nullable(),
  button: z
    .strictObject({
      label: z.string().trim().min(1, 'say what the button does').max(80),
      address: z
        .string()
        .max(2048)
        .regex(/^https?:\/\/[^\s/]+\S*$/, 'start with https:// and name a page'),
    })
    .nullable(),
});
export type MailDraft = z.infer<typeof mailDraftSchema>;

/** A mail, and what it is in other languages of the message; it goes out in the one that was answered in. */
const writtenMailSchema = z.strictObject({
  mail: mailDraftSchema,
  languages: z
    .record(languageTagSchema, mailDraftSchema)
    .refine((languages) => Object.keys(languages).length <= LIMITS.languages, 'these are too many languages')
    .optional(),
});
export type WrittenMail = z.infer<typeof writtenMailSchema>;

/** What happens after somebody has answered a form. */
export const followUpSchema = z.strictObject({
  /** Asks the person to confirm before anything else is sent to them. */
  confirmation: writtenMailSchema
    .extend({
      endsAfterDays: z.number().int().min(1).max(30),
      remindAfterDays: z.number().int().min(1).max(14).nullable(),
    })
    .refine(
      ({ endsAfterDays, remindAfterDays }) => remindAfterDays === null || remindAfterDays < endsAfterDays,
      {
        message: 'remind before the link ends',
        path: ['remindAfterDays'],
      },
    )
    .nullable(),
  /** Mails to the person: the first at once, further ones days later. */
  welcome: z.array(writtenMailSchema.extend({ afterDays: z.number().int().min(0).max(90) })).max(6),
  /** Tells the team. */
  notice: z
    .strictObject({
      to: z.array(mailAddressSchema).min(1, 'name at least one mailbox').max(10),
      rhythm: z.enum(['atOnce', 'daily']),
    })
    .nullable(),
});
export type FollowUp = z.infer<typeof followUpSchema>;

/** A mail as it would go out, to be looked at. */
export const mailPreviewSchema = z.strictObject({ subject: z.string(), html: z.string(), text: z.string() });
export type MailPreview = z.infer<typeof mailPreviewSchema>;
/** Which mail is looked at or tried: a confirmation has a button of its own. */
export const mailTrialSchema = z.strictObject({
  mail: mailDraftSchema,
  isConfirmation: z.boolean(),
  /** What it is written in, and what its reader answered in; `null` where the message has one language. */
  language: languageTagSchema.nullable().default(null),
  reader: languageTagSchema.nullable().default(null),
});
export type MailTrial = z.input<typeof mailTrialSchema>;
