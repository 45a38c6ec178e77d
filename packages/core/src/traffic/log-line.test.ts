/// <reference path="../testing/clf-parser.d.ts" />
import clf from 'clf-parser';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readLogLine } from './log-line.ts';

/** Source: Apache HTTP Server documentation, "Log Files", the example of the Combined Log Format. */
const DOCUMENTED =
  '127.0.0.1 - frank [10/Oct/2000:13:55:36 -0700] "GET /apache_pb.gif HTTP/1.0" 200 2326 "http://www.example.com/start.html" "Mozilla/4.08 [en] (Win98; I ;Nav)"';
const line = (request: string, { from = '-', agent = 'Desk/1', time = '24/Nov/2026:10:00:00 +0000' } = {}) =>
  `203.0.113.7 - - [${time}] "${request}" 200 512 "${from}" "${agent}"`;

describe('a line of a combined log', () => {
  it('is read as its documentation says', () => {
    expect(readLogLine(DOCUMENTED)).toEqual({
      address: '127.0.0.1',
      atMs: Date.parse('2000-10-10T20:55:36Z'),
      method: 'GET',
      target: '/apache_pb.gif',
      status: 200,
      referrer: 'http://www.example.com/start.html',
      agent: 'Mozilla/4.08 [en] (Win98; I ;Nav)',
    });
  });

  it('is read as clf-parser reads it', () => {
    const word = fc.stringMatching(/^[a-zA-Z0-9 ();:,./_=&?+-]{1,40}$/).map((text) => `x${text.trim()}`);
    const aLine = fc.record({
      address: fc.oneof(fc.ipV4(), fc.constantFrom('2001:db8::7', 'host-7.example')),
      at: fc.date({ min: new Date('2001-01-01'), max: new Date('2035-12-31'), noInvalidDate: true }),
      path: fc.stringMatching(/^\/[a-z0-9/._?=&%-]{0,30}$/),
      method: fc.constantFrom('GET', 'POST', 'HEAD'),
      status: fc.constantFrom(200, 304, 404, 500),
      from: word,
      agent: word,
    });
    const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
    fc.assert(
      fc.property(aLine, ({ address, at, path, method, status, from, agent }) => {
        const two = (value: number) => String(value).padStart(2, '0');
        const time = `${two(at.getUTCDate())}/${months[at.getUTCMonth()]}/${at.getUTCFullYear()}:${two(at.getUTCHours())}:${two(at.getUTCMinutes())}:${two(at.getUTCSeconds())} +0000`;
        const text = `${address} - - [${time}] "${method} ${path} HTTP/1.1" ${status} 99 "${from}" "${agent}"`;
        const other = clf(text);
        expect(readLogLine(text)).toEqual({
          address: other.remote_addr,
          atMs: other.time_local.getTime(),
          method: other.http_method,
          target: other.path,
          status: other.status,
          // It leaves the quotation marks where they are.
          referrer: other.http_referer.replace(/^"|"$/g, ''),
          agent: other.http_user_agent,
        });
      }),
    );
  });

  it.each<[what: string, text: string, expected: object]>([
    ['a virtual host in front', `quillonfell.example:443 ${line('GET /a HTTP/2')}`, { target: '/a' }],
    ['more behind', `${line('GET /a HTTP/1.1')} "203.0.113.9" 0.031`, { target: '/a', agent: 'Desk/1' }],
    ['a whole address asked for', line('GET http://s.example/a?b=1 HTTP/1.1'), { target: '/a?b=1' }],
    [
      'a zone half an hour off',
      line('GET / HTTP/1.1', { time: '24/Nov/2026:10:00:00 +0530' }),
      { atMs: Date.parse('2026-11-24T04:30Z') },
    ],
    [
      'a quotation mark in the agent',
      line('GET / HTTP/1.1', { agent: String.raw`A \"B\" C` }),
      { agent: 'A "B" C' },
    ],
    ['bytes of a path', line(String.raw`GET /caf\xc3\xa9 HTTP/1.1`), { target: '/caf%c3%a9' }],
    ['a request that is none', line(String.raw`\x16\x03\x01`), { method: '', target: null }],
    ['no request at all', line('-'), { method: '', target: null }],
    ['an address that is none', line('GET http://[ HTTP/1.1'), { method: 'GET', target: null }],
    ['another scheme', line('GET ftp://s.example/a HTTP/1.1'), { method: 'GET', target: null }],
    [
      'a leap second',
      line('GET / HTTP/1.1', { time: '31/Dec/2016:23:59:60 +0000' }),
      { atMs: Date.parse('2017-01-01T00:00Z') },
    ],
    ['a name with a blank in it', line('GET / HTTP/1.1').replace('- - [', '- mara elwin ['), { target: '/' }],
  ])('with %s', (_what, text, expected) => {
    expect(readLogLine(text)).toMatchObject(expected);
  });

  it.each<[what: string, text: string, why: RegExp]>([
    ['prose', 'server started', /not of the form/],
    ['markup', '<script>alert(1)</script>', /not of the form/],
    ['another format, of objects', '{"path":"/a","status":200}', /not of the form/],
    ['one cut off', line('GET / HTTP/1.1').slice(0, 60), /not of the form/],
    ['one without an agent', line('GET / HTTP/1.1').split(' "-"')[0] ?? '', /without where from and agent/],
    [
      'a day there is not',
      line('GET / HTTP/1.1', { time: '31/Feb/2026:10:00:00 +0000' }),
      /a time there is not/,
    ],
    [
      'a month there is not',
      line('GET / HTTP/1.1', { time: '01/Foo/2026:10:00:00 +0000' }),
      /a time there is not/,
    ],
    [
      'an hour there is not',
      line('GET / HTTP/1.1', { time: '01/Nov/2026:25:00:00 +0000' }),
      /a time there is not/,
    ],
    ...['24:00:00', '10:60:00', '10:59:61'].map((time): [string, string, RegExp] => [
      `a time there is not, ${time}`,
      line('GET / HTTP/1.1', { time: `01/Nov/2026:${time} +0000` }),
      /^of a time there is not: 01\/Nov/,
    ]),
    ['one that is very long', line(`GET /${'a'.repeat(20_000)} HTTP/1.1`), /longer than/],
  ])('is refused with the reason: %s', (_what, text, why) => {
    expect(readLogLine(text)).toMatch(why);
  });

  it('is as long as 16,384 letters, and no longer', () => {
    const long = (more: number) => {
      const bare = line('GET / HTTP/1.1', { agent: '' });
      return readLogLine(line('GET / HTTP/1.1', { agent: 'a'.repeat(16_384 - bare.length + more) }));
    };
    expect(long(0)).toMatchObject({ target: '/' });
    expect(long(1)).toBe('longer than 16384 letters');
  });

  it('takes no longer for one made to be slow than for any other', () => {
    // Each part ends where the next begins, so a thousand of what repeats is gone over once.
    for (const part of ['"\\', '[', ' - ', '" "', '\\"', 'a:1 '])
      expect(typeof readLogLine(line(`GET ${part.repeat(4000)}`))).toMatch(/string|object/);
  });
});
