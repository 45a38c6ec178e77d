import { UnreadableFile } from './unreadable-file.ts';

/** Files of text that people bring are lists, tables and documents; what is larger is something else, and stops the window. */
const MOST_BYTES = 20_000_000;

const decoded = (bytes: ArrayBuffer, encoding: string): string => new TextDecoder(encoding).decode(bytes);

/**
 * The text of a file in whichever way a sheet or an editor has saved it: by the mark it begins with (WHATWG Encoding, 6.1), else
 * UTF-8 where it is that, and else Windows-1252, in which older programs write the letters of western Europe. Throws an
 * {@link UnreadableFile}.
 */
export async function textOfFile(file: Blob, mostBytes = MOST_BYTES): Promise<string> {
  if (file.size > mostBytes)
    throw new UnreadableFile(`It is larger than ${(mostBytes / 1000).toLocaleString('en-GB')} kB.`);
  const bytes = await file.arrayBuffer().catch(() => {
    throw new UnreadableFile('It is not where it was, or may not be read. Choose it once more.');
  });
  const [first, second] = new Uint8Array(bytes);
  if (first === 0xff && second === 0xfe) return decoded(bytes, 'utf-16le');
  if (first === 0xfe && second === 0xff) return decoded(bytes, 'utf-16be');
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return decoded(bytes, 'windows-1252');
  }
}
