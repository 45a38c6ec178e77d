import { readFileSync } from 'node:fs';
import { brotliCompressSync } from 'node:zlib';
import { beforeAll, describe, expect, it } from 'vitest';
import { bundleTag } from '../../../scripts/lib/bundle.mjs';

const read = (name: string) => readFileSync(new URL(`../dist/${name}`, import.meta.url));
let inputs: string[];
let tag: Buffer;
let renderer: Buffer;
beforeAll(async () => {
  const { tag: tagMeta, renderer: rendererMeta } = await bundleTag();
  inputs = [...Object.keys(tagMeta.inputs), ...Object.keys(rendererMeta.inputs)];
  tag = read('tag.js');
  renderer = read(JSON.parse(read('files.json').toString()).renderer);
});

describe('what a page loads', () => {
  it('holds nothing of npm and of the contract only plain values', () => {
    expect(inputs.length).toBeGreaterThan(20);
    expect(inputs.filter((path) => path.includes('node_modules'))).toEqual([]);
    expect(inputs.filter((path) => /contract\/src\/(?!values)/.test(path))).toEqual([]);
  });

  it('fits into ten segments of the first round trip (RFC 6928), and half of that before anything is shown', () => {
    const [before, after] = [tag, renderer].map((code) => brotliCompressSync(code).length) as [
      number,
      number,
    ];
    expect(before).toBeLessThanOrEqual(7000);
    expect(before + after).toBeLessThanOrEqual(14_600);
  });

  it('makes no code from text and no markup from words', () => {
    for (const code of [tag, renderer].map(String)) {
      expect(code).not.toMatch(
        /\beval\(|new Function|innerHTML|outerHTML|insertAdjacentHTML|document\.write/,
      );
    }
  });
});
