/** A page as rules compare it. Two addresses of one page have equal keys. */
export interface PageKeys {
  /** Path and query: equal on every host of the site. */
  readonly path: string;
  /** Host, path and query; `null` when the address names no host. */
  readonly full: string | null;
}

/** How a site reads its addresses. */
export interface AddressSettings {
  readonly trackingParameters: readonly string[];
  readonly hashRoutes: boolean;
}
/** Reduces a whole http(s) address, or a path beginning with `/`, to the keys that page rules compare. */
export type KeyReader = (address: string) => PageKeys;

/** A path is read as if it stood on this host, whose name no key holds. */
const NO_HOST = 'http://h';

/**
 * Percent-encoding in its normal form: hex digits in capitals, and nothing encoded that need not be, so `/%7Eanna` and
 * `/~anna` are one page while `a%2Fb` and `a/b` stay two. Source: RFC 3986, 6.2.2.1 and 6.2.2.2.
 */
const normal = (text: string): string =>
  text.replace(/%[0-9a-f]{2}/gi, (byte) => {
    const character = String.fromCharCode(Number(`0x${byte.slice(1)}`));
    return /[\w.~-]/.test(character) ? character : byte.toUpperCase();
  });

/** A path without slashes at its end; looking behind keeps it from trying each of a thousand of them. */
export const withoutSlash = (pathname: string): string => pathname.replace(/(?<!\/)\/+$/, '') || '/';

/**
 * Addresses are taken apart as browsers do it (WHATWG URL: case and names of hosts, default ports, dot segments).
 * Beyond that a trailing slash, the fragment and the site's tracking parameters (their case ignored) do not count.
 * Where the site says that fragments are its routes, `#/tours` is read as a path of its own behind the page's.
 *
 * @throws {TypeError} For a whole address that is none.
 */
export function createKeyReader({ trackingParameters, hashRoutes }: AddressSettings): KeyReader {
  const tracking = new Set(trackingParameters.map((name) => name.toLowerCase()));
  const read: KeyReader = (address) => {
    const isPath = address[0] === '/';
    const { host, pathname, search, hash } = new URL(isPath ? NO_HOST + address : address);
    const parameters = search
      .slice(1)
      .split('&')
      .map(normal)
      .filter((pair) => pair && !tracking.has((pair.split('=', 1)[0] as string).toLowerCase()));
    const [, route] = (hashRoutes && /^#!?(\/.*)/.exec(hash)) || [];
    const path =
      normal(withoutSlash(pathname)) +
      (parameters.length ? `?${parameters.join('&')}` : '') +
      (route ? `#${read(route).path}` : '');
    return { path, full: isPath ? null : host + path };
  };
  return read;
}
