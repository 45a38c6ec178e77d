import type { Font, LookRead, LookStyle } from '@velarium/contract';
import { LIMITS } from '@velarium/contract/values';
import { firstFamily, lookOfPage, nearestFont, plainFamily, type StyleRule } from '@velarium/core';
import { type Block, type CssNode, find, generate, parse } from 'css-tree';
import { formatHex, parse as parseColour } from 'culori';
import { DomUtils } from 'htmlparser2';
import { parseHtml } from '../infra/html.ts';
import { OutsideError } from '../infra/network.ts';
import type { ReadOutside } from '../infra/outside.ts';
import { ProblemError } from '../infra/problem.ts';
import { isOverTime, withinTime } from '../infra/within-time.ts';
import { MOST_LETTER_BYTES } from './read-letters.ts';

const TIMEOUT_MS = 8000;
const PAGE_BYTES = 2_000_000;
const SHEET_BYTES = 1_000_000;
/** Sheets of a page that are read; the first are the site's own. */
const MOST_SHEETS = 12;
/** Letters that are asked for. */
const MOST_FACES = 4;
/** How long all of its sheets may take to be read: they are anybody's. */
const READ_MS = 3000;
/** What is longer is no colour, nor one after a few words. */
const LONGEST_COLOUR = 400;

/** The first solid colour in a CSS value. Source: CSS Color Module Level 4, as its parser reads it. */
function colourOf(value: string): string | undefined {
  if (value.length > LONGEST_COLOUR) return undefined;
  const words = value.match(/#[0-9a-f]{3,8}\b|[a-z-]+\([^()]*\)|[a-z]+/gi) ?? [];
  // A picture or a run of colours is no one colour.
  if (words.some((word) => /^(url|.*gradient|image)/i.test(word))) return undefined;
  for (const word of words) {
    const colour = parseColour(word);
    if (colour && (colour.alpha ?? 1) === 1) return formatHex(colour);
  }
  return undefined;
}

/** Letters that a sheet loads, with the address of a WOFF2 file of them. */
interface FaceRule {
  readonly family: string;
  readonly address: string;
}

/** The rules of a sheet that hold on any screen, by day, and the letters it loads. */
function rulesOf({ css, address }: Sheet): { rules: StyleRule[]; faces: FaceRule[] } {
  const rules: StyleRule[] = [];
  const faces: FaceRule[] = [];
  const visit = (node: CssNode) => {
    if (node.type === 'StyleSheet' || node.type === 'Block') node.children.forEach(visit);
    else if (node.type === 'Atrule') {
      const isHere =
        /^(layer|supports)$/i.test(node.name) ||
        (/^media$/i.test(node.name) && /^(all|screen)$/i.test(node.prelude ? generate(node.prelude) : ''));
      if (isHere && node.block) visit(node.block);
      if (/^font-face$/i.test(node.name) && node.block) faces.push(...faceOf(node.block, address));
    } else if (node.type === 'Rule' && node.prelude.type === 'SelectorList') {
      rules.push({
        selectors: node.prelude.children.toArray().map((one) => generate(one)),
        declarations: node.block.children
          .toArray()
          .flatMap((one) =>
            one.type === 'Declaration' ? [[one.property, generate(one.value)] as const] : [],
          ),
      });
    }
  };
  visit(parse(css, { onParseError: () => {} }));
  return { rules, faces };
}

/** Upright letters with a WOFF2 file that can be asked for. Source: CSS Fonts Level 4, `@font-face`. */
function faceOf(block: Block, sheet: string): FaceRule[] {
  const said = new Map(
    block.children
      .toArray()
      .flatMap((one) =>
        one.type === 'Declaration' ? [[one.property.toLowerCase(), one.value] as const] : [],
      ),
  );
  const words = (property: string) => {
    const value = said.get(property);
    return value ? generate(value) : '';
  };
  if (/italic|oblique/i.test(words('font-style'))) return [];
  // Of those of several alphabets the one with the plainest letters.
  if (said.has('unicode-range') && !/U\+0{0,4}-/i.test(words('unicode-range'))) return [];
  const source = said.get('src');
  const url = source && find(source, (node) => node.type === 'Url' && /\.woff2(\?|#|$)/i.test(node.value));
  if (url?.type !== 'Url' || !URL.canParse(url.value, sheet)) return [];
  const { href, protocol } = new URL(url.value, sheet);
  const family = plainFamily(words('font-family')).slice(0, 80);
  return /^https?:$/.test(protocol) && href.length <= LIMITS.pageAddress && family
    ? [{ family, address: href }]
    : [];
}

const unread = (detail: string) =>
  new ProblemError(422, 'no-look', 'No Look could be read from this page', detail, [
    { path: 'path', message: 'nothing could be read' },
  ]);

/** What a page says in its own words, or in a sheet of its own address. */
interface Sheet {
  readonly css: string;
  readonly address: string;
}
/** Letters that a page is set in. */
export interface FoundFace {
  readonly family: string;
  readonly like: Font;
  readonly bytes: Buffer;
}

/**
 * Reads a Look from a page of the site: its own words and those of its sheets, with the letters it is set in.
 *
 * @throws {ProblemError} In words, when the page cannot be had or says nothing of how it looks.
 */
export async function readLook(
  outside: ReadOutside,
  origin: string,
  path: string,
): Promise<LookRead & { faces: FoundFace[] }> {
  const page = await ask(outside, origin + path, PAGE_BYTES, 'text/html').catch((error) => {
    throw error instanceof OutsideError ? unread(`${error.message}.`) : error;
  });
  if (page.status !== 200) throw unread(`The page answered with status ${page.status}.`);
  const { children } = parseHtml(page.text);
  const sources = DomUtils.filter(
    (node) =>
      DomUtils.isTag(node) &&
      (node.name === 'style' || (node.name === 'link' && /\bstylesheet\b/i.test(node.attribs.rel ?? ''))),
    children,
  ).slice(0, MOST_SHEETS);
  const sheets = await Promise.all(
    sources.map(async (node): Promise<Sheet> => {
      const nothing = { css: '', address: page.address };
      if (!DomUtils.isTag(node)) return nothing;
      if (node.name === 'style') return { ...nothing, css: DomUtils.textContent(node.children) };
      const { href = '' } = node.attribs;
      if (!URL.canParse(href, page.address)) return nothing;
      const { href: address, protocol } = new URL(href, page.address);
      if (!/^https?:$/.test(protocol) || address.length > LIMITS.pageAddress) return nothing;
      // A sheet that cannot be had leaves the others.
      const sheet = await ask(outside, address, SHEET_BYTES, 'text/css').catch(() => undefined);
      return sheet?.status === 200 ? { css: sheet.text, address: sheet.address } : nothing;
    }),
  );
  const { look, faces } = lookOf(sheets);
  if (look.read.length === 0)
    throw unread(
      'Its sheets name neither colours nor letters for the whole page. Try another page of the site.',
    );
  return {
    ...look,
    faces: await facesOf(outside, look.style, faces),
  };
}

/** What the sheets say together; one that takes too long, or lies deeper in itself than can be followed, leaves the others. */
function lookOf(sheets: readonly Sheet[]) {
  const untilMs = performance.now() + READ_MS;
  const found = sheets.flatMap((sheet) => {
    try {
      return withinTime(untilMs - performance.now(), () => rulesOf(sheet));
    } catch (error) {
      if (isOverTime(error) || error instanceof RangeError) return [];
      throw error;
    }
  });
  const rules = found.flatMap((one) => one.rules);
  return { look: lookOfPage(rules, colourOf), faces: found.flatMap(({ faces }) => faces) };
}

/** The letters of the Look that the page loads itself; one that cannot be had leaves the others. */
async function facesOf(
  outside: ReadOutside,
  { fonts }: LookStyle,
  faces: readonly FaceRule[],
): Promise<FoundFace[]> {
  const wanted = new Map([fonts.text, fonts.heading].map((font) => [firstFamily(font), nearestFont(font)]));
  const found = await Promise.all(
    faces
      .filter(({ family }) => wanted.has(family))
      .slice(0, MOST_FACES)
      .map(async ({ family, address }): Promise<FoundFace[]> => {
        const answer = await outside(address, {
          mostBytes: MOST_LETTER_BYTES,
          timeoutMs: TIMEOUT_MS,
          accept: 'font/woff2',
        }).catch(() => undefined);
        return answer?.status === 200
          ? [{ family, like: wanted.get(family) ?? 'sans', bytes: answer.bytes }]
          : [];
      }),
  );
  return found.flat();
}

async function ask(outside: ReadOutside, address: string, mostBytes: number, accept: string) {
  const answer = await outside(address, { mostBytes, timeoutMs: TIMEOUT_MS, accept });
  return { ...answer, text: answer.bytes.toString('utf8') };
}
