import {
  createCipheriv,
  createDecipheriv,
  createHmac,
  hkdfSync,
  randomBytes,
  timingSafeEqual,
} from 'node:crypto';

/** Keeps what must be used again but never shown: sealed with a key that is not in the database. */
export interface Seal {
  close(value: unknown): string;
  /** @throws {Error} When it was not sealed with this key, or was changed. */
  open<Value>(sealed: string): Value;
  /** A signature over text, for links that are followed from mails. */
  sign(text: string): string;
  isSigned(text: string, signature: string): boolean;
  /** What stands for a text where nobody may read it back. */
  hash(text: string): Buffer;
}

/** AES-256-GCM (NIST SP 800-38D) and HMAC-SHA-256, each with a key of its own out of the installation's secret (RFC 5869). */
export function createSeal(secret: string): Seal {
  const key = (purpose: string) =>
    Buffer.from(hkdfSync('sha256', secret, 'velarium', `velarium ${purpose}`, 32));
  const [sealing, signing, hashing] = [key('sealing'), key('links'), key('addresses')];
  const sign = (text: string) => createHmac('sha256', signing).update(text).digest('base64url');
  return {
    close(value) {
      const nonce = randomBytes(12);
      const cipher = createCipheriv('aes-256-gcm', sealing, nonce);
      const sealed = Buffer.concat([cipher.update(JSON.stringify(value), 'utf8'), cipher.final()]);
      return Buffer.concat([nonce, cipher.getAuthTag(), sealed]).toString('base64');
    },
    open(sealed) {
      const bytes = Buffer.from(sealed, 'base64');
      const decipher = createDecipheriv('aes-256-gcm', sealing, bytes.subarray(0, 12));
      decipher.setAuthTag(bytes.subarray(12, 28));
      const open = Buffer.concat([decipher.update(bytes.subarray(28)), decipher.final()]);
      return JSON.parse(open.toString('utf8'));
    },
    sign,
    isSigned(text, signature) {
      const [expected, given] = [Buffer.from(sign(text)), Buffer.from(signature)];
      return expected.length === given.length && timingSafeEqual(expected, given);
    },
    hash: (text) => createHmac('sha256', hashing).update(text).digest(),
  };
}
