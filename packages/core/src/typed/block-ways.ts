import type { Block, BlockKind, Message, Style } from '@velarium/contract';
import { linkAddressSchema, styleSchema } from '@velarium/contract';
import { allBlocks, changeBlock } from '../message/walk.ts';
import { only } from './numbers.ts';
import { type Answer, addDesign, type Reading, type SiteWords, type Way } from './reading.ts';
import {
  ALIGNED,
  BE,
  COLOUR,
  colourMeant,
  MAKE,
  ON_DEVICE,
  SCOPE_SAID,
  type Scope,
  scopeOf,
  withStyle,
} from './styling.ts';

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

/** Ways of saying what a thing on the message looks like, what it says and where it leads. */
export const BLOCK_WAYS: readonly Way[] = [
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
    only(
      `${MAKE}${TARGET}${BE} (twice|half|double|(\\d(?:\\.\\d+)?) times) (?:as (?:large|big)|the size|its size|as large as it is)${ON_DEVICE}`,
    ),
    ([, target = '', said = '', times, device], reading, site) => {
      const factor = times === undefined ? (/^h/i.test(said) ? 0.5 : 2) : Number(times);
      return resize(
        target,
        scopeOf(device),
        `${said} the size`,
        (now) => Math.round(now * factor),
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
    only('(?:the )?(?:button|heading|headline|title)(?: text| label)?: ?[^“",;]+'),
    () => 'put its words in quotation marks',
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
