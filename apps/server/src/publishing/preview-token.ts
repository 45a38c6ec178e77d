import { createHmac, timingSafeEqual } from 'node:crypto';
import type { Secrets } from '../infra/seal.ts';

/** A preview is for the person who opened it, now. */
const LIFE_MS = 30 * 60_000;

/** What a token lets its holder see. */
export interface PreviewClaim {
  readonly site: string;
  /** Until when, milliseconds since 1970. */
  readonly untilMs: number;
  /** Of a link for somebody without an account: the one campaign whose draft it shows, or every draft. */
  readonly of?: string;
  /** Whether messages are shown without the panel that explains them. */
  readonly isBare?: boolean;
}

/**
 * Signs which site may be previewed and until when. Studio and edge share the secrets; the key is one of its own, so
 * a token can never pass for anything else that is signed with it.
 */
export function createPreviewTokens(secrets: Secrets, clock: () => number = Date.now) {
  const keys = secrets.map((secret) => createHmac('sha256', secret).update('velarium preview').digest());
  const signWith = (key: Buffer, text: string) => createHmac('sha256', key).update(text).digest('base64url');
  return {
    issue(
      site: string,
      { lifeMs = LIFE_MS, ...more }: { lifeMs?: number } & Pick<PreviewClaim, 'of' | 'isBare'> = {},
    ): { token: string; expiresAt: Date } {
      const untilMs = clock() + lifeMs;
      const claim = Buffer.from(JSON.stringify({ site, untilMs, ...more } satisfies PreviewClaim)).toString(
        'base64url',
      );
      return { token: `${claim}.${signWith(keys[0] as Buffer, claim)}`, expiresAt: new Date(untilMs) };
    },
    /** What the token lets one see of this site; nothing where it was not issued for it, or has ended. */
    read(token: string, site: string): PreviewClaim | undefined {
      const [claim = '', signature = ''] = token.split('.');
      const given = Buffer.from(signature);
      const isSigned = keys.some((key) => {
        const expected = Buffer.from(signWith(key, claim));
        return expected.length === given.length && timingSafeEqual(expected, given);
      });
      if (!isSigned) return undefined;
      const read: PreviewClaim = JSON.parse(Buffer.from(claim, 'base64url').toString());
      return read.site === site && clock() < read.untilMs ? read : undefined;
    },
  };
}
export type PreviewTokens = ReturnType<typeof createPreviewTokens>;
