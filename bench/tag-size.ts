import { readFileSync } from 'node:fs';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { bundleTag } from '../scripts/lib/bundle.mjs';
import { type Figure, times } from './measure.ts';

const WHOLE_BYTES = 14_600;
const FIRST_BYTES = 7000;

/** The tag's bytes on the wire against the first round trip of RFC 6928. */
export async function measureTagSize(): Promise<Figure[]> {
  await bundleTag();
  const folder = new URL('../packages/tag/dist/', import.meta.url);
  const tag = readFileSync(new URL('tag.js', folder));
  const files = JSON.parse(readFileSync(new URL('files.json', folder), 'utf8')) as Record<
    'renderer' | 'extras' | 'form',
    string
  >;
  const parts = [
    tag,
    readFileSync(new URL(files.renderer, folder)),
    readFileSync(new URL(files.extras, folder)),
  ];
  const sum = (compress: (code: Buffer) => Buffer) =>
    parts.reduce((bytes, code) => bytes + compress(code).length, 0);
  const first = brotliCompressSync(tag).length;
  const whole = sum(brotliCompressSync);
  const gzip = sum(gzipSync);
  const form = brotliCompressSync(readFileSync(new URL(files.form, folder))).length;
  const figure = (what: string, bytes: number, most: number): Figure => ({
    what,
    ours: `${bytes} bytes brotli`,
    reference: `${most} bytes`,
    ratio: times(bytes / most),
    target: 'at most 1',
    isMet: bytes <= most,
  });
  return [
    figure('tag before anything is shown', first, FIRST_BYTES),
    figure(
      `whole tag, renderer and extras included (gzip ${gzip}; a form adds ${form} brotli)`,
      whole,
      WHOLE_BYTES,
    ),
  ];
}
