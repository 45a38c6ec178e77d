import type { Block, Field, LookStyle, Message, MessagePart } from '@velarium/contract';
import { DEVICES, FURTHER_BLOCKS, MESSAGE_PARTS } from '@velarium/contract/values';
import { lettersOf } from '../look/letters.ts';
import { placedOn } from '../look/resolve.ts';
import { personalPlaces } from './asks-facts.ts';
import { isInterrupting } from './placement.ts';
import { allBlocks } from './walk.ts';

/** Fields every form can draw. */
const PLAIN_FIELDS: ReadonlySet<Field['kind']> = new Set(['email', 'name', 'phone', 'text']);

const hasSystemAddress = (block: Block) =>
  block.kind === 'button' &&
  block.action.kind === 'link' &&
  Boolean(block.action.ios || block.action.android);
const isFurther = (kind: string) => (FURTHER_BLOCKS as readonly string[]).includes(kind);

/** What must be loaded beside the renderer to draw a message in a Look. */
export function partsOf(
  message: Pick<Message, 'steps' | 'format' | 'style' | 'pushesPage' | 'holdsPage'>,
  look: Pick<LookStyle, 'fonts'>,
): MessagePart[] {
  const blocks = allBlocks(message);
  const forms = blocks.filter((block) => block.kind === 'form');
  const onSome = (key: 'holdsPage' | 'pushesPage') =>
    DEVICES.some((device) => placedOn(message, key, device));
  const treatsPage =
    (isInterrupting(message.format) && onSome('holdsPage')) ||
    (message.format === 'bar' && onSome('pushesPage'));
  const isRare =
    personalPlaces(message).length > 0 ||
    blocks.some((block) => isFurther(block.kind) || hasSystemAddress(block)) ||
    forms.some(
      ({ asksSum, fields }) =>
        asksSum || fields.some(({ kind, pattern }) => Boolean(pattern) || !PLAIN_FIELDS.has(kind)),
    );
  return MESSAGE_PARTS.filter(
    (part) =>
      ({
        form: forms.length > 0,
        behind: treatsPage,
        further: isRare,
        letters: lettersOf(look).length > 0,
      })[part],
  );
}

/** The pictures a message shows, each once. */
export function picturesOf(message: Message): string[] {
  const grounds = [message.style, ...allBlocks(message).map(({ style }) => style)].flatMap(
    ({ all, tablet, mobile }) =>
      [all, tablet, mobile].flatMap(({ ground }) => (ground?.kind === 'picture' ? ground.picture : [])),
  );
  const shown = allBlocks(message).flatMap((block) =>
    (block.kind === 'picture' || block.kind === 'film') && block.picture ? block.picture : [],
  );
  const { sign, picture } = message.close;
  return [...new Set([...shown, ...grounds, ...(sign === 'picture' && picture ? [picture] : [])])];
}
