import type { Block, BlockKind, Message, Style, Styled } from '@velarium/contract';
import { linkAddressSchema, styleSchema } from '@velarium/contract';
import { COLOUR_ROLES } from '@velarium/contract/values';
import { FORMAT_ANCHORS } from '../message/placement.ts';
import { allBlocks, changeBlock } from '../message/walk.ts';
import { ANCHOR_WORDS, FORMAT_WORDS } from '../sentence/words.ts';
import { only } from './numbers.ts';
import { type Answer, addDesign, type Reading, type SiteWords, type Way } from './reading.ts';

type Scope = keyof Styled;

/** What people call a thing on a message. */
const TARGETS: readonly (readonly [words: string, kind: BlockKind])[] = [
  ['headings?|titles?|headlines?', 'heading'],
  ['texts?|paragraphs?|body text|words', 'text'],
  ['buttons?', 'button'],
  ['pictures?|images?|photos?|drawings?', 'picture'],
  ['forms?', 'form'],
  ['countdowns?', 'countdown'],
  ['codes?', 'code'],
  ['videos?|films?', 'film'],
  ['dividers?|lines?', 'divider'],
];
const TARGET = `(?:the |every |all )?(${TARGETS.map(([words]) => words).join('|')})`;
const kindOf = (said: string): BlockKind | undefined =>
  TARGETS.find(([words]) => only(words).test(said))?.[1];

const ON_DEVICE = '(?: (?:on|for) (?:an? |the )?(phones?|mobiles?|tablets?))?';
const scopeOf = (said: string | undefined): Scope =>
  said === undefined ? 'all' : /^t/i.test(said) ? 'tablet' : 'mobile';
const SCOPE_SAID: Readonly<Record<Scope, string>> = {
  all: '',
  tablet: ', on tablets',
  mobile: ', on phones',
};

const withStyle = (styled: Styled, scope: Scope, style: Style): Styled => ({
  ...styled,
  [scope]: { ...styled[scope], ...style },
});

/** The blocks a wish is about: the chosen one if it is of the kind, else all of it. */
function blocksMeant(message: Message, kind: BlockKind, { chosen }: SiteWords['design']): readonly Block[] {
  const ofKind = allBlocks(message).filter((block) => block.kind === kind);
  const one = ofKind.find(({ id }) => id === chosen);
  return one ? [one] : ofKind;
}
const HAS_NONE = 'the message has none';
const SEVERAL = 'there are several; choose one on the stage first';

/** Changes the style of every block that is meant. */
function restyle(
  reading: Reading,
  { design }: SiteWords,
  what: { readonly kind: BlockKind; readonly scope: Scope; readonly said: string },
  style: (block: Block) => Style,
): Answer {
  if (blocksMeant(design.message, what.kind, design).length === 0) return HAS_NONE;
  const isRefused = blocksMeant(design.message, what.kind, design).some(
    (block) => !styleSchema.safeParse(style(block)).success,
  );
  if (isRefused) return 'out of range';
  return addDesign(reading, `${what.said}${SCOPE_SAID[what.scope]}`, (message) =>
    blocksMeant(message, what.kind, design).reduce(
      (changed, { id }) =>
        changeBlock(changed, id, (block) => ({
          ...block,
          style: withStyle(block.style, what.scope, style(block)),
        })),
      message,
    ),
  );
}
/** Changes the style of the box. */
function restyleBox(reading: Reading, said: string, device: string | undefined, style: Style): Answer {
  if (!styleSchema.safeParse(style).success) return 'out of range';
  const scope = scopeOf(device);
  return addDesign(reading, `${said}${SCOPE_SAID[scope]}`, (message) => ({
    ...message,
    style: withStyle(message.style, scope, style),
  }));
}

const ROLE_NAMES: Readonly<Record<string, (typeof COLOUR_ROLES)[number]>> = {
  'the accent': 'accent',
  'the accent colour': 'accent',
  'accent colour': 'accent',
  'the text colour': 'ink',
};
/** A colour as a role of the Look, or as people write one: `dark green`, `#0a4`, `light grey`. */
function colourMeant(said: string, { colour }: SiteWords['design']): string | undefined {
  const role = ROLE_NAMES[said] ?? COLOUR_ROLES.find((one) => one === said);
  // CSS writes its names as one word.
  return role ?? colour(said) ?? colour(said.replaceAll(/[ -]/g, ''));
}
const COLOUR = '((?:the )?[a-z# -]*[#a-z0-9][a-z0-9(),.% -]*)';

/** Sizes step by a fifth, and never by less than two pixels. */
const STEP = 1.2;
const stepped = (size: number, steps: number): number =>
  steps > 0
    ? Math.max(Math.round(size * STEP ** steps), size + 2)
    : Math.min(Math.round(size * STEP ** steps), size - 2);
const STEPS: Readonly<Record<string, number>> = {
  'a little ': 0.5,
  'a bit ': 0.5,
  'slightly ': 0.5,
  'much ': 2,
  'a lot ': 2,
};
const HOW_MUCH = `(${Object.keys(STEPS).join('|')})?`;

/** How large a block's letters are where nothing is said, CSS pixels. */
const ownSize = (block: Block, textSize: number): number =>
  block.kind === 'heading'
    ? textSize * 1.5
    : block.kind === 'text' && block.size === 'small'
      ? textSize * 0.8125
      : textSize;

function resize(
  target: string,
  scope: Scope,
  said: string,
  sizeOf: (now: number) => number,
  reading: Reading,
  site: SiteWords,
): Answer {
  const kind = kindOf(target);
  if (kind !== 'heading' && kind !== 'text' && kind !== 'button') return false;
  return restyle(reading, site, { kind, scope, said: `${target} ${said}` }, (block) => ({
    textSize: sizeOf(
      Math.round(
        block.style[scope].textSize ?? block.style.all.textSize ?? ownSize(block, site.design.textSize),
      ),
    ),
  }));
}

