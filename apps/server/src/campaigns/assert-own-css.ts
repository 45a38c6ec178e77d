import type { Message } from '@velarium/contract';
import { allBlocks, readOwnCss } from '@velarium/core';
import { type CssNode, lexer, parse } from 'css-tree';
import { refused } from './assert-patterns.ts';

/**
 * Why declarations of a person's own cannot be used, if they cannot. They are read by core, which says what may be set,
 * and here by a whole parser of CSS: each must be one declaration and nothing else, with a value its property takes
 * (CSS Syntax Module Level 3; the properties' own grammars).
 */
export function ownCssFault(text: string): string | undefined {
  const { declarations, fault } = readOwnCss(text);
  if (fault !== undefined) return fault;
  for (const [property, value] of Object.entries(declarations)) {
    let isBroken = false;
    const sheet = parse(`a{${property}:${value}}`, {
      parseCustomProperty: true,
      onParseError: () => {
        isBroken = true;
      },
    });
    const declaration = onlyDeclaration(sheet);
    if (isBroken || declaration?.property !== property)
      return `“${property}: ${value}” is no single declaration`;
    if (lexer.matchProperty(property, declaration.value).error)
      return `“${value}” is no value of “${property}”`;
  }
  return undefined;
}

function onlyDeclaration(sheet: CssNode) {
  if (sheet.type !== 'StyleSheet' || sheet.children.size !== 1) return undefined;
  const rule = sheet.children.first;
  if (rule?.type !== 'Rule' || rule.block.children.size !== 1) return undefined;
  const declaration = rule.block.children.first;
  return declaration?.type === 'Declaration' ? declaration : undefined;
}

/** Nothing that could leave its declaration, hide, move or cover gets as far as a draft. */
export function assertOwnCss(messages: readonly Message[]): void {
  for (const message of messages) {
    for (const { style } of [message, ...allBlocks(message)]) {
      for (const { own } of [style.all, style.tablet, style.mobile]) {
        const fault = own === undefined ? undefined : ownCssFault(own);
        if (fault !== undefined)
          throw refused('This CSS cannot be used', `“${own}”: ${fault}.`, 'document.message');
      }
    }
  }
}
