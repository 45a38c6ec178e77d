import type { Message } from '@velarium/contract';
import type { SentencePart } from '../sentence/rule-sentence.ts';

export interface Finding {
  readonly code: string;
  /** `stop` forbids publishing; `warn` is worth a look. */
  readonly severity: 'stop' | 'warn';
  /** What is wrong and how to mend it. */
  readonly text: string;
  /** Where it is mended. */
  readonly part: SentencePart | 'message';
}

/** Something about a message that is worth a look, with its mend where one is plain. */
export interface DesignFinding {
  readonly code: string;
  /** `stop` forbids publishing, `warn` should be mended, `hint` may be. */
  readonly severity: 'stop' | 'warn' | 'hint';
  /** What is wrong and how to mend it. */
  readonly text: string;
  /** The block it is about; `null` for the message as a whole. */
  readonly blockId: string | null;
  readonly mend?: { readonly label: string; readonly apply: (message: Message) => Message };
}
