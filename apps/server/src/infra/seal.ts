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
  /** @throws {Error} When it was sealed with none of the secrets, or was changed. */
  open<Value>(sealed: string): Value;
  /** Whether it was sealed with the present secret, and not with one of before. */
  isCurrent(sealed: string): boolean;
  /** A signature over text, for links that are followed from mails. */
  sign(text: string): string;
  isSigned(text: string, signature: string): boolean;
  /** What stands for a text where nobody may read it back, by each secret: the present one first. */
  hashes(text: string): Buffer[];
  /** What the secrets are known by, in the same order. */
  readonly fingerprints: readonly string[];
}

/** What signs and seals: the present secret first, then those of before, which still open what was made with them. */
export type Secrets = readonly [string, ...string[]];

interface Keys {
  readonly sealing: Buffer;
  readonly signing: Buffer;
  readonly hashing: Buffer;
}

/** AES-256-GCM (NIST SP 800-38D) and HMAC-SHA-256, each with a key of its own out of the installation's secret (RFC 5869). */
export function createSeal(secrets: Secrets): Seal {
  const all = secrets.map((secret) => {
    const key = (purpose: string) =>
      Buffer.from(hkdfSync('sha256', secret, 'velarium', `velarium ${purpose}`, 32));
    return { sealing: key('sealing'), signing: key('links'), hashing: key('addresses') };
  }) as [Keys, ...Keys[]];
  const [{ sealing, signing }] = all;
  const hmac = (key: Buffer, text: string) => createHmac('sha256', key).update(text).digest();
  const signWith = (key: Buffer, text: string) => hmac(key, text).toString('base64url');
  /** @throws {Error} When it was not sealed with this key. */
  const openWith = (key: Buffer, sealed: string): string => {
    const bytes = Buffer.from(sealed, 'base64');
    const decipher = createDecipheriv('aes-256-gcm', key, bytes.subarray(0, 12));
    decipher.setAuthTag(bytes.subarray(12, 28));
    return Buffer.concat([decipher.update(bytes.subarray(28)), decipher.final()]).toString('utf8');
  };
  const opens = (key: Buffer, sealed: string): boolean => {
    try {
      openWith(key, sealed);
      return true;
    } catch {
      return false;
    }
  };
  return {
    close(value) {
      const nonce = randomBytes(12);
      const cipher = createCipheriv('aes-256-gcm', sealing, nonce);
      const sealed = Buffer.concat([cipher.update(JSON.stringify(value), 'utf8'), cipher.final()]);
      return Buffer.concat([nonce, cipher.getAuthTag(), sealed]).toString('base64');
    },
    open(sealed) {
      const keys = all.find((one) => opens(one.sealing, sealed)) ?? all[0];
      return JSON.parse(openWith(keys.sealing, sealed));
    },
    isCurrent: (sealed) => opens(sealing, sealed),
    sign: (text) => signWith(signing, text),
    isSigned: (text, signature) =>
      all.some((one) => {
        const [expected, given] = [Buffer.from(signWith(one.signing, text)), Buffer.from(signature)];
        return expected.length === given.length && timingSafeEqual(expected, given);
      }),
    hashes: (text) => all.map(({ hashing }) => hmac(hashing, text)),
    fingerprints: all.map(({ hashing }) => hmac(hashing, 'fingerprint').toString('hex').slice(0, 16)),
  };
}
