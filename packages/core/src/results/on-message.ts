import type { Block, CampaignParts, Field, Message } from '@velarium/contract';
import { blocksOfStep } from '../message/walk.ts';

/** What visitors did at one place of a message. */
export interface DoneThere {
  readonly part: string;
  readonly step: string;
  readonly block: Block;
  /** Of a form, the field; nothing where the block itself was clicked. */
  readonly field: Field | undefined;
  /** Unique visitors who clicked it or wrote into it. */
  readonly visitors: number;
  /** Of those who had the message in sight, 0 to 1. */
  readonly share: number;
  /** Of a field: those who wrote there last and sent nothing. */
  readonly gaveUp: number;
}

/**
 * What was clicked and written on a message of one variant, in its own order; every field of a form that anybody wrote into, and every
 * block that was clicked. `elsewhere` counts the parts of other versions on which something was done.
 */
export function doneOnMessage(
  { steps }: Pick<Message, 'steps'>,
  { viewers, parts }: Pick<CampaignParts['onMessage'][number], 'viewers' | 'parts'>,
): { readonly places: readonly DoneThere[]; readonly elsewhere: number } {
  const of = new Map(parts.map((one) => [one.part, one]));
  // The news of a showing can be lost on the way while that of a click comes.
  const share = (visitors: number) => (viewers === 0 ? 0 : Math.min(1, visitors / viewers));
  const met = new Set<string>();
  const places = steps.flatMap((step) =>
    blocksOfStep(step).flatMap((block): DoneThere[] => {
      const clickers = of.get(block.id)?.clickers ?? 0;
      const there = { step: step.id, block };
      const fields = block.kind === 'form' ? block.fields.filter(({ kind }) => kind !== 'hidden') : [];
      const isWritten = fields.some(({ id }) => (of.get(id)?.writers ?? 0) > 0);
      met.add(block.id);
      for (const { id } of fields) met.add(id);
      return [
        ...(clickers > 0
          ? [
              {
                ...there,
                part: block.id,
                field: undefined,
                visitors: clickers,
                share: share(clickers),
                gaveUp: 0,
              },
            ]
          : []),
        ...(isWritten
          ? fields.map((field) => {
              const { writers = 0, gaveUp = 0 } = of.get(field.id) ?? {};
              return { ...there, part: field.id, field, visitors: writers, share: share(writers), gaveUp };
            })
          : []),
      ];
    }),
  );
  return {
    places,
    elsewhere: parts.filter(({ part }) => !met.has(part)).length,
  };
}
