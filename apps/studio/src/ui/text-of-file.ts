const decoded = (bytes: ArrayBuffer, encoding: string): string => new TextDecoder(encoding).decode(bytes);

/**
 * The text of a file in whichever way a sheet or an editor has saved it: by the mark it begins with (WHATWG Encoding, 6.1), else
 * UTF-8 where it is that, and else Windows-1252, in which older programs write the letters of western Europe.
 */
export async function textOfFile(file: Blob): Promise<string> {
  const bytes = await file.arrayBuffer();
  const [first, second] = new Uint8Array(bytes);
  if (first === 0xff && second === 0xfe) return decoded(bytes, 'utf-16le');
  if (first === 0xfe && second === 0xff) return decoded(bytes, 'utf-16be');
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return decoded(bytes, 'windows-1252');
  }
}
