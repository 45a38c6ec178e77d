import type { Role } from '@velarium/contract';

/** Who is asking, in which workspace and with what role. Every query of a request is scoped by it. */
export interface Principal {
  readonly accountId: string;
  readonly name: string;
  readonly email: string;
  readonly workspaceId: string;
  readonly workspaceName: string;
  /** Nothing is launched in this workspace before a second person has agreed to it. */
  readonly asksSecond: boolean;
  readonly role: Role;
}
