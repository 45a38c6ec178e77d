import type { Action, Block, Field, FormBlock, Pictures } from '@velarium/contract';
import type { OwnWords, PersonalFacts } from '@velarium/core/message';

export interface Answers {
  /** The block that is the form. */
  readonly form: string;
  readonly fields: Readonly<Record<string, string>>;
  readonly consent: boolean;
  /** The sum that keeps robots out, with its answer. */
  readonly sum?: string;
  /** What the field holds that nobody sees. */
  readonly unseen?: string;
  /** What goes with the answers of file fields, in base 64. */
  readonly files?: Readonly<Record<string, string>>;
}
/** Sends the answers; resolves when they are stored and rejects with words for the visitor. */
type SendForm = (answers: Answers) => Promise<void>;

/** What a drawn block may ask of the page it stands in. */
export interface BlockContext {
  readonly document: Document;
  /** `stays`: the message does not go with it, as with a link within a text. */
  readonly onAction: (action: Action, stays?: boolean) => void;
  readonly onSend: SendForm;
  /** Somebody writes into a field of a form, for the first time since it was drawn. */
  readonly onWriting?: ((field: string) => void) | undefined;
  /** What is known of the visitor and the page, for places in texts; `null` leaves the places as written. */
  readonly factOf: PersonalFacts | null;
  readonly pictures: Pictures;
  /** Origin that pictures are loaded from. */
  readonly pictureBase: string;
  /** What the message says of itself, where that is not English or was worded anew. */
  readonly words?: OwnWords | undefined;
  /** Of the message, where it says; as the page's otherwise. */
  readonly language?: string | undefined;
  readonly form?: AnswerPart | undefined;
  readonly further?: Further | undefined;
  /** For countdowns. */
  readonly clock: { readonly nowMs: () => number; readonly firstSeenMs: number; readonly timeZone: string };
  /** Takes what must be undone when the message goes or shows another step. */
  readonly onUndo: (undo: () => void) => void;
  /** On the Workbench nothing runs. */
  readonly isStill: boolean;
  /** Where the edge says how many readers and shares there are. */
  readonly countsAddress?: string;
}

export interface DrawnField {
  readonly drawn: HTMLElement;
  /** What takes the focus when the answer is wrong. */
  readonly input: HTMLElement;
  readonly value: () => string;
  /** What was chosen, in base 64; empty while nothing is. */
  readonly file?: () => string;
  /** Says what is wrong beside the field; whether nothing is. */
  readonly check: () => boolean;
}

/** The part of the renderer that messages with a form load. */
export interface AnswerPart {
  drawForm(block: FormBlock, context: BlockContext): HTMLElement;
}

/** The part of the renderer for what is rarer still. */
export interface Further {
  drawBlock(block: Block, context: BlockContext): HTMLElement;
  drawField(field: Field, formId: string, context: BlockContext): DrawnField;
  drawSum(block: FormBlock, context: BlockContext): DrawnField;
  addressFor(action: Extract<Action, { kind: 'link' }>, view: Window): string;
  /** Whether a whole answer fits a pattern. */
  fits(pattern: string, value: string): boolean;
}
