import type { Invite, Member, Role, WorkspaceSettings } from '@velarium/contract';
import argon2 from 'argon2';
import type { DataSource, EntityManager } from 'typeorm';
import { notFound, ProblemError } from '../infra/problem.ts';
import { AccountEntity, type AccountRow, MembershipEntity, WorkspaceEntity } from './entities.ts';
import type { Principal } from './principal.ts';
import { createTokens } from './tokens.ts';

const wrongPassword = () =>
  new ProblemError(
    422,
    'wrong-password',
    'Not this password',
    'The password you have is another one. Try again.',
    [{ path: 'password', message: 'is not the one you have' }],
  );

const lastOwner = () =>
  new ProblemError(409, 'last-owner', 'The last owner stays', 'Make somebody else an owner first.');

/** Somebody with a password of their own. */
export interface NewMember extends Invite {
  readonly password: string;
}

/** A sign-in, and when it began, by the database's clock, epoch milliseconds. */
export interface SignedIn {
  readonly principal: Principal;
  readonly signedInMs: number;
}

/** Makes a member, with the account where there is none. */
export type MakeMember = (
  manager: EntityManager,
  member: Pick<Invite, 'name' | 'role'> & { readonly workspaceId: string },
) => Promise<void>;

/** Verified against when no account has the address, so both answers take the same time. */
const nobody = argon2.hash('nobody has this password');

/** What hashing a password costs; the library's defaults when left out. */
export type HashingCost = Pick<argon2.Options, 'memoryCost' | 'timeCost' | 'parallelism'>;

