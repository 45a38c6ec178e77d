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

/** How a site reads its addresses. */
export interface AddressSettings {
  readonly trackingParameters: readonly string[];
  readonly hashRoutes: boolean;
}
/** Reduces a whole http(s) address, or a path beginning with `/`, to the keys that page rules compare. */
export type KeyReader = (address: string) => PageKeys;

/**
 * Case of the host, default ports, a trailing slash, fragments and the site's tracking parameters (their case
 * ignored) do not count; the rest is compared percent-decoded. Where the site says that fragments are its routes,
 * `#/tours` counts as if it were part of the path.
 */
export function createKeyReader({ trackingParameters, hashRoutes }: AddressSettings): KeyReader {
  const tracking = new Set(trackingParameters.map((name) => name.toLowerCase()));
  return (address) =>
    pageKeys(hashRoutes ? address.replace(/#(?=!?\/)/, '%23') : address, (name) =>
      tracking.has(name.toLowerCase()),
    );
}

function pageKeys(address: string, isTracking: (name: string) => boolean): PageKeys {
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
