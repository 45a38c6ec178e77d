import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seenAddress } from './seen-address.ts';

describe('an address as people see it', () => {
  it.each<[what: string, address: string, seen: string]>([
    ['letters beyond ASCII', '/caf%C3%A9/%E6%97%A5', '/café/日'],
    ['a sign of four bytes', '/%F0%9F%9C%81', '/🜁'],
    ['what need not be encoded', '/%7Eanna', '/~anna'],
    ['structure stays encoded', '/a%2Fb%3Fc%20d%25', '/a%2Fb%3Fc%20d%25'],
    ['a bad byte spoils only itself', '/caf%C3%A9%FF%C3%A9', '/café%FFé'],
    ['a character cut off', '/%E6%97', '/%E6%97'],
    ['an overlong way of writing (RFC 3629, 10)', '/%C0%AF', '/%C0%AF'],
    ['half of a surrogate pair (RFC 3629, 3)', '/%ED%A0%80', '/%ED%A0%80'],
  ])('%s', (_what, address, seen) => {
    expect(seenAddress(address)).toBe(seen);
  });
  it('reads every well-formed text back, structure apart', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (text) => {
        const encoded = encodeURIComponent(text);
        expect(decodeURIComponent(seenAddress(encoded))).toBe(text);
      }),
    );
  });
});
