import type { Begin, Invitation, Invite, MailDraft, OpenInvitation, Role } from '@velarium/contract';
import { quantity } from '@velarium/core';
import type { DataSource, EntityManager } from 'typeorm';
import type { AccountService, Principal } from '../accounts/index.ts';
import { enqueue, type MemberMail, mailLane } from '../deliveries/index.ts';
import { notFound, ProblemError } from '../infra/problem.ts';
import type { Seal } from '../infra/seal.ts';

const INVITATION_DAYS = 14;
const PASSWORD_HOURS = 2;

const ended = () =>
  new ProblemError(410, 'link-ended', 'This link has ended', 'Ask for a new one, and follow that.');

/** What is signed to show that whoever begins an installation has been told by it. */
const BEGINNING = 'beginning';

interface MemberServices {
  readonly db: DataSource;
  readonly accounts: AccountService;
  readonly seal: Seal;
  /** Where links in mails to members lead. */
  readonly studioOrigin: string;
}

/** Invitations and forgotten passwords: mails with a link by which somebody sets a password nobody else has seen. */
export function createMemberService({ db, accounts, seal, studioOrigin }: MemberServices) {
  interface Row {
    readonly id: string;
    readonly workspaceId: string;
    readonly workspace: string;
    readonly email: string;
    readonly name: string;
    readonly role: Invite['role'];
    readonly invitedBy: string;
    readonly endsAt: Date;
  }
  const find = async (id: string): Promise<Row | undefined> => {
    const [row]: Row[] = await db.query(
      `SELECT i.id, i.workspace_id AS "workspaceId", w.name AS workspace, i.email, i.name, i.role,
              i.invited_by AS "invitedBy", i.ends_at AS "endsAt"
         FROM invitation i JOIN workspace w ON w.id = i.workspace_id WHERE i.id = $1`,
      [id],
    );
    return row;
  };
  /** A launch that waits for a second person, as long as it does. */
  const askedFor = async (planId: string) => {
    const [row]: {
      byName: string;
      at: Date | null;
      note: string;
      name: string;
      siteId: string;
      campaignId: string;
      others: number;
    }[] = await db.query(
      `SELECT p.by_name AS "byName", p.at, p.note, c.name, c.site_id AS "siteId", c.id AS "campaignId",
              (SELECT count(*)::integer FROM planned_launch o WHERE o.together = p.together AND o.id <> p.id) AS others
           FROM planned_launch p JOIN campaign c ON c.id = p.campaign_id WHERE p.id = $1 AND p.awaits`,
      [planId],
    );
    return row;
  };
  const idIn = (token: string): string | undefined => {
    const [id = '', signature = ''] = token.split('.');
    return seal.isSigned(`invitation ${id}`, signature) ? id : undefined;
  };
  /** The invitation of a link that still holds. */
  async function opened(token: string): Promise<Row> {
    const id = idIn(token);
    const row = id ? await find(id) : undefined;
    if (!row || row.endsAt.getTime() < Date.now()) throw ended();
    return row;
  }
  /** A link for a new password is signed over the old one too: it holds until that has changed, and once. */
  const passwordClaim = (accountId: string, ends: string, passwordHash: string) =>
    `password ${accountId} ${ends} ${passwordHash}`;

  const mail = (subject: string, words: string, label: string, address: string): MailDraft => ({
    subject,
    preview: '',
    heading: subject,
    text: [[{ text: words }]],
    picture: null,
    button: { label, address },
  });

  return {
    /**
     * Where an installation that has no account yet is begun; `undefined` once it has one. The link is for whoever runs it:
     * with it anybody becomes the first owner.
     */
    async beginning(): Promise<string | undefined> {
      return (await accounts.isInUse()) ? undefined : `${studioOrigin}/begin?code=${seal.sign(BEGINNING)}`;
    },

    /** Makes the first workspace with its owner, once. */
    async begin({ code, workspace, ...owner }: Begin): Promise<void> {
      if (!seal.isSigned(BEGINNING, code)) throw ended();
      if (!(await accounts.createFirstWorkspace(workspace, owner))) throw ended();
    },

    /** What a mail to a member says at the moment it goes out; `undefined` where it has no reason any more. */
    async mailOf(payload: MemberMail): Promise<MailDraft | undefined> {
      if (payload.of === 'invitation') {
        const row = await find(payload.invitation);
        const token = `${payload.invitation}.${seal.sign(`invitation ${payload.invitation}`)}`;
        return (
          row &&
          mail(
            `${row.invitedBy} invites you to ${row.workspace}`,
            `You are asked to join ${row.workspace} on Velarium as ${row.role}. The link holds for ${INVITATION_DAYS} days.`,
            'Join',
            `${studioOrigin}/join?token=${token}`,
          )
        );
      }
      if (payload.of === 'agreement') {
        const asked = await askedFor(payload.plan);
        return (
          asked &&
          mail(
            `${asked.byName} asks you to agree to “${asked.name}”${asked.others > 0 ? ` and ${quantity(asked.others, 'other campaign')}, in one moment` : ''}`,
            `${asked.others > 0 ? 'They are' : 'It is'} to be launched ${asked.at === null ? 'as soon as a second person agrees' : 'at a set time, once a second person agrees'}.${asked.note === '' ? '' : ` “${asked.note}”`} Whoever agrees sees what changes for visitors first.`,
            'Look at it',
            `${studioOrigin}/sites/${asked.siteId}/campaigns/${asked.campaignId}/versions`,
          )
        );
      }
      const known = await accounts.passwordHashOf(payload.account);
      if (!known) return undefined;
      const ends = (Date.now() + PASSWORD_HOURS * 3_600_000).toString(36);
      const token = `${payload.account}.${ends}.${seal.sign(passwordClaim(payload.account, ends, known))}`;
      return mail(
        'A new password',
        `Somebody, most likely you, asked for a new password for Velarium. The link holds for ${PASSWORD_HOURS} hours. If it was not you, do nothing.`,
        'Set a new password',
        `${studioOrigin}/password?token=${token}`,
      );
    },

    /** Tells everybody else who may launch that a launch waits for a second person. */
    async askToAgree(
      manager: EntityManager,
      { workspaceId, accountId }: Pick<Principal, 'workspaceId' | 'accountId'>,
      planId: string,
    ): Promise<void> {
      const others: { email: string }[] = await manager.query(
        `SELECT a.email FROM membership m JOIN account a ON a.id = m.account_id
          WHERE m.workspace_id = $1 AND a.id <> $2 AND m.role <> 'viewer'`,
        [workspaceId, accountId],
      );
      await enqueue(
        manager,
        others.map(({ email }) => ({
          workspaceId,
          siteId: null,
          kind: 'agreement' as const,
          lane: mailLane(workspaceId),
          recipient: email,
          payload: { of: 'agreement' as const, plan: planId },
        })),
      );
    },

    async list(workspaceId: string): Promise<Invitation[]> {
      const rows: (Omit<Invitation, 'endsAt' | 'mail'> & {
        endsAt: Date;
        state: never;
        words: string | null;
      })[] = await db.query(
        `SELECT i.id, i.name, i.email, i.role, i.invited_by AS "invitedBy", i.ends_at AS "endsAt", d.state, d.words
           FROM invitation i LEFT JOIN LATERAL (
             SELECT state, words FROM delivery
              WHERE workspace_id = $1 AND kind = 'invitation' AND payload ->> 'invitation' = i.id::text
              ORDER BY created_at DESC LIMIT 1) AS d ON true
          WHERE i.workspace_id = $1 ORDER BY i.created_at`,
        [workspaceId],
      );
      return rows.map(({ state, words, ...row }) => ({
        ...row,
        endsAt: row.endsAt.toISOString(),
        mail: state ? { state, words } : null,
      }));
    },

    /** Asks somebody by mail to join; asked again, the mail goes out again and the link holds anew. */
    async invite({ workspaceId, name: invitedBy }: Principal, { name, email, role }: Invite): Promise<void> {
      const members = await accounts.members(workspaceId);
      if (members.some((member) => member.email === email))
        throw new ProblemError(
          409,
          'email-taken',
          'Already a member',
          'Somebody of the team has this address.',
          [{ path: 'email', message: 'is a member already' }],
        );
      await db.transaction(async (manager) => {
        const [row]: { id: string }[] = await manager.query(
          `INSERT INTO invitation (workspace_id, email, name, role, invited_by, ends_at)
           VALUES ($1, $2, $3, $4, $5, now() + $6 * interval '1 day')
           ON CONFLICT (workspace_id, email)
             DO UPDATE SET name = $3, role = $4, invited_by = $5, ends_at = excluded.ends_at
           RETURNING id`,
          [workspaceId, email, name, role, invitedBy, INVITATION_DAYS],
        );
        await enqueue(manager, [
          {
            workspaceId,
            siteId: null,
            kind: 'invitation',
            lane: mailLane(workspaceId),
            recipient: email,
            payload: { of: 'invitation', invitation: row?.id ?? '' },
          },
        ]);
      });
    },
    async withdraw(workspaceId: string, id: string): Promise<void> {
      const [, count]: [unknown, number] = await db.query(
        'DELETE FROM invitation WHERE id = $1 AND workspace_id = $2',
        [id, workspaceId],
      );
      if (count === 0) throw notFound('invitation');
    },
    async open(token: string): Promise<OpenInvitation> {
      const { workspace, name, email } = await opened(token);
      return { workspace, name, email, hasAccount: (await accounts.findByEmail(email)) !== undefined };
    },
    /** Joins with a new password, or with the one that somebody has already. */
    async join(token: string, password: string): Promise<void> {
      const { id, email } = await opened(token);
      const makeMember = await accounts.asMember(email, password);
      await db.transaction(async (manager) => {
        // As it is now: it may have been taken back meanwhile, or be for another role.
        const [[invitation]]: [{ workspaceId: string; name: string; role: Role }[], number] =
          await manager.query(
            'DELETE FROM invitation WHERE id = $1 RETURNING workspace_id AS "workspaceId", name, role',
            [id],
          );
        if (!invitation) throw ended();
        await makeMember(manager, invitation);
      });
    },

    /** Sends a link for a new password, where there is such an account; nobody is told whether there is. */
    async forgotten(email: string): Promise<void> {
      const account = await accounts.findByEmail(email);
      const workspaceId = account && (await accounts.workspaceOf(account.id));
      if (!account || !workspaceId) return;
      await enqueue(db.manager, [
        {
          workspaceId,
          siteId: null,
          kind: 'password',
          lane: mailLane(workspaceId),
          recipient: email,
          payload: { of: 'password', account: account.id },
        },
      ]);
    },
    async setPassword(token: string, password: string): Promise<void> {
      const [accountId = '', ends = '', signature = ''] = token.split('.');
      const isId = /^[0-9a-f-]{36}$/.test(accountId);
      const known = isId ? await accounts.passwordHashOf(accountId) : undefined;
      const isRight = known !== undefined && seal.isSigned(passwordClaim(accountId, ends, known), signature);
      if (!isRight || Number.parseInt(ends, 36) < Date.now()) throw ended();
      if (!(await accounts.replacePassword(accountId, known, password))) throw ended();
    },
  };
}
export type MemberService = ReturnType<typeof createMemberService>;
