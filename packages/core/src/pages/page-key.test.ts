import { TRACKING_PARAMETERS } from '@velarium/contract/values';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { createKeyReader } from './page-key.ts';

const settings = { trackingParameters: TRACKING_PARAMETERS, hashRoutes: false };
const keys = createKeyReader(settings);
const path = (address: string) => keys(address).path;
const full = (address: string) => keys(address).full;

describe('two addresses of one page have equal keys', () => {
  it.each<[rule: string, a: string, b: string]>([
    ['case of the host', 'https://Quillonfell.EXAMPLE/tours', 'https://quillonfell.example/tours'],
    ['a trailing slash', 'https://a.example/tours/', 'https://a.example/tours'],
    ['several trailing slashes', 'https://a.example/tours//', 'https://a.example/tours'],
    ['an empty path', 'https://a.example', 'https://a.example/'],
    ['a fragment', 'https://a.example/tours#dates', 'https://a.example/tours'],
    ['a fragment with a question mark', 'https://a.example/tours#a?b=c', 'https://a.example/tours'],
    ['a tracking parameter', 'https://a.example/tours?utm_source=letter', 'https://a.example/tours'],
    [
      'a tracking parameter in capitals',
      'https://a.example/tours?UTM_Source=letter',
      'https://a.example/tours',
    ],
    [
      'a tracking parameter among others',
      'https://a.example/t?a=1&utm_id=9&b=2',
      'https://a.example/t?a=1&b=2',
    ],
    ['an empty query', 'https://a.example/t?', 'https://a.example/t'],
    ['the default port of https', 'https://a.example:443/t', 'https://a.example/t'],
    ['the default port of http', 'http://a.example:80/t', 'http://a.example/t'],
    ['http and https', 'http://a.example/t', 'https://a.example/t'],
    // RFC 3986, section 6.2.2.2: percent-encoding of unreserved characters is no difference.
    ['encoded unreserved letters', 'https://a.example/%7Eanna', 'https://a.example/~anna'],
    ['encoded letters beyond ASCII', 'https://a.example/caf%C3%A9', 'https://a.example/café'],
    // RFC 3986, section 6.2.2.1: hex digits have no case.
    ['case of hex digits', 'https://a.example/a%2fb', 'https://a.example/a%2Fb'],
  ])('%s does not count', (_rule, a, b) => {
    expect(full(a)).toBe(full(b));
  });
});

describe('different pages have different keys', () => {
  it.each<[rule: string, a: string, b: string]>([
    ['case of the path', '/Tours', '/tours'],
    ['another parameter', '/t?a=1', '/t?a=2'],
    ['a parameter that is there or not', '/t?a=1', '/t'],
    // RFC 3986, section 2.2: an encoded reserved character is data, a bare one is structure.
    ['an encoded slash', '/a%2Fb', '/a/b'],
    ['an encoded question mark', '/a%3Fb', '/a?b'],
    ['an encoded percent sign', '/a%2541', '/aA'],
  ])('%s counts', (_rule, a, b) => {
    expect(path(a)).not.toBe(path(b));
  });

  it('a port that is not the default counts', () => {
    expect(full('http://a.example:8080/t')).not.toBe(full('http://a.example/t'));
  });
});

it('an address without a host has a path key only', () => {
  expect(keys('/tours?b=1')).toEqual({ path: '/tours?b=1', full: null });
});

it('bytes that are not UTF-8 are compared as they stand', () => {
  expect(path('/%ff%fe')).toBe('/%FF%FE');
});

it('normalising twice changes nothing', () => {
  const part = fc.oneof(
    fc.string(),
    fc.webPath(),
    fc.constantFrom('%25', '%2541', '%2F', '%C3%A9', '%ff', '//', '?', '&'),
  );
  fc.assert(
    fc.property(fc.array(part, { maxLength: 6 }), (parts) => {
      const once = path(`/${parts.join('')}`);
      expect(path(once)).toBe(once);
    }),
    { numRuns: 2000 },
  );
});

