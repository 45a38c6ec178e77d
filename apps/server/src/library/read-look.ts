import type { LookRead } from '@velarium/contract';
import { LIMITS } from '@velarium/contract/values';
import { lookOfPage, type StyleRule } from '@velarium/core';
import { type CssNode, generate, parse } from 'css-tree';
import { formatHex, parse as parseColour } from 'culori';
import { DomUtils, parseDocument } from 'htmlparser2';
import { OutsideError } from '../infra/network.ts';
import type { ReadOutside } from '../infra/outside.ts';
import { ProblemError } from '../infra/problem.ts';

const TIMEOUT_MS = 8000;
const PAGE_BYTES = 2_000_000;
const SHEET_BYTES = 1_000_000;
/** Sheets of a page that are read; the first are the site's own. */
const MOST_SHEETS = 12;

/** The first solid colour in a CSS value. Source: CSS Color Module Level 4, as its parser reads it. */
function colourOf(value: string): string | undefined {
  const words = value.match(/#[0-9a-f]{3,8}\b|[a-z-]+\([^()]*\)|[a-z]+/gi) ?? [];
  // A picture or a run of colours is no one colour.
  if (words.some((word) => /^(url|.*gradient|image)/i.test(word))) return undefined;
  for (const word of words) {
    const colour = parseColour(word);
    if (colour && (colour.alpha ?? 1) === 1) return formatHex(colour);
  }
  return undefined;
}

/** The rules of a sheet that hold on any screen, by day. */
function rulesOf(css: string): StyleRule[] {
  const rules: StyleRule[] = [];
  const visit = (node: CssNode) => {
    if (node.type === 'StyleSheet' || node.type === 'Block') node.children.forEach(visit);
    else if (node.type === 'Atrule') {
      const isHere =
        /^(layer|supports)$/i.test(node.name) ||
        (/^media$/i.test(node.name) && /^(all|screen)$/i.test(node.prelude ? generate(node.prelude) : ''));
      if (isHere && node.block) visit(node.block);
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
  return rules;
}

const unread = (detail: string) =>
  new ProblemError(422, 'no-look', 'No Look could be read from this page', detail, [
    { path: 'path', message: 'nothing could be read' },
  ]);

/**
 * Reads a Look from a page of the site: its own words and those of its sheets.
 *
 * @throws {ProblemError} In words, when the page cannot be had or says nothing of how it looks.
 */
export async function readLook(outside: ReadOutside, origin: string, path: string): Promise<LookRead> {
  const page = await ask(outside, origin + path, PAGE_BYTES, 'text/html').catch((error) => {
    throw error instanceof OutsideError ? unread(`${error.message}.`) : error;
  });
  if (page.status !== 200) throw unread(`The page answered with status ${page.status}.`);
  const { children } = parseDocument(page.text);
  const sources = DomUtils.filter(
    (node) =>
      DomUtils.isTag(node) &&
      (node.name === 'style' || (node.name === 'link' && /\bstylesheet\b/i.test(node.attribs.rel ?? ''))),
    children,
  ).slice(0, MOST_SHEETS);
  const sheets = await Promise.all(
    sources.map(async (node) => {
      if (!DomUtils.isTag(node)) return '';
      if (node.name === 'style') return DomUtils.textContent(node.children);
      const { href = '' } = node.attribs;
      if (!URL.canParse(href, page.address)) return '';
      const { href: address, protocol } = new URL(href, page.address);
      if (!/^https?:$/.test(protocol) || address.length > LIMITS.pageAddress) return '';
      // A sheet that cannot be had leaves the others.
      const sheet = await ask(outside, address, SHEET_BYTES, 'text/css').catch(() => undefined);
      return sheet?.status === 200 ? sheet.text : '';
    }),
  );
  const look = lookOfPage(sheets.flatMap(rulesOf), colourOf);
  if (look.read.length === 0)
    throw unread(
      'Its sheets name neither colours nor letters for the whole page. Try another page of the site.',
    );
  return look;
}

async function ask(outside: ReadOutside, address: string, mostBytes: number, accept: string) {
  const answer = await outside(address, { mostBytes, timeoutMs: TIMEOUT_MS, accept });
  return { ...answer, text: answer.bytes.toString('utf8') };
}
