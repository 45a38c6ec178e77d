import type { Block, Message, RichText } from '@velarium/contract';

/** The message with one block changed; the same message when no block has this id. */
export function changeBlock(message: Message, blockId: string, change: (block: Block) => Block): Message {
  return {
    ...message,
    steps: message.steps.map((step) =>
      step.blocks.some(({ id }) => id === blockId)
        ? { ...step, blocks: step.blocks.map((block) => (block.id === blockId ? change(block) : block)) }
        : step,
    ),
  };
}

/** Joins neighbouring spans of one style and drops empty ones, so equal texts are equal trees. */
export function tidyRichText(content: RichText): RichText {
  return content.map((paragraph) => {
    const tidy: RichText[number] = [];
    for (const span of paragraph) {
      const last = tidy.at(-1);
      if (span.text === '') continue;
      if (last && last.bold === span.bold && last.italic === span.italic) {
        tidy[tidy.length - 1] = { ...last, text: last.text + span.text };
      } else tidy.push(span);
    }
    return tidy;
  });
}
