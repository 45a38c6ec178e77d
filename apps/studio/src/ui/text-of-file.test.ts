import { expect, it } from 'vitest';
import { textOfFile } from './text-of-file.ts';

/** Source of the bytes: the Unicode Standard, 3.10 (encoding schemes), and the WHATWG index of windows-1252. */
it.each<[how: string, bytes: number[], text: string]>([
  ['UTF-8', [0xc3, 0xa9, 0x2c, 0x31], 'é,1'],
  ['UTF-8 with its mark', [0xef, 0xbb, 0xbf, 0xc3, 0xa9], 'é'],
  ['UTF-16, the lower byte first', [0xff, 0xfe, 0xe9, 0x00, 0x3d, 0xd8, 0x00, 0xde], 'é😀'],
  ['UTF-16, the higher byte first', [0xfe, 0xff, 0x00, 0xe9, 0x20, 0xac], 'é€'],
  // Without 80 to 9F, which Node.js 20 takes for Latin-1; browsers do not.
  ['Windows-1252', [0x43, 0x61, 0x66, 0xe9, 0x2c, 0xa3, 0x32], 'Café,£2'],
  ['nothing', [], ''],
  ['one byte', [0xff], 'ÿ'],
])('a file saved as %s', async (_, bytes, text) => {
  expect(await textOfFile(new Blob([new Uint8Array(bytes)]))).toBe(text);
});
