import { type AddPages, addPagesSchema } from '@velarium/contract';
import Papa from 'papaparse';

type Read =
  | { readonly pages: AddPages['pages']; readonly skipped: number; readonly fault?: undefined }
  | { readonly fault: string };

const COLUMNS: Readonly<Record<string, 'path' | 'title' | 'kind'>> = {
  path: 'path',
  address: 'path',
  url: 'path',
  title: 'title',
  name: 'title',
  kind: 'kind',
  type: 'kind',
};

/** A whole address counts by its path. */
const pathOf = (text: string): string => {
  const trimmed = text.trim();
  if (!/^https?:\/\//i.test(trimmed) || !URL.canParse(trimmed)) return trimmed;
  const url = new URL(trimmed);
  return url.pathname + url.search;
};

/** Reads pages from a CSV file with a head line naming its columns. Source: RFC 4180. */
export function readPagesFile(text: string): Read {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy' });
  const [head = [], ...lines] = data;
  const columns = head.map((name) => COLUMNS[name.trim().toLowerCase()]);
  const at = {
    path: columns.indexOf('path'),
    title: columns.indexOf('title'),
    kind: columns.indexOf('kind'),
  };
  if (at.path < 0)
    return { fault: 'The first line must name a column “path”. “title” and “kind” may follow.' };
  const pages = lines.flatMap((line) => {
    const read = addPagesSchema.shape.pages.element.safeParse({
      path: pathOf(line[at.path] ?? ''),
      title: (line[at.title] ?? '').slice(0, 300),
      kind: line[at.kind]?.trim().slice(0, 80) || null,
    });
    return read.success ? read.data : [];
  });
  if (pages.length === 0) return { fault: 'No line of this file has a path that begins with /.' };
  return { pages, skipped: lines.length - pages.length };
}
