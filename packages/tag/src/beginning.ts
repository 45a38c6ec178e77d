import type { Manifest } from '@velarium/contract';
import type { Ask, LoadPart } from './files.ts';
import type { Parts } from './parts.ts';
import type { EventOutbox } from './send/outbox.ts';
import type { Load } from './show/load.ts';
import type { SiteScript } from './site-script.ts';
import type { Storage } from './store/storage.ts';

/** What a visit is begun with: on a page as it is, or in a preview. */
export interface Beginning {
  readonly script: SiteScript;
  readonly manifest: Manifest;
  readonly storage: Storage;
  readonly outbox: EventOutbox;
  readonly load: Load;
  readonly ask: Ask;
  readonly loadPart: LoadPart;
  /** In a preview nothing is sent anywhere. */
  readonly isPreview?: true;
  /** What is put in place of the tag's own parts. */
  readonly parts?: { readonly [Part in 'createToldFacts' | 'shareSession']?: Parts[Part] | undefined };
}
