import { z } from 'zod';
import { ROLES } from './values.ts';

/** An address as the HTML standard's `email` input reads it. */
export const mailAddressSchema = z
  .string()
  .trim()
  .toLowerCase()
  .max(254)
  .regex(
    /^[a-z0-9.!#$%&'*+/=?^_`{|}~-]+@[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?(?:\.[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?)*$/,
    'write it as name@example.org',
  );
export const passwordSchema = z
  .string()
  .min(10, 'use at least 10 characters')
  .max(200, 'use at most 200 characters');

export const signInSchema = z.strictObject({
  email: mailAddressSchema,
  password: z.string().min(1, 'write your password').max(200),
});
export type SignIn = z.infer<typeof signInSchema>;

export const sessionSchema = z.strictObject({
  account: z.strictObject({ id: z.uuid(), name: z.string(), email: z.string() }),
  workspace: z.strictObject({ id: z.uuid(), name: z.string() }),
  role: z.enum(ROLES),
  csrfToken: z.string(),
});
export type Session = z.infer<typeof sessionSchema>;

export const memberSchema = z.strictObject({
  accountId: z.uuid(),
  name: z.string(),
  email: z.string(),
  role: z.enum(ROLES),
});
export type Member = z.infer<typeof memberSchema>;

export const addMemberSchema = z.strictObject({
  name: z.string().trim().min(1, 'write a name').max(120),
  email: mailAddressSchema,
  password: passwordSchema,
  role: z.enum(ROLES),
});
export type AddMember = z.infer<typeof addMemberSchema>;
export const changeRoleSchema = z.strictObject({ role: z.enum(ROLES) });
