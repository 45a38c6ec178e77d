import type { Block, Device, LookStyle, Message, Step } from '@velarium/contract';
import { boxStyle, colourOf, paletteOf, placedOn, styleOn } from '../look/resolve.ts';
import { closeContrast } from './close-sign.ts';
import { contrastRatio } from './contrast.ts';

/** Below this contrast nobody can make something out at all (common practice; WCAG asks for 3). */
const LEAST_SEEN = 1.3;

/** The blocks of a step that are there on a device: none that is hidden, nor stands in what is. */
const blocksOn = (step: Step, device: Device): Block[] =>
  step.blocks
    .filter(({ style }) => !styleOn(style, device).hidden)
    .flatMap((block) =>
      block.kind === 'columns'
        ? block.columns.flatMap(({ blocks }) => blocks.filter(({ style }) => !styleOn(style, device).hidden))
        : [block],
    );

type Button = Extract<Block, { kind: 'button' }>;

/** Whether the words of a button can be made out on what it stands on. */
function isSeen(button: Button, message: Message, look: LookStyle, device: Device): boolean {
  if (button.label.trim() === '') return false;
  const palette = paletteOf(message, look);
  const style = styleOn(button.style, device);
  const box = boxStyle(message, look, device);
  const ground = style.ground ?? (button.tone === 'main' ? { kind: 'colour', colour: 'accent' } : box.ground);
  if (ground.kind !== 'colour') return true;
  const ink = style.colour ?? (button.tone === 'main' ? 'accentText' : box.colour);
  return contrastRatio(colourOf(ink, palette), colourOf(ground.colour, palette)) >= LEAST_SEEN;
}

/**
 * The first step from which, on this device, nothing that can be seen and pressed leads out of the message; `undefined`
 * where there is none. Every step that can be come to is followed to its end: a *no* that only leads to another *no*
 * is no way out. Escape alone is none on a phone, and nobody should have to answer a form to leave.
 */
export function stuckStep(message: Message, look: LookStyle, device: Device): Step | undefined {
  const { steps, close } = message;
  const stepOf = (role: Step['role']) => steps.find((step) => step.role === role);
  const byId = (id: string) => steps.find((step) => step.id === id);
  const closesBeside = message.format === 'modal' && placedOn(message, 'backdropCloses', device);
  /** Where a button leads: out, to a step, or nowhere. */
  const leads = ({ action }: Button): Step | 'out' | undefined => {
    switch (action.kind) {
      case 'close':
      case 'link':
        return 'out';
      case 'refuse':
        return stepOf('refused') ?? 'out';
      case 'step':
        return byId(action.step);
      default:
        return undefined;
    }
  };
  const buttonsOf = (step: Step) =>
    blocksOn(step, device).filter(
      (block): block is Button => block.kind === 'button' && isSeen(block, message, look, device),
    );
  const isOut = (step: Step): boolean =>
    closesBeside ||
    (close.place !== 'hidden' && closeContrast(message, step, look, device) >= LEAST_SEEN) ||
    buttonsOf(step).some((button) => leads(button) === 'out');

  // Steps that lead out, and those that lead to one that does, until nothing is added.
  const out = new Set(steps.filter(isOut));
  for (let size = -1; size !== out.size; ) {
    size = out.size;
    for (const step of steps) {
      const next = buttonsOf(step).map(leads);
      if (next.some((one) => typeof one === 'object' && out.has(one))) out.add(step);
    }
  }
  // Steps that can be come to, by a form too.
  const come = new Set<Step>();
  const follow = (step: Step | undefined) => {
    if (!step || come.has(step)) return;
    come.add(step);
    for (const block of blocksOn(step, device)) {
      if (block.kind === 'form') follow(stepOf('success'));
      const next = block.kind === 'button' ? leads(block) : undefined;
      if (typeof next === 'object') follow(next);
    }
    // The close button may mean no, but then it closes all the same.
  };
  follow(steps[0]);
  return [...come].find((step) => !out.has(step));
}
