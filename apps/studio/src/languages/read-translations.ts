import type { Written } from '@velarium/core';
import { UnreadableFile } from '../ui/unreadable-file.ts';

/** Texts in one language, as a file brought them. */
export interface ReadTranslations {
  /** What the file says it is in; `undefined` where it does not say. */
  readonly language: string | undefined;
  readonly written: Readonly<Record<string, Written>>;
}

/** What stands in a source or a target: its inline codes, which may be in two halves, as the marks they are in the studio. */
function markedOf(element: Element | undefined): string | undefined {
  if (!element) return undefined;
  return [...element.childNodes]
    .map((node) => {
      if (!(node instanceof Element)) return node.textContent ?? '';
      const within = markedOf(node) ?? '';
      const kind = node.localName;
      const id = node.getAttribute(kind === 'ec' ? 'startRef' : 'id') ?? '';
      if (!/^\d+$/.test(id)) return within;
      if (kind === 'sc') return `<${id}>`;
      if (kind === 'ec') return `</${id}>`;
      return kind === 'pc' ? `<${id}>${within}</${id}>` : within;
    })
    .join('');
}

/** A language as the studio writes it (BCP 47, of which capitals are no part). */
function languageOf(tag: string): string | undefined {
  try {
    return Intl.getCanonicalLocales(tag)[0];
  } catch {
    throw new UnreadableFile(`It says that it is in “${tag}”, which is no language.`);
  }
}

/** Reads an XLIFF file of version 2. Source: OASIS, XLIFF 2.1. */
function readXliff(text: string): ReadTranslations {
  const xml = new DOMParser().parseFromString(text, 'application/xml');
  const fault = xml.querySelector('parsererror');
  if (fault)
    throw new UnreadableFile('It is not well-formed XML. It may have been cut off: save it once more.');
  const root = xml.documentElement;
  if (root.localName !== 'xliff') throw new UnreadableFile('It is XML, but no XLIFF file.');
  const version = root.getAttribute('version') ?? '';
  if (!version.startsWith('2.'))
    throw new UnreadableFile(`It is XLIFF ${version || 'of no version'}. Save it as XLIFF 2.1.`);
  const said = root.getAttribute('trgLang') ?? '';
  const language = said === '' ? undefined : languageOf(said);
  // Whatever the file calls the standard's namespace.
  const inside = (element: Element, ...names: readonly string[]) =>
    [...element.getElementsByTagNameNS('*', '*')].filter(({ localName }) => names.includes(localName));
  const written: Record<string, Written> = {};
  for (const unit of inside(root, 'unit')) {
    const key = unit.getAttribute('id') ?? '';
    // A tool may have cut a text into several segments, and what parts them is nobody's to translate.
    const segments = inside(unit, 'segment', 'ignorable').map((segment) => {
      const of = markedOf(inside(segment, 'source')[0]) ?? '';
      const target = markedOf(inside(segment, 'target')[0]);
      return { of, target: segment.localName === 'ignorable' ? (target ?? of) : target };
    });
    if (segments.length === 0 || segments.some(({ target }) => target === undefined)) continue;
    written[key] = {
      of: segments.map(({ of }) => of).join(''),
      text: segments.map(({ target }) => target ?? '').join(''),
    };
  }
  return { language, written };
}

/** Columns of a table of texts; the first and the last are needed to read one. */
export const TABLE_HEADS = ['key', 'where', 'original', 'translation'] as const;

/** Reads a table of texts. Source: RFC 4180. */
async function readTable(text: string): Promise<ReadTranslations> {
  const { parse } = await import('papaparse');
  const { data, meta, errors } = parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: true,
  });
  const missing = ['key', 'translation'].filter((head) => !meta.fields?.includes(head));
  if (missing.length > 0)
    throw new UnreadableFile(
      `It has no column “${missing.join('” and no column “')}”. Save the texts as a table first, and fill that in.`,
    );
  const wrong = errors.find(({ type }) => type === 'Quotes');
  if (wrong)
    throw new UnreadableFile(
      `In row ${(wrong.row ?? 0) + 1} a quotation mark is not closed, or stands where none can. Mend it and bring the file again.`,
    );
  // Saved so that no sheet takes a text for a formula; that stroke is none of the text.
  const plain = (cell: string | undefined) => cell?.replace(/^'(?=[=+\-@\t\r])/, '').replaceAll('\r\n', '\n');
  const rows = data.flatMap((row): [string, Written][] => {
    const [key, of, target] = [plain(row.key), plain(row.original), plain(row.translation)];
    return key && target?.trim() ? [[key, { text: target, ...(of === undefined ? {} : { of }) }]] : [];
  });
  return { language: undefined, written: Object.fromEntries(rows) };
}

/** Reads texts from a file that a translator sent back. Throws an {@link UnreadableFile}. */
export const readTranslations = async (text: string): Promise<ReadTranslations> =>
  text.trimStart().startsWith('<') ? readXliff(text) : readTable(text);
