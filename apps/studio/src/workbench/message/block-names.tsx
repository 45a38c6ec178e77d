import type { Block, BlockKind } from '@velarium/contract';
import { textsOf } from '@velarium/core';
import {
  AppWindow,
  Bookmark,
  Braces,
  Clapperboard,
  Columns2,
  Gauge,
  Heading,
  Image,
  List,
  type LucideIcon,
  Minus,
  MousePointerClick,
  MoveVertical,
  Pilcrow,
  Send,
  Share2,
  TicketPercent,
  Timer,
} from 'lucide-react';

export const BLOCK_WORDS: Readonly<Record<BlockKind, string>> = {
  heading: 'Heading',
  text: 'Text',
  picture: 'Picture',
  button: 'Button',
  form: 'Form',
  code: 'Code to copy',
  countdown: 'Countdown',
  share: 'Ways to share',
  count: 'Count',
  film: 'Video',
  frame: 'Another page',
  html: 'Own HTML',
  divider: 'Line',
  space: 'Space',
  columns: 'Columns',
  saved: 'Saved block',
};

const SIGNS: Readonly<Record<BlockKind, LucideIcon>> = {
  heading: Heading,
  text: Pilcrow,
  picture: Image,
  button: MousePointerClick,
  form: Send,
  code: TicketPercent,
  countdown: Timer,
  share: Share2,
  count: Gauge,
  film: Clapperboard,
  frame: AppWindow,
  html: Braces,
  divider: Minus,
  space: MoveVertical,
  columns: Columns2,
  saved: Bookmark,
};

export function BlockSign({ block, kind }: { readonly block?: Block; readonly kind: BlockKind }) {
  const Sign = block?.kind === 'text' && block.marks !== 'none' ? List : SIGNS[kind];
  return <Sign size={14} aria-hidden className="flex-none text-soft" />;
}

/** A block's first words, by which a person knows it. */
export const blockWords = (block: Block): string =>
  textsOf(block)
    .find((text) => text.trim() !== '')
    ?.slice(0, 60) ?? '';
