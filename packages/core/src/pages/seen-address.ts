/** Whole characters of UTF-8 in percent-encoding. A byte that belongs to none stays as it stands. Source: RFC 3629, 3. */
const CHARACTER =
  /%[0-7][\da-f]|%[cd][\da-f]%[89ab][\da-f]|%e[\da-f](%[89ab][\da-f]){2}|%f[0-7](%[89ab][\da-f]){3}/gi;
/** Written encoded they are data, written bare they are structure (RFC 3986, section 2.2); so is `%` itself. */
// biome-ignore lint/suspicious/noControlCharactersInRegex: control characters are among what must stay encoded.
const KEPT = /[\x00-\x20\x7f%:/?#[\]@!$&'()*+,;=]/;

/** An address, or a part of one, as browsers show it to people: `/caf%C3%A9` as `/café`. */
export const seenAddress = (address: string): string =>
  address.replace(CHARACTER, (encoded) => {
    try {
      const character = decodeURIComponent(encoded);
      return KEPT.test(character) ? encoded : character;
    } catch {
      // Overlong, or half of a pair.
      return encoded;
    }
  });
