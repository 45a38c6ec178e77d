import { promisify } from 'node:util';
import { brotliCompress, gzip } from 'node:zlib';

/** Bytes ready to serve, compressed once. */
export interface ServedFile {
  readonly plain: Buffer;
  readonly gzip: Buffer;
  readonly brotli: Buffer;
  readonly etag: string;
}

const [gzipped, brotlied] = [promisify(gzip), promisify(brotliCompress)];

/** Compressed beside the event loop, which others are served by meanwhile. */
export async function servedFile(text: string, etag: string): Promise<ServedFile> {
  const plain = Buffer.from(text);
  const [small, smaller] = await Promise.all([gzipped(plain, { level: 9 }), brotlied(plain)]);
  return { plain, gzip: small, brotli: smaller, etag };
}
