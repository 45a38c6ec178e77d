import type { PageRule } from '@velarium/contract';
import { TRACKING_PARAMETERS } from '@velarium/contract/values';
import { expect, it } from 'vitest';
import { compilePageRule } from '../manifest/compile.ts';
import { createKeyReader } from './page-key.ts';
import { isOnPage, pageAddress } from './page-rule.ts';
import { isOnPlainPage } from './plain-page-rule.ts';

const keysOf = createKeyReader({ trackingParameters: TRACKING_PARAMETERS, hashRoutes: false });
const facts = { kind: '', holds: () => false };

it('what only the rarer part reads is on no page for who has it not', () => {
  const rule = compilePageRule({ kind: 'wildcard', pattern: '/**' }, keysOf);
  if (!rule) throw new Error('expected a rule');
  expect(isOnPlainPage(rule, keysOf('/a'))).toBe(false);
});

it.each<[what: string, rule: PageRule, href: string, isOn: boolean]>([
  [
    'a tracking parameter can be asked for',
    { kind: 'parameter', name: 'utm_source', value: 'letter' },
    '/a?utm_source=letter',
    true,
  ],
  [
    'an encoded parameter name (WHATWG URL)',
    { kind: 'parameter', name: 'a b', value: 'c d' },
    '/a?a%20b=c+d',
    true,
  ],
  ['a plus sign is a space (WHATWG URL)', { kind: 'parameter', name: 'a b', value: null }, '/a?a+b', true],
  ['the first of two counts', { kind: 'parameter', name: 'a', value: '2' }, '/a?a=1&a=2', false],
  ['a parameter of the fragment', { kind: 'parameter', name: 'a', value: '1' }, '/app#/x?a=1', true],
  ['a slash at the end is seen', { kind: 'contains', text: '/journal/' }, 'https://f.example/journal/', true],
  ['as it is without one', { kind: 'contains', text: 'journal?a' }, 'https://f.example/journal/?a=1', true],
  [
    'the scheme is seen',
    { kind: 'contains', text: 'https://f.example/j' },
    'https://f.example/journal',
    true,
  ],
  [
    'letters beyond ASCII, as they are typed',
    { kind: 'contains', text: 'café' },
    'https://f.example/caf%C3%A9',
    true,
  ],
  ['and as they are copied', { kind: 'contains', text: 'caf%C3%A9' }, 'https://f.example/caf%C3%A9', true],
  [
    'a pattern of the path, anchored at its end',
    { kind: 'regex', pattern: '^/journal/[a-z-]+$' },
    'https://f.example/journal/aurora/?utm_source=letter#top',
    true,
  ],
  [
    'a pattern that wants the slash',
    { kind: 'regex', pattern: '/journal/$' },
    'https://f.example/journal/',
    true,
  ],
  [
    'a pattern of the whole address',
    { kind: 'regex', pattern: '^https://f\\.example/j' },
    'https://f.example/journal',
    true,
  ],
  [
    'no pattern of a path begins at the host',
    { kind: 'regex', pattern: '^f' },
    'https://f.example/journal',
    false,
  ],
  [
    'begins with a path and a query',
    { kind: 'begins', address: '/tours/?a=1' },
    'https://f.example/tours/?a=1&b=2',
    true,
  ],
  [
    'not with another query',
    { kind: 'begins', address: '/tours/?a=1' },
    'https://f.example/tours/?a=2',
    false,
  ],
  ['begins with a folder', { kind: 'begins', address: '/journal/' }, 'https://f.example/journal', true],
  [
    'a folder with a tracking parameter behind it',
    { kind: 'begins', address: '/journal/?utm_source=letter' },
    'https://f.example/journal',
    true,
  ],
  [
    'a folder with a tracking parameter behind it',
    { kind: 'begins', address: '/journal/?utm_source=letter' },
    'https://f.example/journal/aurora',
    true,
  ],
  [
    'a folder with a tracking parameter behind it',
    { kind: 'begins', address: '/journal/?utm_source=letter' },
    'https://f.example/journalism',
    false,
  ],
  [
    'a folder with a fragment behind it',
    { kind: 'begins', address: '/journal/#top' },
    'https://f.example/journal',
    true,
  ],
  [
    'a folder with a fragment behind it',
    { kind: 'begins', address: '/journal/#top' },
    'https://f.example/journal/aurora',
    true,
  ],
  [
    'a folder with a fragment behind it',
    { kind: 'begins', address: '/journal/#top' },
    'https://f.example/journalism',
    false,
  ],
  [
    'a folder with two slashes at its end',
    { kind: 'begins', address: '/journal//' },
    'https://f.example/journal',
    true,
  ],
  [
    'a folder with two slashes at its end',
    { kind: 'begins', address: '/journal//' },
    'https://f.example/journal/aurora',
    true,
  ],
  [
    'a folder with two slashes at its end',
    { kind: 'begins', address: '/journal//' },
    'https://f.example/journalism',
    false,
  ],
  [
    'never with a longer word',
    { kind: 'begins', address: '/journal/' },
    'https://f.example/journalism',
    false,
  ],
  [
    'a host in any writing',
    { kind: 'begins', address: 'https://bücher.example/a' },
    'https://xn--bcher-kva.example/a/b',
    true,
  ],
])('%s', (_what, rule, href, isOn) => {
  const compiled = compilePageRule(rule, keysOf);
  expect(compiled && isOnPage(compiled, pageAddress(href, keysOf(href)), facts)).toBe(isOn);
});

it.each<[address: string, covered: string]>([
  ['/app/', '/app /app/?a=1 /app/#/ /app/#/tours /app#/tours/1 /app/#/toursome /app/?a=1#/tours /app/x'],
  ['/app/#/', '/app/#/ /app/#/tours /app#/tours/1 /app/#/toursome'],
  ['/app#/tours/', '/app/#/tours /app#/tours/1'],
  ['/app/#/tours/?b=1', ''],
  ['/app#/tours', '/app/#/tours /app#/tours/1 /app/#/toursome'],
  ['/app/?a=1', '/app/?a=1 /app/?a=1#/tours'],
])('with routes behind a fragment, what begins with %s is %s', (address, covered) => {
  const routes = createKeyReader({ trackingParameters: TRACKING_PARAMETERS, hashRoutes: true });
  const rule = compilePageRule({ kind: 'begins', address }, routes);
  if (!rule) throw new Error('expected a rule');
  const all =
    '/app /app/?a=1 /app/#/ /app/#/tours /app#/tours/1 /app/#/toursome /app/?a=1#/tours /app/x /apple /apple#/tours';
  expect(
    all
      .split(' ')
      .filter((href) => isOnPlainPage(rule, routes(href)))
      .join(' '),
  ).toBe(covered);
});