describe('against the standards', () => {
  /** RFC 3986, 6.2.2, written out a second time, over what the WHATWG parser gives; `new URL` is the reference. */
  const reference = (address: string): string => {
    const url = new URL(address);
    const unreserved = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789-._~';
    const plain = (text: string): string => {
      let out = '';
      for (let at = 0; at < text.length; at++) {
        const code = Number.parseInt(text.slice(at + 1, at + 3), 16);
        const isByte = text[at] === '%' && /^[0-9a-f]{2}$/i.test(text.slice(at + 1, at + 3));
        if (!isByte) out += text[at];
        else {
          const character = String.fromCharCode(code);
          out += unreserved.includes(character) ? character : `%${text.slice(at + 1, at + 3).toUpperCase()}`;
          at += 2;
        }
      }
      return out;
    };
    let path = plain(url.pathname);
    while (path.length > 1 && path.endsWith('/')) path = path.slice(0, -1);
    const query = url.search
      .slice(1)
      .split('&')
      .map(plain)
      .filter(
        (pair) => pair !== '' && !TRACKING_PARAMETERS.includes(pair.split('=')[0]?.toLowerCase() as never),
      );
    return url.host + path + (query.length > 0 ? `?${query.join('&')}` : '');
  };
  const piece = fc.constantFrom(
    ...[
      'a',
      'B',
      'é',
      '日',
      '%41',
      '%7e',
      '%2F',
      '%2f',
      '%C3%A9',
      '%c3%a9',
      '%ff',
      '%',
      '%zz',
      '.',
      '..',
      '%2e',
      '/',
      '//',
    ],
    ...[
      '?',
      '&',
      '=',
      '#',
      '+',
      ' ',
      "'",
      '"',
      '<',
      '|',
      '^',
      '`',
      '{',
      '\\',
      ':',
      '@',
      ';',
      ',',
      '!',
      '*',
      '~',
      '_',
      '-',
    ],
    ...['utm_source=x', 'UTM_ID', 'a=1', 'b', '\t', '\u200b', '🜁'],
  );
  const host = fc.constantFrom(
    ...[
      'quillonfell.example',
      'QUILLONFELL.example:80',
      'quillonfell.example:443',
      'quillonfell.example:8080',
    ],
    ...[
      'bücher.example',
      'xn--bcher-kva.example',
      '192.0.2.1',
      '0xC0.0.2.1',
      '[2001:db8::1]',
      'user:word@a.example',
    ],
  );
  const address = fc
    .tuple(fc.constantFrom('http', 'https', 'HTTPS'), host, fc.array(piece, { maxLength: 9 }))
    .map(([scheme, at, parts]) => `${scheme}://${at}/${parts.join('')}`);
  it('300 000 addresses, differences none (WHATWG URL; RFC 3986, 6.2.2)', () => {
    let looked = 0;
    fc.assert(
      fc.property(address, (one) => {
        if (!URL.canParse(one)) return;
        looked++;
        if (full(one) !== reference(one)) throw new Error(`${one}: ${full(one)} against ${reference(one)}`);
      }),
      { numRuns: Number(process.env.VELARIUM_CASES ?? 300_000) },
    );
    expect(looked).toBeGreaterThan(100_000);
  }, 60_000);
});

it('takes time in proportion to the address: 64 000 slashes are no more than so many letters', () => {
  const long = `/${'/'.repeat(64_000)}x`;
  const startMs = performance.now();
  expect(path(long).length).toBe(long.length);
  expect(performance.now() - startMs).toBeLessThan(1000);
});

describe('a site whose fragments are routes', () => {
  const routed = createKeyReader({ ...settings, hashRoutes: true });
  it.each<[rule: string, a: string, b: string, isSame: boolean]>([
    ['two routes are two pages', '/app#/tours', '/app#/shop', false],
    ['a route is not the page without it', '/app#/tours', '/app', false],
    ['a trailing slash of a route does not count', '/app#/tours/', '/app#/tours', true],
    ['a tracking parameter before the route', '/app?utm_source=x#/tours', '/app#/tours', true],
    ['a trailing slash before the route', '/app/#/tours', '/app#/tours', true],
    ['a parameter of the route', '/app#/tours?a=1', '/app#/tours', false],
    ['a route in the old way of writing is one too', '/app#!/tours', '/app#!/shop', false],
    ['a mere anchor still does not count', '/app#dates', '/app', true],
    ['tracking parameters of a route do not count', '/app#/tours?utm_source=x', '/app#/tours', true],
  ])('%s', (_rule, a, b, isSame) => {
    expect(routed(a).path === routed(b).path).toBe(isSame);
  });
});
