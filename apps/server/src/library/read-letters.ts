import subsetFont from 'subset-font';

/** What is taken: a whole family of a few hundred letters is a tenth of it. */
export const MOST_LETTER_BYTES = 1_000_000;
/** `wOF2`, and where the size that it unfolds to stands. Source: WOFF File Format 2.0, 4.1. */
const SIGNATURE = 0x774f4632;
const UNFOLDED_AT = 16;
const HEADER_BYTES = 48;
/** What letters may unfold to: what is larger is a mistake or an attack. */
const MOST_UNFOLDED = 20_000_000;
const REGULAR = 400;

/** Why a file is not taken, in words. */
export class LettersError extends Error {}

/**
 * How light and how heavy the letters of a WOFF2 file can be.
 *
 * @throws {LettersError} When it is none that can be read.
 */
export async function readWeights(bytes: Buffer): Promise<readonly [number, number]> {
  if (bytes.length < HEADER_BYTES || bytes.readUInt32BE(0) !== SIGNATURE)
    throw new LettersError(
      'It is no WOFF2 file. Other formats can be made into one by whoever gave you the letters.',
    );
  if (bytes.readUInt32BE(UNFOLDED_AT) > MOST_UNFOLDED)
    throw new LettersError('It unfolds to more than 20 MB. Ask for a file with fewer letters.');
  const plain = await subsetFont(bytes, 'a', { targetFormat: 'sfnt' }).catch(() => {
    throw new LettersError('It says that it is WOFF2, and no letters can be read from it.');
  });
  try {
    const [lightest, heaviest] = weightsOf(plain).map((weight) => Math.min(1000, Math.max(1, weight)));
    return [lightest ?? REGULAR, heaviest ?? REGULAR];
  } catch (error) {
    // A table that points beyond its end.
    if (error instanceof RangeError)
      throw new LettersError('Its tables are broken: how heavy the letters are cannot be read.');
    throw error;
  }
}

/** As the font says, before CSS bounds it to 1 to 1000. Source: OpenType 1.9.1, "Table Directory", "fvar" and "OS/2". */
function weightsOf(font: Buffer): readonly [number, number] {
  const tables = new Map<string, number>();
  for (let n = 0, at = 12; n < font.readUInt16BE(4); n++, at += 16)
    tables.set(font.toString('latin1', at, at + 4), font.readUInt32BE(at + 8));
  const axes = tables.get('fvar');
  if (axes !== undefined) {
    const first = axes + font.readUInt16BE(axes + 4);
    const [count, size] = [font.readUInt16BE(axes + 8), font.readUInt16BE(axes + 10)];
    for (let at = first; at < first + count * size; at += size)
      if (font.toString('latin1', at, at + 4) === 'wght')
        return [Math.round(font.readInt32BE(at + 4) / 65536), Math.round(font.readInt32BE(at + 12) / 65536)];
  }
  const metrics = tables.get('OS/2');
  const weight = metrics === undefined ? REGULAR : font.readUInt16BE(metrics + 4);
  return [weight, weight];
}

/** The same letters, but only those that a text is written with. */
export const onlyWith = (bytes: Buffer, text: string): Promise<Buffer> =>
  subsetFont(bytes, text, { targetFormat: 'woff2' });
