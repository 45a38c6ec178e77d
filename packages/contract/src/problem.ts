import { z } from 'zod';

/** The one shape of every error. Source: RFC 9457, with `code` for programs and `fields` for forms. */
export const problemSchema = z.strictObject({
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  /** What is wrong and how to mend it. */
  detail: z.string(),
  code: z.string(),
  fields: z.array(z.strictObject({ path: z.string(), message: z.string() })).optional(),
});
export type Problem = z.infer<typeof problemSchema>;
