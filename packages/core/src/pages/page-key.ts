/** A page as rules compare it. Two addresses of one page have equal keys. */
export interface PageKeys {
  /** Path and query: equal on every host of the site. */
  readonly path: string;
  /** Host, path and query; `null` when the address names no host. */
  readonly full: string | null;
}

/** Written encoded they are data, written bare they are structure (RFC 3986, section 2.2); so is `%` itself. */
// biome-ignore lint/suspicious/noControlCharactersInRegex: control characters are among what must stay encoded.
const KEPT_ENCODED = /[\x00-\x20\x7f%:/?#[\]@!$&'()*+,;=]/g;

const encode = (character: string) =>
  `%${character.charCodeAt(0).toString(16).toUpperCase().padStart(2, '0')}`;

/**
 * Decodes what percent-encoding need not protect, so `/caf%C3%A9` and `/café` compare equal, and keeps the
 * reserved characters encoded, so `a%2Fb` and `a/b` stay two pages. Idempotent.
 */
function decodeUnreserved(text: string): string {
  return text.replace(/(?:%[0-9a-f]{2})+/gi, (run) => {
    try {
      return decodeURIComponent(run).replace(KEPT_ENCODED, encode);
    } catch {
      // Not UTF-8: compare the bytes as they stand.
      return run.toUpperCase();
    }
  });
}

/**
 * Reduces an address to the keys that page rules compare: case of the host, default ports, a trailing slash,
 * fragments and the given tracking parameters do not count; the rest is compared percent-decoded.
 *
 * @param address A whole http(s) address, or a path beginning with `/`.
 * @param isTracking Tells whether a parameter of this (decoded) name is left out of the comparison.
 */
export function pageKeys(address: string, isTracking: (name: string) => boolean): PageKeys {
  const [withoutFragment = ''] = address.split('#', 1);
  const host = /^(https?):\/\/([^/?]*)/i.exec(withoutFragment);
  const rest = host ? withoutFragment.slice(host[0].length) : withoutFragment;
  const queryAt = rest.indexOf('?');
  const rawPath = queryAt < 0 ? rest : rest.slice(0, queryAt);
  const parameters = (queryAt < 0 ? '' : rest.slice(queryAt + 1))
    .split('&')
    .filter((pair) => pair !== '' && !isTracking(decodeUnreserved(pair.split('=', 1)[0] as string)));
  const path =
    (decodeUnreserved(rawPath).replace(/\/+$/, '') || '/') +
    (parameters.length ? `?${parameters.map(decodeUnreserved).join('&')}` : '');
  if (!host) return { path, full: null };
  const defaultPort = host[1]?.toLowerCase() === 'https' ? /:443$/ : /:80$/;
  return { path, full: (host[2] as string).toLowerCase().replace(defaultPort, '') + path };
}

/** A test for tracking parameters by name, case ignored. */
export function trackingTest(names: readonly string[]): (name: string) => boolean {
  const known = new Set(names.map((name) => name.toLowerCase()));
  return (name) => known.has(name.toLowerCase());
}
