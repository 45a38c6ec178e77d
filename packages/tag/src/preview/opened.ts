import type { Manifest } from '@velarium/contract';
import type { Parts } from '../parts.ts';
import type { EventOutbox } from '../send/outbox.ts';
import type { Load } from '../show/load.ts';
import type { Storage } from '../store/storage.ts';
import type { Visit } from '../visit.ts';

export interface OpenPreview {
  readonly manifest: Manifest;
  /** The visitor's real record is not changed. */
  readonly storage: Storage;
  readonly outbox: EventOutbox;
  readonly load: Load;
  /** What is put in place of the tag's own parts. */
  readonly parts?: { readonly [Part in 'createToldFacts' | 'shareSession']?: Parts[Part] | undefined };
  draw(visit: Visit): void;
}

/** Nothing of a preview is counted. */
export const SILENT: EventOutbox = { add: () => {}, start: () => {} };
