import type { MessageFile } from '@velarium/contract';
import type { Beginning } from '../beginning.ts';
import type { Ask, LoadPart } from '../files.ts';
import type { EventOutbox } from '../send/outbox.ts';
import { createLoader, type Load } from '../show/load.ts';
import type { Visit } from '../visit.ts';

/** How a preview begins its visit; the visitor's real record is not changed. */
export interface OpenPreview extends Pick<Beginning, 'manifest' | 'storage' | 'load' | 'parts'> {
  draw(visit: Visit): void;
}

/** Nothing of a preview is counted. */
export const SILENT: EventOutbox = { add: () => {}, start: () => {} };

/** Drafts come with their messages; what runs has its own at the edge. */
export const loadFrom = (files: Readonly<Record<string, MessageFile>>, loadPart: LoadPart, ask: Ask): Load =>
  createLoader(loadPart, async (hash) => files[hash] ?? ask<MessageFile>(`messages/${hash}.json`));
