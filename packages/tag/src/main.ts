import type { Manifest } from '@velarium/contract';
import { needsExtras } from '@velarium/core/decide';
import { createTopics, installApi } from './api.ts';
import type * as More from './extras.ts';
import { whenActive } from './page/when-active.ts';
import { createEventOutbox } from './send/outbox.ts';
import { createLoader } from './show/load.ts';
import { findSiteScript, type SiteScript } from './site-script.ts';
import { createStorage } from './store/storage.ts';
import { createVisitorStore } from './store/visitor-store.ts';
import { startVisit } from './visit.ts';

/** Replaced at build time by the file name of the bundle of extras, which carries its content hash. */
declare const __EXTRAS__: string;

async function start(script: SiteScript): Promise<void> {
  await whenActive();
  const response = await fetch(`${script.edge}/tag/${script.key}/manifest.json`, { credentials: 'omit' });
  if (!response.ok) return;
  const manifest: Manifest = await response.json();
  if (manifest.v !== 1) return;
  const more: typeof More | undefined = needsExtras(manifest)
    ? await import(/* @vite-ignore */ `${script.edge}/tag/${__EXTRAS__}`)
    : undefined;
  const storage = createStorage();
  const topics = createTopics();
  const visit = startVisit({
    script,
    manifest,
    store: createVisitorStore(storage, script.key),
    outbox: createEventOutbox(script.edge, script.key, storage),
    load: createLoader(script),
    topics,
    more,
  });
  installApi({ ...visit, on: topics.on });
}

const scope = window as { velariumIsHere?: true };
const script = findSiteScript(document);
// Two snippets on one page are one tag. Whatever goes wrong, the page never hears of it.
if (script && !scope.velariumIsHere) {
  scope.velariumIsHere = true;
  start(script).catch(() => {});
}
