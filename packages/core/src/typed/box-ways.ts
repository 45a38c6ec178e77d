import type { Style } from '@velarium/contract';
import { styleSchema } from '@velarium/contract';
import { FORMAT_ANCHORS } from '../message/placement.ts';
import { ANCHOR_WORDS, FORMAT_WORDS } from '../sentence/words.ts';
import { only } from './numbers.ts';
import { type Answer, addDesign, type Reading, type Way } from './reading.ts';
import {
  ALIGNED,
  BE,
  COLOUR,
  colourMeant,
  MAKE,
  ON_DEVICE,
  SCOPE_SAID,
  scopeOf,
  withStyle,
} from './styling.ts';

/** Changes the style of the box. */
function restyleBox(reading: Reading, said: string, device: string | undefined, style: Style): Answer {
  if (!styleSchema.safeParse(style).success) return 'out of range';
  const scope = scopeOf(device);
  return addDesign(reading, `${said}${SCOPE_SAID[scope]}`, (message) => ({
    ...message,
    style: withStyle(message.style, scope, style),
  }));
}

const SHADOW_NAMES: Readonly<Record<string, Style['shadow']>> = {
  no: 'none',
  without: 'none',
  'without a': 'none',
  'a hair of a': 'hair',
  thin: 'hair',
  light: 'hair',
  soft: 'lifted',
  deep: 'floating',
  strong: 'floating',
};

