import { expect, it } from 'vitest';
import { blockedBy } from './policy.ts';

const EDGE = 'https://edge.example';
const SITE = 'https://www.site.example';
const ALL = ['script-src', 'connect-src', 'img-src', 'font-src'];

// Source: W3C Content Security Policy Level 3, 6.7.2 (matching) and 6.1 (fallbacks), rule by rule.
it.each<[policy: string, blocked: string[]]>([
  ["frame-ancestors 'none'", []],
  ["default-src 'self'", ALL],
  ["default-src 'self' https://edge.example", []],
  ["default-src 'none'; script-src *; connect-src https:; img-src edge.example", ['font-src']],
  ["default-src *; font-src 'self' data:", ['font-src']],
  ["default-src 'self' edge.example; font-src https:", []],
  ["default-src *; connect-src 'self'", ['connect-src']],
  ["script-src 'self'; SCRIPT-SRC *", ['script-src']],
  ["script-src-elem https://edge.example; script-src 'none'", []],
  ["script-src 'nonce-abc'", ['script-src']],
  ["script-src 'strict-dynamic' https://edge.example", ['script-src']],
  ['default-src *.example', []],
  ['default-src *.edge.example', ALL],
  ['default-src https://edge.example:443', []],
  ['default-src https://edge.example:8443', ALL],
  ['default-src edge.example:*', []],
  ['default-src http://edge.example', []],
  ['default-src ftp:', ALL],
  ['default-src https://edge.example/other/', ALL],
  ['default-src', ALL],
  ['', []],
])('%j keeps away %j', (policy, blocked) => {
  expect(blockedBy([policy], EDGE, SITE)).toEqual(blocked);
});
it('an unencrypted source lets the encrypted one through where the ports are their own', () => {
  expect(blockedBy(['default-src http://edge.example:*'], EDGE, 'http://site.example')).toEqual([]);
  expect(blockedBy(['default-src edge.example'], EDGE, 'http://site.example')).toEqual([]);
});
it('every policy must allow it, and the site’s own host counts as itself', () => {
  expect(blockedBy(['default-src *', "connect-src 'self'"], EDGE, SITE)).toEqual(['connect-src']);
  expect(blockedBy(["default-src 'self'"], SITE, SITE)).toEqual([]);
  expect(blockedBy(["default-src 'self'"], 'http://127.0.0.1:4401', 'http://127.0.0.1:4410')).toEqual(ALL);
  expect(blockedBy(['default-src 127.0.0.1:4401'], 'http://127.0.0.1:4401', 'http://127.0.0.1:4410')).toEqual(
    [],
  );
});
