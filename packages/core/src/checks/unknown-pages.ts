import type { ElementSeen, PageRule, Pages, Rule, SitePage, SiteSettings } from '@velarium/contract';
import { createAddressTrial } from '../pages/address-trial.ts';
import type { SitePages } from '../pages/resolve-pages.ts';
import { NO_NAMES } from '../sentence/names.ts';
import { pageWords } from '../sentence/reach-words.ts';
import { figure } from '../sentence/words.ts';
import type { Finding } from './finding.ts';

/** More letters apart than this and it is no slip of the keyboard. */
const SLIP = 3;

/** What is known of a site's pages. */
interface Site {
  readonly settings: SiteSettings;
  readonly origins: readonly string[];
  readonly pages: SitePages;
}

/** Letters to put in, take out or change to make one word of the other. Source: Levenshtein (1966). */
export function lettersApart(one: string, other: string): number {
  let row = Array.from({ length: other.length + 1 }, (_, n) => n);
  for (let a = 1; a <= one.length; a++) {
    const next = [a];
    for (let b = 1; b <= other.length; b++) {
      const changed = (row[b - 1] as number) + (one[a - 1] === other[b - 1] ? 0 : 1);
      next.push(Math.min(changed, (row[b] as number) + 1, (next[b - 1] as number) + 1));
    }
    row = next;
  }
  return row.at(-1) as number;
}

/** The known page, or folder of pages, that somebody may have meant. */
function nearest(address: string, known: readonly SitePage[]): string | undefined {
  if (!address.startsWith('/')) return undefined;
  const isFolder = address.endsWith('/');
  const places = isFolder
    ? [...new Set(known.map(({ path }) => path.slice(0, path.indexOf('/', 1) + 1)))].filter(Boolean)
    : known.map(({ path }) => path);
  const [best] = places
    .filter((place) => Math.abs(place.length - address.length) <= SLIP)
    .map((place) => ({ place, apart: lettersApart(address, place) }))
    .filter(({ apart }) => apart > 0 && apart <= Math.min(SLIP, address.length / 2))
    .sort((a, b) => a.apart - b.apart);
  return best?.place;
}

/** What only a page itself can tell covers nothing that is known, and is no mistake. */
const IS_SEEN_ON_PAGES: ReadonlySet<PageRule['kind']> = new Set(['every', 'holds', 'group']);

/**
 * Page rules that cover no page the site is known to have: a slip of the keyboard more often than a page to come. Nothing
 * is said of a site of which no page is known.
 */
export function unknownPages(pages: Pages, known: readonly SitePage[], site: Site): Finding[] {
  if (known.length === 0) return [];
  const trial = createAddressTrial(pages, site);
  const [origin = 'https://site.example'] = site.origins;
  const met = new Set(
    known.flatMap(
      ({ path, kind }) => trial(origin + path, { kind: kind ?? '', holds: () => false }).includedBy,
    ),
  );
  return pages.include.flatMap((rule, n): Finding[] => {
    if (met.has(n) || IS_SEEN_ON_PAGES.has(rule.kind)) return [];
    const meant = 'address' in rule ? nearest(rule.address, known) : undefined;
    const of = known.length === 1 ? 'the one known page' : `the ${figure(known.length)} known pages`;
    return [
      {
        severity: 'warn',
        code: 'pages.unknown',
        part: 'pages',
        text: `None of ${of} is among “${pageWords(rule, NO_NAMES)}”. ${
          meant ? `Is “${meant}” meant?` : 'Look at the address, or put the page among the site’s pages.'
        }`,
      },
    ];
  });
}

/** The elements that a rule speaks of. */
export const elementsOf = ({ moment, reach }: Rule): string[] => [
  ...new Set([
    ...moment.triggers.flatMap((trigger) => ('selector' in trigger ? trigger.selector : [])),
    ...[...reach.pages.include, ...reach.pages.exclude].flatMap((page) =>
      page.kind === 'holds' ? page.selector : [],
    ),
  ]),
];

/** Elements that none of the pages that were looked at has in its source. */
export const unknownElements = (seen: readonly ElementSeen[]): Finding[] =>
  seen.flatMap(({ selector, pages, of }) =>
    pages.length > 0 || of === 0
      ? []
      : [
          {
            severity: 'warn',
            code: 'moment.element',
            part: 'moment',
            text: `${
              of === 1
                ? `The page that was looked at has no element “${selector}”`
                : `None of the ${of} pages that were looked at has an element “${selector}”`
            } in its source. Pick it on the page, unless a script puts it there.`,
          },
        ],
  );