/** Ways of saying what the box looks like, and where it stands. */
export const BOX_WAYS: readonly Way[] = [
  [
    only(
      `${MAKE}(?:(?:the )?(?:box|message)(?:’s|'s)? )?(?:the )?(?:background|ground)(?: colour)?${BE} ${COLOUR}${ON_DEVICE}|${COLOUR} background${ON_DEVICE}`,
    ),
    ([, colour, device, otherColour, otherDevice], reading, { design }) => {
      const said = (colour ?? otherColour ?? '').toLowerCase();
      const meant = colourMeant(said, design);
      if (meant === undefined) return false;
      return restyleBox(reading, `background ${said}`, device ?? otherDevice, {
        ground: { kind: 'colour', colour: meant as `#${string}` },
      });
    },
  ],
  [
    only(
      `${MAKE}(?:everything|all|it)${BE} (left|centred|centered|in the middle|in the centre|right)(?:-aligned)?${ON_DEVICE}|cent(?:re|er) (?:everything|all|it)()${ON_DEVICE}`,
    ),
    ([, where = 'centred', device, , other], reading) => {
      const align = ALIGNED[where.toLowerCase()];
      return align ? restyleBox(reading, `everything ${where}`, device ?? other, { align }) : false;
    },
  ],
  [
    only(
      `${MAKE}(?:it |the (?:box|message) )?(?:be )?(\\d+) ?(?:px|pixels?)? ?(?:by|x|×) ?(\\d+)(?: ?(?:px|pixels?))?${ON_DEVICE}`,
    ),
    ([, width = '', height = '', device], reading) =>
      restyleBox(reading, `${width} by ${height} px`, device, {
        width: { unit: 'px', value: Number(width) },
        height: { unit: 'px', value: Number(height) },
      }),
  ],
  [
    only(
      `${MAKE}(?:it |the (?:box|message) )?(?:be )?(\\d+) ?(px|pixels?|%|per ?cent)?(?: of the (?:window|screen|page))? ?(wide|high|tall)${ON_DEVICE}|(width|height)${BE} (\\d+) ?(px|pixels?|%|per ?cent)?${ON_DEVICE}`,
    ),
    ([, size, unit, way, device, otherWay, otherSize, otherUnit, otherDevice], reading) => {
      const side = /^w/i.test(way ?? otherWay ?? '') ? 'width' : 'height';
      const value = Number(size ?? otherSize);
      const isShare = /^(?:%|per)/i.test(unit ?? otherUnit ?? '');
      return restyleBox(reading, `${side} ${value} ${isShare ? '%' : 'px'}`, device ?? otherDevice, {
        [side]: { unit: isShare ? 'percent' : 'px', value },
      });
    },
  ],
  [
    only(`${MAKE}(?:corners|rounding)${BE} (\\d+)(?: ?px)?${ON_DEVICE}`),
    ([, corners = '', device], reading) =>
      restyleBox(reading, `corners ${corners} px`, device, { corners: Number(corners) }),
  ],
  [
    only(`${MAKE}(?:(?:the )?corners )?(round(?:ed)?|square|sharp)(?: corners)?${ON_DEVICE}`),
    ([, shape = '', device], reading) =>
      restyleBox(reading, `corners ${shape}`, device, { corners: /^r/i.test(shape) ? 16 : 0 }),
  ],
  [
    only(`(?:with )?(?:an? )?(${Object.keys(SHADOW_NAMES).join('|')}) shadow${ON_DEVICE}`),
    ([, name = '', device], reading) =>
      restyleBox(reading, `${name} shadow`, device, { shadow: SHADOW_NAMES[name.toLowerCase()] }),
  ],
  [
    only('(?:more|less|some|extra) (?:padding|room|space|white space)'),
    () => 'say how much, as in “padding 24”',
  ],
  [
    only('(?:make it )?(?:much |a little |a bit )?(?:wider|narrower|taller|shorter|larger|smaller|bigger)'),
    () => 'say how wide and how high, as in “420 wide”',
  ],
  [
    only(`${MAKE}padding${BE} (\\d+)(?: ?px)?${ON_DEVICE}`),
    ([, room = '', device], reading) =>
      restyleBox(reading, `padding ${room} px`, device, {
        paddingBlock: Number(room),
        paddingInline: Number(room),
      }),
  ],
  [
    only(
      `(?:(no)|(?:an? )?(?:(\\d+) ?(?:px)? )?(?:([a-z ]+?) )?) ?border${ON_DEVICE}|border${BE} (?:(\\d+) ?(?:px)?)? ?([a-z# 0-9]+?)?${ON_DEVICE}`,
    ),
    ([, none, width, colour, device, otherWidth, otherColour, otherDevice], reading, { design }) => {
      const said = colour ?? otherColour;
      const meant = said === undefined ? undefined : colourMeant(said.toLowerCase(), design);
      if (said !== undefined && meant === undefined) return false;
      const px = none ? 0 : Number(width ?? otherWidth ?? 1);
      return restyleBox(reading, `border ${px} px${said ? ` ${said}` : ''}`, device ?? otherDevice, {
        borderWidth: px,
        ...(meant ? { borderColour: meant as `#${string}` } : {}),
      });
    },
  ],
  [
    only(
      '(?:(?:darken|dim|grey out|blur) (?:the )?(?:page|background|rest)|with a (?:dark |dimmed )?backdrop)(?: behind(?: it)?)?',
    ),
    () => 'say by how many %',
  ],
  [
    only(
      `(?:darken|dim) the (?:page|background)(?: behind)?(?: (?:by|to))? (\\d+) ?%|backdrop${BE} (\\d+) ?%|(no) backdrop`,
    ),
    ([, share, other, none], reading) => {
      const backdropStrength = none ? 0 : Number(share ?? other);
      return restyleBox(reading, `backdrop ${backdropStrength} %`, undefined, { backdropStrength });
    },
  ],
  [
    only(
      `(?:(?:move|put|place|show|position)(?: it| the message)? (?:to|in|at|into|on)|at) (?:the )?(.+?)(?: (?:corner|edge|side))?${ON_DEVICE}|(?:(?:(?:move|put|place|show|position)(?: it| the message)? )?(?:to |in |at |into |on )?(?:the )?)?((?:top|upper|bottom|lower)[ -](?:left|right))(?: corner)?${ON_DEVICE}`,
    ),
    ([, said, onDevice, alone = '', aloneOnDevice], reading, { design }) => {
      const [where, device] = [said ?? alone, onDevice ?? aloneOnDevice];
      const place = where
        .toLowerCase()
        .replace(/^(top|bottom) (?:middle|centre|center)$/, '$1')
        .replace(/^bottom(?=[ -])/, 'lower')
        .replace(/^top(?=[ -])/, 'upper')
        .replace(/^(?:middle|center)$/, 'centre')
        .replace('-', ' ');
      const anchor = (Object.keys(ANCHOR_WORDS) as (keyof typeof ANCHOR_WORDS)[]).find(
        (one) => ANCHOR_WORDS[one] === place,
      );
      if (!anchor) return false;
      const { format } = design.message;
      if (!FORMAT_ANCHORS[format].includes(anchor)) return `a ${FORMAT_WORDS[format]} does not stand there`;
      if (device !== undefined) return restyleBox(reading, `at the ${place}`, device, { anchor });
      return addDesign(reading, `at the ${place}`, (message) => ({ ...message, anchor }));
    },
  ],
];
