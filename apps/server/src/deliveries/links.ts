import type { Seal } from '../infra/seal.ts';

const LEAVE = 'leave';
const CONFIRM = 'confirm';
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** Links in mails that act for the one who got them: signed, each for one person and one purpose. */
export function createLinks(seal: Seal, edgeOrigin: string, clock = () => Date.now()) {
  const tokenOf = (claim: string) => `${claim}.${seal.sign(claim)}`;
  const claimOf = (purpose: string, token: string): readonly string[] | undefined => {
    const at = token.lastIndexOf('.');
    const claim = token.slice(0, at);
    const parts = claim.split('~');
    if (at < 0 || !seal.isSigned(claim, token.slice(at + 1)) || parts[0] !== purpose) return undefined;
    return UUID.test(parts[1] ?? '') ? parts : undefined;
  };
  return {
    /** The address by which a person confirms an answer, until the link ends. */
    confirm: (answerId: string, endsAt: Date) =>
      `${edgeOrigin}/confirm/${tokenOf([CONFIRM, answerId, endsAt.getTime().toString(36)].join('~'))}`,
    /** The address by which a person leaves. It never ends: whoever finds an old mail must be able to. */
    leave: (personId: string) => `${edgeOrigin}/leave/${tokenOf([LEAVE, personId].join('~'))}`,
    /** Whose answer is confirmed; `undefined` for a link we did not make. */
    readConfirm(token: string): { answerId: string; hasEnded: boolean } | undefined {
      const [, answerId, ends = ''] = claimOf(CONFIRM, token) ?? [];
      return answerId ? { answerId, hasEnded: clock() > Number.parseInt(ends, 36) } : undefined;
    },
    readLeave: (token: string): string | undefined => claimOf(LEAVE, token)?.[1],
  };
}
export type Links = ReturnType<typeof createLinks>;
