/** What is looked at of a title, and the longest that is kept, UTF-16 units. */
const READ_OF_TITLE = 1000;
const LONGEST_TITLE = 300;

/** A title as it is kept: in one line, and no longer than anybody reads. It may have been written by anybody. */
export const tidyTitle = (said: string): string =>
  said.slice(0, READ_OF_TITLE).replace(/\s+/g, ' ').trim().slice(0, LONGEST_TITLE);

/** Between the title of a page and what stands in all of a site's (common practice). */
const BETWEEN = /\s+[·|–—:»«•-]\s+/;
/** A part that this share of a site's pages has in common is the site's, not the page's. */
const COMMON = 0.5;

/**
 * What a site's pages are called, without what their titles have in common: of “Aurora · Quillon Fell” and “Tours ·
 * Quillon Fell” the first parts. Titles that would be left without a word, or alike, stay whole.
 */
export function ownTitles(titles: readonly string[]): string[] {
  const parts = titles.map((title) => title.split(BETWEEN).map((part) => part.trim()));
  const least = Math.max(2, titles.length * COMMON);
  const [firsts, lasts] = [commonAt(0), commonAt(-1)];
  /** What so many titles of more than one part have at this place. */
  function commonAt(at: 0 | -1): ReadonlySet<string> {
    const counts = new Map<string, number>();
    for (const own of parts) {
      const part = own.at(at) as string;
      if (own.length > 1) counts.set(part, (counts.get(part) ?? 0) + 1);
    }
    return new Set([...counts].flatMap(([part, count]) => (count >= least ? part : [])));
  }
  const cut = parts.map((own, n) => {
    const from = own.length > 1 && firsts.has(own[0] as string) ? 1 : 0;
    const to = own.length - from > 1 && lasts.has(own.at(-1) as string) ? own.length - 1 : own.length;
    const title = titles[n] as string;
    if (from === 0 && to === own.length) return title;
    // The words between, as they stand.
    const start = from === 0 ? 0 : title.indexOf(own[from] as string, (own[0] as string).length);
    const end = to === own.length ? title.length : title.lastIndexOf(own.at(-1) as string);
    return title
      .slice(start, end)
      .replace(/\s+[·|–—:»«•-]\s*$/, '')
      .trim();
  });
  const seen = new Map<string, number>();
  for (const title of cut) seen.set(title, (seen.get(title) ?? 0) + 1);
  return cut.map((title, n) => (title === '' || (seen.get(title) ?? 0) > 1 ? (titles[n] as string) : title));
}
