import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { readPagesFile } from './read-pages-file.ts';

const pagesOf = (text: string) => {
  const read = readPagesFile(text);
  if (read.fault !== undefined) throw new Error(read.fault);
  return read;
};

describe('pages from a CSV file (RFC 4180)', () => {
  it('quoted fields hold commas, line breaks and doubled quotes', () => {
    expect(pagesOf('path,title\r\n/a,"Aurora, ""live""\r\ntonight"\r\n').pages).toEqual([
      { path: '/a', title: 'Aurora, "live"\r\ntonight', kind: null },
    ]);
  });
  it.each([
    ['semicolons, as some programs write them', 'Path;Title;Kind\n/a;A;article'],
    ['columns in another order, with a byte order mark', '\uFEFFkind,title,path\narticle,A,/a'],
    ['whole addresses', 'url,title,kind\nhttps://quillonfell.example/a,A,article'],
  ])('%s', (_what, text) => {
    expect(pagesOf(text).pages).toEqual([{ path: '/a', title: 'A', kind: 'article' }]);
  });
  it('lines without a path are left out and counted', () => {
    expect(pagesOf('path\n/a\nb\n\n/c')).toMatchObject({
      pages: [{ path: '/a' }, { path: '/c' }],
      skipped: 1,
    });
  });
  it.each([
    ['title\nA', /must name a column “path”/],
    ['path\nno', /No line of this file/],
    ['', /must name a column/],
  ])('%j is refused in words', (text, fault) => {
    expect(readPagesFile(text).fault).toMatch(fault);
  });
  it('what another program writes is read back', () => {
    const rows = [{ path: '/x?y=1', title: 'A "b", c\nd', kind: 'article' }];
    expect(pagesOf(Papa.unparse(rows)).pages).toEqual(rows);
  });
});
