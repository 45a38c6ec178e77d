import type { Role } from '@velarium/contract';
import { EntitySchema } from 'typeorm';

export interface AccountRow {
  id: string;
  email: string;
  name: string;
  passwordHash: string;
  /** Sign-ins of before have ended. */
  signedOutAt: Date | null;
  createdAt: Date;
}
export const AccountEntity = new EntitySchema<AccountRow>({
  name: 'Account',
  tableName: 'account',
  columns: {
    id: { type: 'uuid', primary: true, generated: 'uuid' },
    email: { type: 'text' },
    name: { type: 'text' },
    passwordHash: { type: 'text', name: 'password_hash' },
    signedOutAt: { type: 'timestamptz', name: 'signed_out_at', nullable: true },
    createdAt: { type: 'timestamptz', name: 'created_at', createDate: true },
  },
});

export interface WorkspaceRow {
  id: string;
  name: string;
  asksSecond: boolean;
  createdAt: Date;
}
export const WorkspaceEntity = new EntitySchema<WorkspaceRow>({
  name: 'Workspace',
  tableName: 'workspace',
  columns: {
    id: { type: 'uuid', primary: true, generated: 'uuid' },
    name: { type: 'text' },
    asksSecond: { type: 'boolean', name: 'asks_second', default: false },
    createdAt: { type: 'timestamptz', name: 'created_at', createDate: true },
  },
});

export interface MembershipRow {
  workspaceId: string;
  accountId: string;
  role: Role;
  createdAt: Date;
}
export const MembershipEntity = new EntitySchema<MembershipRow>({
  name: 'Membership',
  tableName: 'membership',
  columns: {
    workspaceId: { type: 'uuid', name: 'workspace_id', primary: true },
    accountId: { type: 'uuid', name: 'account_id', primary: true },
    role: { type: 'text' },
    createdAt: { type: 'timestamptz', name: 'created_at', createDate: true },
  },
});

export interface LoginSessionRow {
  /** SHA-256 of the session's id: a copy of the table opens no session. */
  id: string;
  data: unknown;
  expiresAt: Date;
}
export const LoginSessionEntity = new EntitySchema<LoginSessionRow>({
  name: 'LoginSession',
  tableName: 'login_session',
  columns: {
    id: { type: 'text', primary: true },
    data: { type: 'jsonb' },
    expiresAt: { type: 'timestamptz', name: 'expires_at' },
  },
});
