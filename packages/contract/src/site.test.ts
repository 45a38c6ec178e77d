import { describe, expect, it } from 'vitest';
import { originSchema } from './site.ts';

describe('an address of a site', () => {
  // WHATWG URL: what a browser sends as the origin of a page.
  it.each([
    ['https://quillonfell.example', 'https://quillonfell.example'],
    [' https://Quillonfell.Example/ ', 'https://quillonfell.example'],
    ['HTTPS://quillonfell.example:443', 'https://quillonfell.example'],
    ['http://quillonfell.example:80', 'http://quillonfell.example'],
    ['http://127.0.0.1:4410', 'http://127.0.0.1:4410'],
    ['https://sternwarte-höhe.example', 'https://xn--sternwarte-hhe-6pb.example'],
  ])('%s is %s', (typed, origin) => {
    expect(originSchema.parse(typed)).toBe(origin);
  });
  it.each([
    ['quillonfell.example', 'write it like https://example.org, without a path'],
    ['https://quillonfell.example/shop', 'write it like https://example.org, without a path'],
    ['https://quillonfell.example?a', 'write it like https://example.org, without a path'],
    ['ftp://quillonfell.example', 'write it like https://example.org, without a path'],
    ['https://mara@quillonfell.example', 'write it like https://example.org, without a path'],
    // A port with a digit too many, and a host that is none.
    ['https://quillonfell.example:80800', 'no browser knows such an address'],
    ['https://quillonfell.5', 'no browser knows such an address'],
  ])('%s is none: %s', (typed, why) => {
    expect(originSchema.safeParse(typed).error?.issues.map(({ message }) => message)).toEqual([why]);
  });
});
