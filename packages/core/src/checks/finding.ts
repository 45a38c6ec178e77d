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
