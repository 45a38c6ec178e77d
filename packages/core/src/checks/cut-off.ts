import type { Device, Message, Style } from '@velarium/contract';
import { styleOn } from '../look/resolve.ts';
import { stepName } from '../message/walk.ts';
import { DEVICE_WORDS, listOf, quoted } from '../sentence/words.ts';
import type { DesignFinding } from './finding.ts';

/** What the renderer measured of a step in the window of a device. */
export interface MeasuredStep {
  readonly device: Device;
  readonly step: string;
  /** How much of it lies below the edge of its box, CSS pixels. */
  readonly pixels: number;
  /** What its buttons there say. */
  readonly buttons: readonly string[];
}

/** A line's rounding is nothing that anybody misses. */
const LEAST_PIXELS = 8;

/** Whether the message says of itself how high it is on this device. */
export const hasOwnHeight = ({ style }: Message, device: Device): boolean => {
  const { height, mostHeight } = styleOn(style, device);
  return (height !== undefined && height.unit !== 'content') || mostHeight !== undefined;
};

/** Takes every height away that is set, so that the box is as high as what is in it. */
const asHighAsItsContent = (message: Message): Message => {
  const without = ({ height: _height, mostHeight: _mostHeight, ...rest }: Style): Style => rest;
  const { all, tablet, mobile } = message.style;
  return { ...message, style: { all: without(all), tablet: without(tablet), mobile: without(mobile) } };
};

/** Names what visitors would not see without scrolling in the message, by what was measured. */
export const cutOffFindings = (message: Message, measured: readonly MeasuredStep[]): DesignFinding[] =>
  measured
    .filter(({ pixels, buttons }) => pixels >= LEAST_PIXELS || buttons.length > 0)
    .map(({ device, step, pixels, buttons }) => {
      const where = `On a ${DEVICE_WORDS[device]} ${message.steps.length > 1 ? `“${stepName(message, step)}” ends` : 'it ends'} ${Math.ceil(pixels)} px below its edge`;
      const among = buttons.length > 0 ? `, ${listOf(buttons.map(quoted))} among it` : '';
      const isOwn = hasOwnHeight(message, device);
      return {
        code: 'size.cut',
        severity: buttons.length > 0 ? 'warn' : 'hint',
        text: `${where}${among}: visitors must scroll in the message. ${isOwn ? 'Make it higher, or as high as its content.' : 'Shorten it, or hide a block there.'}`,
        blockId: null,
        ...(isOwn ? { mend: { label: 'As high as its content', apply: asHighAsItsContent } } : {}),
      };
    });
