import type { Invite, Member, Role, WorkspaceSettings } from '@velarium/contract';
import argon2 from 'argon2';
import type { DataSource, EntityManager } from 'typeorm';
import { notFound, ProblemError } from '../infra/problem.ts';
import { AccountEntity, MembershipEntity, WorkspaceEntity } from './entities.ts';
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

/** Verified against when no account has the address, so both answers take the same time. */
const nobody = argon2.hash('nobody has this password');

/** What hashing a password costs; the library's defaults when left out. */
export type HashingCost = Pick<argon2.Options, 'memoryCost' | 'timeCost' | 'parallelism'>;

export function createAccountService(db: DataSource, hashingCost: HashingCost = {}) {
  const hash = (password: string) => argon2.hash(password, hashingCost);

  async function findPrincipal(accountId: string): Promise<Principal | undefined> {
    const [row]: Principal[] = await db.query(
      `SELECT a.id AS "accountId", a.name, a.email, w.id AS "workspaceId", w.name AS "workspaceName",
              w.asks_second AS "asksSecond", m.role
         FROM account a JOIN membership m ON m.account_id = a.id JOIN workspace w ON w.id = m.workspace_id
        WHERE a.id = $1 ORDER BY m.created_at LIMIT 1`,
      [accountId],
    );
    return row;
  }

  return {
    findPrincipal,
    tokens: createTokens(db),

    async signIn(email: string, password: string): Promise<Principal> {
      const account = await db.getRepository(AccountEntity).findOneBy({ email });
      const isRight = await argon2.verify(account?.passwordHash ?? (await nobody), password);
      const principal = account && isRight ? await findPrincipal(account.id) : undefined;
      if (principal) return principal;
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

    /** Makes an account with a membership: those of the demo, and who joins without one. */
    async addMember(workspaceId: string, { name, email, password, role }: NewMember): Promise<Member> {
      const passwordHash = await hash(password);
      return db.transaction(async (manager) => {
        const accounts = manager.getRepository(AccountEntity);
        if (await accounts.existsBy({ email })) {
          throw new ProblemError(
            409,
            'email-taken',
            'Already a member',
            'Somebody has this mail address already. Use another.',
            [{ path: 'email', message: 'is already in use' }],
          );
        }
        const account = await accounts.save({ name, email, passwordHash });
        await manager.getRepository(MembershipEntity).save({ workspaceId, accountId: account.id, role });
        return { accountId: account.id, name, email, role };
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

    /** Makes a member of somebody who has an account: of another workspace, or of this one before they left it. */
    async joinWith(workspaceId: string, email: string, password: string, role: Role): Promise<void> {
      const account = await db.getRepository(AccountEntity).findOneBy({ email });
      if (!account || !(await argon2.verify(account.passwordHash, password))) throw wrongPassword();
      await db.query(
        `INSERT INTO membership (workspace_id, account_id, role) VALUES ($1, $2, $3)
         ON CONFLICT (workspace_id, account_id) DO UPDATE SET role = $3`,
        [workspaceId, account.id, role],
      );
    },
    async changePassword(accountId: string, current: string, next: string): Promise<void> {
      const known = await this.passwordHashOf(accountId);
      if (!known || !(await argon2.verify(known, current))) throw wrongPassword();
      await this.setPassword(accountId, next);
    },
    /** Sets a password and ends every sign-in: whoever has the old one is out. */
    async setPassword(accountId: string, password: string): Promise<void> {
      await db.getRepository(AccountEntity).update({ id: accountId }, { passwordHash: await hash(password) });
      await this.signOutEverywhere(accountId);
    },
    async signOutEverywhere(accountId: string): Promise<void> {
      await db.query(`DELETE FROM login_session WHERE data ->> 'accountId' = $1`, [accountId]);
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
