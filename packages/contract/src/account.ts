import { z } from 'zod';
import { DELIVERY_STATES, ROLES } from './values.ts';

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
  workspace: z.strictObject({
    id: z.uuid(),
    name: z.string(),
    /** Whether nothing is launched before a second person has agreed to it. */
    asksSecond: z.boolean(),
  }),
  role: z.enum(ROLES),
  csrfToken: z.string(),
});
export type Session = z.infer<typeof sessionSchema>;

/** What holds for the whole workspace. */
export const workspaceSettingsSchema = sessionSchema.shape.workspace.pick({ asksSecond: true });
export type WorkspaceSettings = z.infer<typeof workspaceSettingsSchema>;

export const memberSchema = z.strictObject({
  accountId: z.uuid(),
  name: z.string(),
  email: z.string(),
  role: z.enum(ROLES),
});
export type Member = z.infer<typeof memberSchema>;

export const inviteSchema = z.strictObject({
  name: z.string().trim().min(1, 'write a name').max(120),
  email: mailAddressSchema,
  role: z.enum(ROLES),
});
export type Invite = z.infer<typeof inviteSchema>;
/** Somebody who was asked to join and has not yet. */
export const invitationSchema = z.strictObject({
  id: z.uuid(),
  name: z.string(),
  email: z.string(),
  role: z.enum(ROLES),
  invitedBy: z.string(),
  endsAt: z.iso.datetime(),
  /** How the mail stands, and what the last try was answered. */
  mail: z.strictObject({ state: z.enum(DELIVERY_STATES), words: z.string().nullable() }).nullable(),
});
export type Invitation = z.infer<typeof invitationSchema>;
/** What somebody who follows an invitation reads. */
export const openInvitationSchema = z.strictObject({
  workspace: z.string(),
  name: z.string(),
  email: z.string(),
  /** They sign in with the password they have; nobody may set another by an invitation. */
  hasAccount: z.boolean(),
});
export type OpenInvitation = z.infer<typeof openInvitationSchema>;
/** How an installation that nobody has an account on begins: its first workspace and that one's owner. */
export const beginSchema = z.strictObject({
  /** What the installation has told whoever runs it. */
  code: z.string().max(300),
  workspace: z.string().trim().min(1, 'name the workspace').max(120),
  name: z.string().trim().min(1, 'write your name').max(120),
  email: mailAddressSchema,
  password: passwordSchema,
});
export type Begin = z.infer<typeof beginSchema>;

export const joinSchema = z.strictObject({ password: passwordSchema });
export const forgottenSchema = z.strictObject({ email: mailAddressSchema });
export const newPasswordSchema = z.strictObject({ token: z.string().max(300), password: passwordSchema });
export type NewPassword = z.infer<typeof newPasswordSchema>;
export const changePasswordSchema = z.strictObject({
  current: z.string().min(1, 'write the password you have').max(200),
  password: passwordSchema,
});
export type ChangePassword = z.infer<typeof changePasswordSchema>;
/** What a key may be used to read: answers and people, or what becomes of the kept rehearsals. */
export const keyReadsSchema = z.enum(['people', 'rehearsals']);
export type KeyReads = z.infer<typeof keyReadsSchema>;
/** A key by which another program reads. */
export const accessTokenSchema = z.strictObject({
  id: z.uuid(),
  name: z.string(),
  /** The one site it reads; `null` for all of the workspace. */
  siteId: z.uuid().nullable(),
  reads: keyReadsSchema,
  createdBy: z.string(),
  createdAt: z.iso.datetime(),
  lastUsedAt: z.iso.datetime().nullable(),
});
export type AccessToken = z.infer<typeof accessTokenSchema>;
export const makeTokenSchema = z.strictObject({
  name: z.string().trim().min(1, 'say what it is for').max(80),
  siteId: z.uuid().nullable(),
  reads: keyReadsSchema.default('people'),
});
export type MakeToken = z.input<typeof makeTokenSchema>;
/** The key itself, shown this once. */
export const madeTokenSchema = z.strictObject({ secret: z.string(), token: accessTokenSchema });
export type MadeToken = z.infer<typeof madeTokenSchema>;

export const changeRoleSchema = z.strictObject({ role: z.enum(ROLES) });
