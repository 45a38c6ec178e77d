import { createHmac, timingSafeEqual } from 'node:crypto';

/** A preview is for the person who opened it, now. */
const LIFE_MS = 30 * 60_000;

/**
 * Signs which site may be previewed and until when. Studio and edge share the secret; the key is one of its own, so
 * a token can never pass for anything else that is signed with it.
 */
export function createPreviewTokens(secret: string, clock: () => number = Date.now) {
  const key = createHmac('sha256', secret).update('velarium preview').digest();
  const sign = (text: string) => createHmac('sha256', key).update(text).digest('base64url');
  return {
    issue(siteKey: string): { token: string; expiresAt: Date } {
      const expiresAt = new Date(clock() + LIFE_MS);
      const claim = `${siteKey}-${expiresAt.getTime().toString(36)}`;
      return { token: `${claim}.${sign(claim)}`, expiresAt };
    },
    /** Whether the token was issued for this site and has not expired. */
    allows(token: string, siteKey: string): boolean {
      const [claim = '', signature = ''] = token.split('.');
      const [forKey, until = ''] = claim.split('-');
      const expected = Buffer.from(sign(claim));
      const given = Buffer.from(signature);
      const isGenuine = expected.length === given.length && timingSafeEqual(expected, given);
      return isGenuine && forKey === siteKey && clock() < Number.parseInt(until, 36);
    },
  };
}
export type PreviewTokens = ReturnType<typeof createPreviewTokens>;