const ALIGNED: Readonly<Record<string, Style['align']>> = {
  left: 'start',
  centred: 'center',
  centered: 'center',
  'in the middle': 'center',
  'in the centre': 'center',
  right: 'end',
};
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
const MAKE = '(?:make |let |set |turn )?';
const BE = '(?: (?:be|is|to|in|becomes?|should be|=|:))*';

/** Ways of saying what it looks like. */
export const DESIGN_WAYS: readonly Way[] = [
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
      `${MAKE}${TARGET}(?:’s|'s)?(?: (background|ground|text|letters))?(?: colour)?${BE} ${COLOUR}${ON_DEVICE}`,
    ),
    ([, target = '', part, said = '', device], reading, site) => {
      const kind = kindOf(target);
      const meant = colourMeant(said.toLowerCase(), site.design);
      if (!kind || meant === undefined) return false;
      const isGround = part ? /ground/i.test(part) : kind === 'button';
      return restyle(
        reading,
        site,
        { kind, scope: scopeOf(device), said: `${target}${part ? ` ${part}` : ''} ${said}` },
        () =>
          isGround
            ? { ground: { kind: 'colour', colour: meant as `#${string}` } }
            : { colour: meant as `#${string}` },
      );
    },
  ],
  [
    only(`${MAKE}${TARGET}${BE} ${HOW_MUCH}(larger|bigger|smaller)${ON_DEVICE}`),
    ([, target = '', much, way = '', device], reading, site) => {
      const steps = (STEPS[much?.toLowerCase() ?? ''] ?? 1) * (/^s/i.test(way) ? -1 : 1);
      return resize(
        target,
        scopeOf(device),
        `${much ?? ''}${way}`,
        (now) => stepped(now, steps),
        reading,
        site,
      );
    },
  ],
  [
    only(`${MAKE}${TARGET}(?: size| in| at)*${BE} (\\d+) ?(?:px|pixels?)?${ON_DEVICE}`),
    ([, target = '', size = '', device], reading, site) =>
      resize(target, scopeOf(device), `${size} px`, () => Number(size), reading, site),
  ],
  [
    only(`${MAKE}${TARGET}${BE} (bold|strong|light|normal|regular)${ON_DEVICE}`),
    ([, target = '', weight = '', device], reading, site) => {
      const kind = kindOf(target);
      if (!kind) return false;
      const isStrong = /^(?:b|s)/i.test(weight);
      return restyle(reading, site, { kind, scope: scopeOf(device), said: `${target} ${weight}` }, () => ({
        weight: isStrong ? 'strong' : 'normal',
      }));
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
    only(`${MAKE}${TARGET}${BE} (left|centred|centered|in the middle|right)(?:-aligned)?${ON_DEVICE}`),
    ([, target = '', where = '', device], reading, site) => {
      const [kind, align] = [kindOf(target), ALIGNED[where.toLowerCase()]];
      return kind && align
        ? restyle(reading, site, { kind, scope: scopeOf(device), said: `${target} ${where}` }, () => ({
            align,
          }))
        : false;
    },
  ],
  [
    only(`(?:hide|no|without|leave out) ${TARGET}${ON_DEVICE}|${TARGET} hidden${ON_DEVICE}`),
    ([, target, device, otherTarget, otherDevice], reading, site) => {
      const said = target ?? otherTarget ?? '';
      const kind = kindOf(said);
      const scope = scopeOf(device ?? otherDevice);
      return kind
        ? restyle(reading, site, { kind, scope, said: `no ${said}` }, () => ({ hidden: true }))
        : false;
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
  [
    only(
      '(?:link |make |let )?(?:the )?button (?:should |must |to )?(?:leads? |goes |go |links? |opens? |takes? (?:them|people|visitors) )?(?:to )?((?:/|#|https?:|mailto:|tel:)\\S*)( in a new (?:tab|window))?',
    ),
    ([, address = '', inNewTab], reading, { design }) => {
      if (!linkAddressSchema.safeParse(address).success || address === '') return false;
      const meant = blocksMeant(design.message, 'button', design);
      const [one] = meant;
      if (one?.kind !== 'button') return HAS_NONE;
      if (meant.length > 1) return SEVERAL;
      return addDesign(reading, `button leads to ${address}${inNewTab ?? ''}`, (message) =>
        changeBlock(message, one.id, (block) =>
          block.kind === 'button'
            ? {
                ...block,
                action: {
                  kind: 'link',
                  newTab: inNewTab !== undefined || (block.action.kind === 'link' && block.action.newTab),
                  address,
                },
              }
            : block,
        ),
      );
    },
  ],
  [
    only(
      '(?:change |set |make |let )?(?:the )?(button|heading|title)(?:’s|\'s)?(?: (?:text|label|words?))?(?: (?:should |to )?(?:says?|reads?|is called|be|is|to))*:? [“"]([^“”"]+)[”"]',
    ),
    ([, target = '', words = ''], reading, { design }) => {
      const kind = kindOf(target) ?? 'heading';
      const meant = blocksMeant(design.message, kind, design);
      const [one] = meant;
      if (!one) return HAS_NONE;
      if (meant.length > 1) return SEVERAL;
      if (words.length > 120) return 'at most 120 letters';
      return addDesign(reading, `${target} says “${words}”`, (message) =>
        changeBlock(message, one.id, (block) =>
          block.kind === 'button'
            ? { ...block, label: words }
            : block.kind === 'heading'
              ? { ...block, text: words }
              : block,
        ),
      );
    },
  ],
];
