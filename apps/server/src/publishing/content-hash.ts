import { createHash } from 'node:crypto';

/** Names a body by its content: 128 bits of SHA-256 in hex. */
export const contentHash = (body: string): string =>
  createHash('sha256').update(body).digest('hex').slice(0, 32);
