import type { Block, LookStyle, Style } from '@velarium/contract';
import {
  blockSize,
  colour,
  type Declarations,
  onHover,
  ownCss,
  type PictureSource,
  rule,
  size,
  surface,
} from './rules.ts';

const JUSTIFY = { start: 'start', center: 'center', end: 'end' } as const;

function place(style: Style): Declarations {
  return {
    'text-align': style.align,
    'justify-self': style.align && JUSTIFY[style.align],
    'margin-block-start': style.space === undefined ? undefined : `${style.space}px`,
    'inline-size':
      style.width && (style.width.unit === 'percent' ? `${style.width.value}%` : size(style.width)),
    'block-size': style.height && blockSize(style.height),
    'max-inline-size': style.mostWidth === undefined ? undefined : `min(${style.mostWidth}px,100%)`,
  };
}

/** Where a picture that is a side of the box puts itself and the words. */
function sideRules(selector: string, style: Style, ratio: number | null): string {
  const { side, width } = style;
  if (side === undefined) return '';
  const ownShape = { 'aspect-ratio': ratio === null ? 'auto' : `${ratio}/100`, contain: 'none' };
  // In line on one device and a side of the box on another: everything the side has said is taken back.
  if (side === 'flow') {
    return (
      rule('.card', { display: 'block' }) + rule(`.card>${selector}`, { 'block-size': 'auto', ...ownShape })
    );
  }
  const share =
    width?.unit === 'px' ? `${width.value}px` : `${width?.unit === 'percent' ? width.value : 40}%`;
  const isBeside = side === 'start' || side === 'end';
  const template = isBeside
    ? `"${side === 'start' ? 'pic body' : 'body pic'}" 1fr/${side === 'start' ? `${share} 1fr` : `1fr ${share}`}`
    : side === 'behind'
      ? '"body" 1fr/1fr'
      : side === 'top'
        ? '"pic" auto "body" 1fr/1fr'
        : '"body" 1fr "pic" auto/1fr';
  return (
    rule('.card', { display: 'grid', 'grid-template': template }) +
    rule(`.card>${selector}`, {
      'grid-area': side === 'behind' ? 'body' : 'pic',
      'inline-size': '100%',
      'block-size': isBeside || side === 'behind' ? '100%' : 'auto',
      'min-block-size': 0,
      // Beside or behind the words it is as large as they are, whatever its own shape.
      ...(isBeside || side === 'behind' ? { 'aspect-ratio': 'auto', contain: 'size' } : ownShape),
    }) +
    rule('.inner', { 'grid-area': 'body' })
  );
}

/** What one block says of itself for one device. */
export function blockCss(block: Block, style: Style, source: PictureSource): string {
  const at = `[data-block="${block.id}"]`;
  const pointed = {
    color: style.hoverColour && colour(style.hoverColour),
    background: style.hoverGround && colour(style.hoverGround),
  };
  // Of a row of buttons the one that is pointed at.
  const pointedAt = block.kind === 'share' ? `${at} .act` : at;
  const isSide = block.kind === 'picture' && style.side !== undefined && style.side !== 'flow';
  const { width: _width, ...unsized } = style;
  return (
    rule(at, { ...surface(style, source), ...place(isSide ? unsized : style), ...ownCss(style) }) +
    (block.kind === 'picture' ? sideRules(at, style, block.ratio) : '') +
    rule(`${pointedAt}:focus-visible`, pointed) +
    onHover(rule(`${pointedAt}:hover`, pointed))
  );
}

/** What follows from what a block is, whatever the device. */
export function kindCss(block: Block): string {
  const at = `[data-block="${block.id}"]`;
  switch (block.kind) {
    case 'picture':
      return (
        rule(`${at} img`, { 'object-position': `${block.focus[0]}% ${block.focus[1]}%` }) +
        (block.ratio === null ? '' : rule(at, { 'aspect-ratio': `${block.ratio}/100` }))
      );
    case 'columns':
      return rule(at, {
        'grid-template-columns': block.columns.map(({ share }) => `minmax(0,${share}fr)`).join(' '),
      });
    case 'space':
      return rule(at, { 'block-size': `${block.height}px` });
    case 'film':
      return rule(at, { 'aspect-ratio': `${block.ratio}/100` });
    case 'frame':
    case 'html':
      return rule(`${at} iframe`, { 'block-size': `${block.height}px` });
    case 'share':
      return rule(at, {
        'grid-template-columns': `repeat(${block.columns},minmax(0,1fr))`,
        gap: block.hasGaps ? '8px' : '0',
      });
    default:
      return '';
  }
}

export const fieldsCss = ({ fields, corners }: LookStyle): string =>
  fields === 'boxed'
    ? rule('.field', { border: '1px solid #6b7280', 'border-radius': `${corners.control}px` })
    : fields === 'filled'
      ? rule('.field', {
          border: '1px solid transparent',
          'border-block-end-color': '#6b7280',
          'border-radius': `${corners.control}px`,
        })
      : rule('.field', { border: '0', 'border-block-end': '2px solid #6b7280', 'border-radius': 0 });

export const buttonsCss = ({ buttons, corners }: LookStyle): string =>
  rule('.act', { 'border-radius': `${corners.control}px` }) +
  rule(
    '.act[data-tone=main]',
    buttons === 'solid'
      ? { color: 'var(--accentText)', background: 'var(--accent)' }
      : buttons === 'soft'
        ? { color: 'var(--accentText)', background: 'var(--accent)', 'box-shadow': 'inset 0 -2px #0003' }
        : {
            color: 'var(--accent)',
            background: 'transparent',
            'box-shadow': 'inset 0 0 0 2px var(--accent)',
          },
  );
