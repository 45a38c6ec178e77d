import { readFileSync } from 'node:fs';
import { brotliCompressSync } from 'node:zlib';
import { beforeAll, describe, expect, it } from 'vitest';
import { bundleTag } from '../../../scripts/lib/bundle.mjs';

const read = (name: string) => readFileSync(new URL(`../dist/${name}`, import.meta.url));
let inputs: string[];
let tag: Buffer;
let parts: Readonly<Record<string, Buffer>>;
beforeAll(async () => {
  inputs = Object.values(await bundleTag()).flatMap((meta) => Object.keys(meta.inputs));
  tag = read('tag.js');
  const files: Record<string, string> = JSON.parse(read('files.json').toString());
  parts = Object.fromEntries(Object.entries(files).map(([name, file]) => [name, read(file)]));
});

describe('what a page loads', () => {
  it('holds nothing of npm and of the contract only plain values', () => {
    expect(inputs.length).toBeGreaterThan(20);
    expect(inputs.filter((path) => path.includes('node_modules'))).toEqual([]);
    expect(inputs.filter((path) => /contract\/src\/(?!values)/.test(path))).toEqual([]);
  });

  it('fits into ten segments of the first round trip (RFC 6928), and half of that before anything is shown', () => {
    const bytes = (code: Buffer) => brotliCompressSync(code).length;
    expect(bytes(tag)).toBeLessThanOrEqual(7000);
    // Rules and renderer; what few sites use (`rare`) and what only a preview loads (`panel`) come on top.
    const { renderer, extras } = parts as Record<'renderer' | 'extras', Buffer>;
    expect(bytes(tag) + bytes(extras) + bytes(renderer)).toBeLessThanOrEqual(14_600);
  });

  it('treats the page behind from a part of its own, and for messages of before from the one they ask for', () => {
    for (const name of ['behind', 'further'])
      expect(`${parts[name]}`).toMatch(/export\s*\{[^}]*\btreatPage\b/);
  });

  it('makes no code from text and no markup from words', () => {
    for (const code of [tag, ...Object.values(parts)].map(String)) {
      expect(code).not.toMatch(
        /\beval\(|new Function|innerHTML|outerHTML|insertAdjacentHTML|document\.write/,
      );
    }
  });
});
