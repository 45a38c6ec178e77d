import { readFileSync } from 'node:fs';
import { brotliCompressSync } from 'node:zlib';
import { beforeAll, describe, expect, it } from 'vitest';
import { bundleTag } from '../../../scripts/lib/bundle.mjs';

const read = (name: string) => readFileSync(new URL(`../dist/${name}`, import.meta.url));
let inputs: string[];
let tag: Buffer;
let apart: Buffer[];
beforeAll(async () => {
  inputs = Object.values(await bundleTag()).flatMap((meta) => Object.keys(meta.inputs));
  tag = read('tag.js');
  apart = Object.values(JSON.parse(read('files.json').toString()) as Record<string, string>).map(read);
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
    // Renderer and extras together: a page that needs both loads them on top, and nobody loads more.
    expect(apart.reduce((sum, code) => sum + bytes(code), bytes(tag))).toBeLessThanOrEqual(14_600);
  });

  it('makes no code from text and no markup from words', () => {
    for (const code of [tag, ...apart].map(String)) {
      expect(code).not.toMatch(
        /\beval\(|new Function|innerHTML|outerHTML|insertAdjacentHTML|document\.write/,
      );
    }
  });
});
