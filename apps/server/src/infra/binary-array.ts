export type Cell = string | number | boolean | Date | null;

/** Types that are written here: their oid (pg_type.dat), and how many bytes a value takes, unless that depends on it. */
const TYPES = {
  boolean: { oid: 16, bytes: 1 },
  smallint: { oid: 21, bytes: 2 },
  integer: { oid: 23, bytes: 4 },
  text: { oid: 25, bytes: undefined },
  'double precision': { oid: 701, bytes: 8 },
  timestamptz: { oid: 1184, bytes: 8 },
  uuid: { oid: 2950, bytes: 16 },
} as const;
export type BinaryType = keyof typeof TYPES;
export const isBinaryType = (type: string): type is BinaryType => type in TYPES;

/** What UTF-8 takes at most for a unit of UTF-16. */
const MOST_BYTES = 3;
const HEADER_BYTES = 20;
const OF_NULL = -1;

/**
 * An array of one dimension as PostgreSQL receives it in its binary format (array_recv in its arrayfuncs.c), without the nulls it
 * ends with: `unnest` fills them in beside longer ones. The driver sends a buffer as such. Uuids and times written as text here and
 * read from it there took a fourth of all the work of storing an event.
 */
export function binaryArray(type: BinaryType, values: readonly Cell[]): Buffer {
  const { oid, bytes } = TYPES[type];
  let { length } = values;
  while (length > 0 && values[length - 1] === null) length--;
  let size = HEADER_BYTES;
  for (let n = 0; n < length; n++) size += 4 + (bytes ?? MOST_BYTES * String(values[n] ?? '').length);
  const to = Buffer.allocUnsafe(size);
  // How many dimensions, whether there may be nulls, of what; then how long it is, and where it begins.
  let at = 0;
  for (const word of length > 0 ? [1, 1, oid, length, 1] : [0, 0, oid]) at = to.writeInt32BE(word, at);
  // Many rows say the same as the one before.
  let last: Cell = null;
  let lastAt = 0;
  let lastBytes = 0;
  for (let n = 0; n < length; n++) {
    const value = values[n] ?? null;
    if (value === null) {
      at = to.writeInt32BE(OF_NULL, at);
    } else if (value === last) {
      to.copyWithin(at, lastAt, lastAt + lastBytes);
      at += lastBytes;
    } else {
      const taken = write(type, to, at + 4, value);
      to.writeInt32BE(taken, at);
      [last, lastAt, lastBytes] = [value, at, 4 + taken];
      at += lastBytes;
    }
  }
  return to.subarray(0, at);
}

/** Writes a value as its type's own receiving function reads it; answers with how many bytes it took. */
function write(type: BinaryType, to: Buffer, at: number, value: NonNullable<Cell>): number {
  switch (type) {
    case 'boolean':
      return to.writeUInt8(Number(value), at) - at;
    case 'smallint':
      return to.writeInt16BE(Number(value), at) - at;
    case 'integer':
      return to.writeInt32BE(Number(value), at) - at;
    case 'text':
      return to.write(String(value), at);
    case 'double precision':
      return to.writeDoubleBE(Number(value), at) - at;
    case 'timestamptz':
      return writeInstant(to, at, Number(value)) - at;
    case 'uuid':
      return writeUuid(to, at, String(value));
  }
}

const MS_UNTIL_2000 = Date.UTC(2000);

/** Microseconds since the year 2000, which lie far within what a number holds exactly. */
function writeInstant(to: Buffer, at: number, ms: number): number {
  const microseconds = (ms - MS_UNTIL_2000) * 1000;
  const upper = Math.floor(microseconds / 2 ** 32);
  return to.writeUInt32BE(microseconds - upper * 2 ** 32, to.writeInt32BE(upper, at));
}

/** Where the bytes of a uuid stand in its text (RFC 9562, 4). */
const PLACES = [0, 2, 4, 6, 9, 11, 14, 16, 19, 21, 24, 26, 28, 30, 32, 34];
/** What hexadecimal digits stand for, by their codes. */
const DIGITS = new Uint8Array(128);
for (const [value, digit] of [...'0123456789abcdef'].entries())
  for (const sign of [digit, digit.toUpperCase()]) DIGITS[sign.charCodeAt(0)] = value;

function writeUuid(to: Buffer, at: number, text: string): number {
  for (let n = 0; n < 16; n++) {
    const place = PLACES[n] ?? 0;
    const [upper = 0, lower = 0] = [DIGITS[text.charCodeAt(place)], DIGITS[text.charCodeAt(place + 1)]];
    to[at + n] = (upper << 4) | lower;
  }
  return 16;
}
