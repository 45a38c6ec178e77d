import type { Message, Style, Styled, StyleKey } from '@velarium/contract';
import { isSame } from '../merge/is-same.ts';

/** What each setting of a box is called, for the list of what another template takes away. */
const STYLE_WORDS: Readonly<Partial<Record<StyleKey, string>>> = {
  anchor: 'its place',
  backdropCloses: 'what a click beside it does',
  holdsPage: 'whether the page behind can be scrolled',
  pushesPage: 'whether the page makes room',
  isSticky: 'whether it stays in sight',
  width: 'its width',
  height: 'its height',
  leastWidth: 'its least width',
  mostWidth: 'its most width',
  leastHeight: 'its least height',
  mostHeight: 'its most height',
  offsetBlock: 'its distance from the edges',
  offsetInline: 'its distance from the edges',
  space: 'the space between blocks',
  paddingBlock: 'its padding',
  paddingInline: 'its padding',
  align: 'its alignment',
  colour: 'its text colour',
  ground: 'its background',
  borderWidth: 'its border',
  borderColour: 'its border',
  corners: 'its corners',
  shadow: 'its shadow',
  textSize: 'its text size',
  backdropColour: 'the backdrop',
  backdropStrength: 'the backdrop',
  backdropBlur: 'the backdrop',
  own: 'CSS of your own',
};
const SCOPE_WORDS = { all: '', tablet: ' on a tablet', mobile: ' on a phone' } as const;

function styleWords(old: Styled, next: Styled): string[] {
  return (['all', 'tablet', 'mobile'] as const).flatMap((scope) => {
    const [was, is]: Style[] = [old[scope], next[scope]];
    return (Object.keys(was ?? {}) as StyleKey[]).flatMap((key) => {
      const word = STYLE_WORDS[key];
      return word === undefined || isSame(was?.[key], is?.[key]) ? [] : `${word}${SCOPE_WORDS[scope]}`;
    });
  });
}

/**
 * What a person has set on a message, apart from its words, that another would not have, in words; each once. */
export function lostSettings(old: Message, next: Message): string[] {
  const { close, motion } = old;
  const said: [isLost: boolean, words: string][] = [
    [old.format !== next.format, 'its format'],
    [old.anchor !== next.anchor, 'its place'],
    [
      close.afterSeconds !== null && close.afterSeconds !== next.close.afterSeconds,
      `closing by itself after ${close.afterSeconds} s`,
    ],
    [!isSame({ ...close, afterSeconds: null }, { ...next.close, afterSeconds: null }), 'its close button'],
    [!isSame(motion.enter, next.motion.enter), 'how it comes'],
    [!isSame(motion.leave, next.motion.leave), 'how it goes'],
    [old.backdropCloses !== next.backdropCloses, 'what a click beside it does'],
    [old.holdsPage !== next.holdsPage, 'whether the page behind can be scrolled'],
    [old.pushesPage !== next.pushesPage, 'whether the page makes room'],
    [old.isSticky !== next.isSticky, 'whether it stays in sight'],
    [old.darkens !== next.darkens, 'whether it darkens at night'],
  ];
  return [
    ...new Set([
      ...said.flatMap(([isLost, words]) => (isLost ? words : [])),
      ...styleWords(old.style, next.style),
    ]),
  ];
}
