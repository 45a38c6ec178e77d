import type { SaveSending, Sending } from '@velarium/contract';
import type { DataSource } from 'typeorm';
import { ProblemError } from '../infra/problem.ts';
import type { Seal } from '../infra/seal.ts';
import type { MailWay } from './mail/send-mail.ts';

type Kept = Omit<SaveSending, 'password'>;

const writeAnew = () =>
  new ProblemError(
    422,
    'secret-anew',
    'Write the password again',
    'The server is another now. A password is kept for the server it was given for; write it again.',
    [{ path: 'password', message: 'write it again for this server' }],
  );

/** The mailbox an installation sends by where a workspace names none: `127.0.0.1:4425`, from this address. */
export interface OwnMailbox {
  readonly server: string;
  readonly from: string;
}

/** How each workspace's mail goes out. The password is sealed, and never given out again. */
export function createSending(db: DataSource, seal: Seal, own: OwnMailbox | null) {
  async function find(workspaceId: string): Promise<{ kept: Kept; password: string } | undefined> {
    const [row]: { settings: Kept; sealed: string }[] = await db.query(
      'SELECT settings, sealed FROM sending WHERE workspace_id = $1',
      [workspaceId],
    );
    return row && { kept: row.settings, password: seal.open<string>(row.sealed) };
  }
  const ownWay = (): MailWay | undefined => {
    if (!own) return undefined;
    const [host = '', port = '25'] = own.server.split(':');
    const common = { user: '', password: '', security: 'none', fromName: 'Velarium' } as const;
    return { ...common, host, port: Number(port), fromAddress: own.from };
  };
  return {
    async get(workspaceId: string): Promise<Sending> {
      const found = await find(workspaceId);
      return {
        settings: found ? { ...found.kept, password: null } : null,
        hasPassword: found !== undefined && found.password !== '',
        isReady: found !== undefined || own !== null,
      };
    },
    /**
     * The way as it would be with these settings. Where no password is given the one there is stays, with the server it
     * was given for.
     *
     * @throws {ProblemError} 422 where it must be written anew.
     */
    async wayWith(workspaceId: string, { password, ...kept }: SaveSending): Promise<MailWay> {
      if (password !== null) return { ...kept, password };
      const known = await find(workspaceId);
      if (known && known.password !== '' && known.kept.host !== kept.host) throw writeAnew();
      return { ...kept, password: known?.password ?? '' };
    },
    async save(workspaceId: string, saved: SaveSending): Promise<void> {
      const { password, ...kept } = await this.wayWith(workspaceId, saved);
      await db.query(
        `INSERT INTO sending (workspace_id, settings, sealed) VALUES ($1, $2, $3)
         ON CONFLICT (workspace_id) DO UPDATE SET settings = $2, sealed = $3, updated_at = now()`,
        [workspaceId, JSON.stringify(kept), seal.close(password)],
      );
    },
    async remove(workspaceId: string): Promise<void> {
      await db.query('DELETE FROM sending WHERE workspace_id = $1', [workspaceId]);
    },
    /** How mail goes out now; `undefined` where nobody has said. */
    async way(workspaceId: string): Promise<MailWay | undefined> {
      const found = await find(workspaceId);
      return found ? { ...found.kept, password: found.password } : ownWay();
    },
  };
}
export type SendingService = ReturnType<typeof createSending>;