export function createAccountService(db: DataSource, hashingCost: HashingCost = {}) {
  const hash = (password: string) => argon2.hash(password, hashingCost);

  /** Who an account is; of a session that began at an instant, only if it has not been signed out everywhere since. */
  async function findPrincipal(
    accountId: string,
    signedInMs: number | null = null,
  ): Promise<Principal | undefined> {
    const [row]: Principal[] = await db.query(
      `SELECT a.id AS "accountId", a.name, a.email, w.id AS "workspaceId", w.name AS "workspaceName",
              w.asks_second AS "asksSecond", m.role
         FROM account a JOIN membership m ON m.account_id = a.id JOIN workspace w ON w.id = m.workspace_id
        WHERE a.id = $1
          AND ($2::float8 IS NULL OR a.signed_out_at IS NULL OR a.signed_out_at < to_timestamp($2::float8 / 1000))
        ORDER BY m.created_at LIMIT 1`,
      [accountId, signedInMs],
    );
    return row;
  }

  const forgetSignIns = (accountId: string): Promise<unknown> =>
    db.query(`DELETE FROM login_session WHERE data ->> 'accountId' = $1`, [accountId]);

  return {
    findPrincipal,
    tokens: createTokens(db),

    /** Who signs in, and since when: from before the password was looked at, since it may be another by now. */
    async signIn(email: string, password: string): Promise<SignedIn> {
      const [account]: { id: string; passwordHash: string; nowMs: number }[] = await db.query(
        `SELECT id, password_hash AS "passwordHash", extract(epoch FROM clock_timestamp())::float8 * 1000 AS "nowMs"
           FROM account WHERE email = $1`,
        [email],
      );
      const isRight = await argon2.verify(account?.passwordHash ?? (await nobody), password);
      const principal = account && isRight ? await findPrincipal(account.id, account.nowMs) : undefined;
      if (account && principal) return { principal, signedInMs: account.nowMs };
      throw new ProblemError(
        401,
        'sign-in-failed',
        'Not signed in',
        'The mail address and the password do not belong together. Check both and try again.',
      );
    },

    async members(workspaceId: string): Promise<Member[]> {
      return db.query(
        `SELECT a.id AS "accountId", a.name, a.email, m.role
           FROM membership m JOIN account a ON a.id = m.account_id WHERE m.workspace_id = $1 ORDER BY a.name`,
        [workspaceId],
      );
    },

    /**
     * Somebody who is to be a member: with the password they have already, or with a new account. Passwords take long to look
     * at, so what makes the member comes after, in a transaction of the caller's.
     */
    async asMember(email: string, password: string): Promise<MakeMember> {
      const known = await db.getRepository(AccountEntity).findOneBy({ email });
      if (known && !(await argon2.verify(known.passwordHash, password))) throw wrongPassword();
      const passwordHash = known?.passwordHash ?? (await hash(password));
      return async (manager, { workspaceId, name, role }) => {
        const accountId = known?.id ?? (await makeAccount(manager, { name, email, passwordHash }));
        await manager.query(
          'INSERT INTO membership (workspace_id, account_id, role) VALUES ($1, $2, $3) ON CONFLICT DO NOTHING',
          [workspaceId, accountId, role],
        );
      };
    },
    /** Makes an account with a membership: those of the demo. */
    async addMember(workspaceId: string, { password, ...member }: NewMember): Promise<void> {
      const passwordHash = await hash(password);
      await db.transaction(async (manager) => {
        const accountId = await makeAccount(manager, { ...member, passwordHash });
        await manager.getRepository(MembershipEntity).save({ workspaceId, accountId, role: member.role });
      });
    },

    /** Plans of before are agreed to first as well, once that is asked for. */
    async setWorkspace(workspaceId: string, { asksSecond }: WorkspaceSettings): Promise<void> {
      await db.transaction(async (manager) => {
        await manager.query('UPDATE workspace SET asks_second = $2 WHERE id = $1', [workspaceId, asksSecond]);
        if (asksSecond)
          await manager.query(
            `UPDATE planned_launch SET awaits = true
               FROM campaign WHERE campaign.id = campaign_id AND campaign.workspace_id = $1`,
            [workspaceId],
          );
      });
    },

    async changeRole(workspaceId: string, accountId: string, role: Role): Promise<void> {
      await db.transaction(async (manager) => {
        await assertOwnerStays(manager, workspaceId, accountId, role);
        const { affected } = await manager
          .getRepository(MembershipEntity)
          .update({ workspaceId, accountId }, { role });
        if (!affected) throw notFound('member');
      });
    },

    async removeMember(workspaceId: string, accountId: string): Promise<void> {
      await db.transaction(async (manager) => {
        await assertOwnerStays(manager, workspaceId, accountId, undefined);
        const { affected } = await manager.getRepository(MembershipEntity).delete({ workspaceId, accountId });
        if (!affected) throw notFound('member');
      });
    },

    /** The account of an address, if there is one. */
    async findByEmail(
      email: string,
    ): Promise<{ id: string; name: string; passwordHash: string } | undefined> {
      return (await db.getRepository(AccountEntity).findOneBy({ email })) ?? undefined;
    },
    async passwordHashOf(accountId: string): Promise<string | undefined> {
      return (await db.getRepository(AccountEntity).findOneBy({ id: accountId }))?.passwordHash;
    },
    /** The workspace in which an account is, as a principal. */
    workspaceOf: async (accountId: string): Promise<string | undefined> =>
      (await findPrincipal(accountId))?.workspaceId,

    async changePassword(accountId: string, current: string, next: string): Promise<void> {
      const known = await this.passwordHashOf(accountId);
      if (!known || !(await argon2.verify(known, current))) throw wrongPassword();
      if (!(await this.replacePassword(accountId, known, next))) throw wrongPassword();
    },
    /**
     * Sets another password and ends every sign-in: whoever has the old one is out. Answers whether it was the old one still: of
     * two who set one at once, one does.
     */
    async replacePassword(accountId: string, oldHash: string, password: string): Promise<boolean> {
      // In one statement: with the old password end its sign-ins, whatever dies in between.
      const [, count]: [unknown, number] = await db.query(
        `UPDATE account SET password_hash = $3, signed_out_at = clock_timestamp()
          WHERE id = $1 AND password_hash = $2`,
        [accountId, oldHash, await hash(password)],
      );
      if (count > 0) await forgetSignIns(accountId);
      return count > 0;
    },
    /** Also of who is signing in at this moment, or asking with a session that they hold. */
    async signOutEverywhere(accountId: string): Promise<void> {
      await db.query('UPDATE account SET signed_out_at = clock_timestamp() WHERE id = $1', [accountId]);
      await forgetSignIns(accountId);
    },

    /** Forgets sign-ins that have ended. */
    async tidy(): Promise<void> {
      await db.query('DELETE FROM login_session WHERE expires_at < now()');
    },

    /** Whether anybody has an account here. */
    async isInUse(): Promise<boolean> {
      return db.getRepository(AccountEntity).exists();
    },

    /** Makes a workspace with its owner where nobody has an account yet; answers whether it did. */
    async createFirstWorkspace(
      name: string,
      { password, ...owner }: Omit<NewMember, 'role'>,
    ): Promise<boolean> {
      const passwordHash = await hash(password);
      return db.transaction(async (manager) => {
        // Two who begin at once do not both become the first.
        await manager.query(`SELECT pg_advisory_xact_lock(hashtext('velarium.beginning'))`);
        if (await manager.getRepository(AccountEntity).exists()) return false;
        const workspace = await manager.getRepository(WorkspaceEntity).save({ name });
        const account = await manager.getRepository(AccountEntity).save({ ...owner, passwordHash });
        await manager
          .getRepository(MembershipEntity)
          .save({ workspaceId: workspace.id, accountId: account.id, role: 'owner' });
        return true;
      });
    },

    async createWorkspace(name: string, owner: Omit<NewMember, 'role'>): Promise<string> {
      const workspace = await db.getRepository(WorkspaceEntity).save({ name });
      await this.addMember(workspace.id, { ...owner, role: 'owner' });
      return workspace.id;
    },
  };
}
export type AccountService = ReturnType<typeof createAccountService>;

/** Makes an account; of two that are made of one address at once, one is. */
async function makeAccount(
  manager: EntityManager,
  { name, email, passwordHash }: Pick<AccountRow, 'name' | 'email' | 'passwordHash'>,
): Promise<string> {
  const [made]: { id: string }[] = await manager.query(
    `INSERT INTO account (name, email, password_hash) VALUES ($1, $2, $3)
     ON CONFLICT (email) DO NOTHING RETURNING id`,
    [name, email, passwordHash],
  );
  if (made) return made.id;
  throw new ProblemError(
    409,
    'email-taken',
    'Already a member',
    'Somebody has this mail address already. Use another.',
    [{ path: 'email', message: 'is already in use' }],
  );
}

/** Locks the workspace's owners, so two of them cannot step down at the same moment. */
async function assertOwnerStays(
  manager: EntityManager,
  workspaceId: string,
  accountId: string,
  nextRole: Role | undefined,
): Promise<void> {
  if (nextRole === 'owner') return;
  const owners = await manager.getRepository(MembershipEntity).find({
    where: { workspaceId, role: 'owner' },
    lock: { mode: 'pessimistic_write' },
  });
  if (owners.length === 1 && owners[0]?.accountId === accountId) throw lastOwner();
}
