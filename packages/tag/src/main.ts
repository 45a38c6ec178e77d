import type { Manifest } from '@velarium/contract';
import { createTopics, installApi, type Listener } from './api.ts';
import { type BundleName, loadBundle } from './files.ts';
import { whenActive } from './page/when-active.ts';
import type * as Panel from './panel.ts';
import type { Parts } from './parts.ts';
import { isPreviewed } from './preview/is-previewed.ts';
import { createEventOutbox } from './send/outbox.ts';
import { createLoader } from './show/load.ts';
import { findSiteScript, type SiteScript } from './site-script.ts';
import { createStorage } from './store/storage.ts';
import { createVisitorStore } from './store/visitor-store.ts';
import { startVisit } from './visit.ts';
import type * as Within from './within.ts';

async function start(script: SiteScript): Promise<void> {
  await whenActive();
  const { edge, key } = script;
  const ask = async (path: string) => {
    const response = await fetch(`${edge}/tag/${key}/${path}`, { credentials: 'omit' });
    return response.ok ? response.json() : undefined;
  };
  const loadPart = <Bundle>(name: BundleName) => loadBundle<Bundle>(edge, name);
  const panel = () => loadPart<typeof Panel>('panel');
  const preview = isPreviewed() ? await (await panel()).openPreview(script, loadPart) : undefined;
  const manifest: Manifest | undefined = preview?.manifest ?? (await ask('manifest.json'));
  if (manifest?.v !== 1) return;
  // The page around a frame may be the site's own: its tag is the visitor's.
  if (self !== top && !preview && !(await loadPart<typeof Within>('within')).worksHere(manifest.site)) return;
  const { memory, honoursSignal } = manifest.site.privacy;
  const isRefused = honoursSignal && (navigator as { globalPrivacyControl?: boolean }).globalPrivacyControl;
  const storage = preview?.storage ?? createStorage(memory === 'assumed' && !isRefused);
  const store = createVisitorStore(storage, key, manifest.site.sessionMinutes);
  const loaded = await Promise.all((manifest.first ?? manifest.parts).map((part) => loadPart<Parts>(part)));
  const topics = createTopics();
  const visit = startVisit({
    script,
    manifest,
    storage,
    store,
    outbox: preview?.outbox ?? createEventOutbox(edge, key, storage, manifest.made),
    load: preview?.load ?? createLoader(script, loadPart),
    topics,
    parts: Object.assign({}, ...loaded, preview?.parts),
    ask,
    loadPart,
    isPreview: !!preview,
  });
  installApi({
    ...visit.api,
    on(topic, listener: Listener) {
      if (topic === 'verdict')
        panel()
          .then(({ tellVerdicts }) => tellVerdicts(visit, topics.tell))
          .catch(() => {});
      return topics.on(topic, listener);
    },
  });
  preview?.draw(visit);
}

const scope = window as { velariumIsHere?: true };
const script = findSiteScript(document);
// Two snippets on one page are one tag. Whatever goes wrong, the page never hears of it.
if (script && !scope.velariumIsHere) {
  scope.velariumIsHere = true;
  start(script).catch(() => {});
}
