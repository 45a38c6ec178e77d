import type { Block } from '@velarium/contract';
import { fitsPattern } from '@velarium/core/message';
import type { BlockContext, Further } from '../context.ts';
import { element } from '../dom.ts';
import { addressFor } from './address-for.ts';
import { drawCode } from './code.ts';
import { drawCount } from './count.ts';
import { drawCountdown } from './countdown.ts';
import { drawField } from './fields.ts';
import { drawFilm } from './film.ts';
import { drawFrame, drawHtml } from './frame.ts';
import { drawShare } from './share.ts';
import { drawSum } from './sum.ts';

function drawBlock(block: Block, context: BlockContext): HTMLElement {
  switch (block.kind) {
    case 'code':
      return drawCode(block, context);
    case 'countdown':
      return drawCountdown(block, context);
    case 'share':
      return drawShare(block, context);
    case 'count':
      return drawCount(block, context);
    case 'film':
      return drawFilm(block, context);
    case 'frame':
      return drawFrame(block, context);
    case 'html':
      return drawHtml(block, context);
    default:
      return element(context.document, 'div');
  }
}

/** The blocks and fields that most messages do not use. */
export const further: Further = {
  drawBlock,
  drawField,
  drawSum,
  addressFor,
  fits: fitsPattern,
};
