import type { Manifest } from '@velarium/contract';
import { createTopics, installApi, type Listener } from './api.ts';
import type { Ask, LoadPart } from './files.ts';
import type { Parts } from './parts.ts';
import type { EventOutbox } from './send/outbox.ts';
import type { Load } from './show/load.ts';
import type { SiteScript } from './site-script.ts';
import type { Storage } from './store/storage.ts';
import { createVisitorStore } from './store/visitor-store.ts';
import type * as Verdicts from './verdicts.ts';
import { startVisit, type Visit } from './visit.ts';

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

/** Begins to follow the visit, and lets the page's own script speak to it. */
export async function begin(beginning: Beginning): Promise<Visit> {
  const { script, manifest, storage } = beginning;
  const store = createVisitorStore(storage, script.key, manifest.site.sessionMinutes);
  const topics = createTopics();
  const visit = await startVisit(beginning, store, topics.tell);
  installApi({
    ...visit.api,
    on(topic, listener: Listener) {
      if (topic === 'verdict')
        beginning
          .loadPart<typeof Verdicts>('verdicts')
          .then(({ tellVerdicts }) => tellVerdicts(visit, topics.tell))
          .catch(() => {});
      return topics.on(topic, listener);
    },
  });
  return visit;
}
