const rotate = (value: number, by: number) => (value << by) | (value >>> (32 - by));

/**
 * MurmurHash3, x86, 32 bits, of the bytes of a text whose characters all lie below 256.
 * Source: Austin Appleby's MurmurHash3, public domain; checked against SMHasher's verification value.
 */
export function murmur32(text: string, seed = 0): number {
  const byte = (at: number) => text.charCodeAt(at) & 0xff;
  const tail = text.length & ~3;
  const mix = (word: number) => Math.imul(rotate(Math.imul(word, 0xcc9e2d51), 15), 0x1b873593);
  let hash = seed;
  for (let at = 0; at < tail; at += 4) {
    const word = byte(at) | (byte(at + 1) << 8) | (byte(at + 2) << 16) | (byte(at + 3) << 24);
    hash = (Math.imul(rotate(hash ^ mix(word), 13), 5) + 0xe6546b64) | 0;
  }
  let word = 0;
  for (let at = text.length - 1; at >= tail; at--) word = (word << 8) | byte(at);
  // A tail of no bytes mixes to nothing.
  hash ^= mix(word) ^ text.length;
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return (hash ^ (hash >>> 16)) >>> 0;
}
