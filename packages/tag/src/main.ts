import type { Manifest, MessageFile } from '@velarium/contract';
import { begin } from './begin.ts';
import { type Ask, type LoadPart, loadBundle } from './files.ts';
import { whenActive } from './page/when-active.ts';
import { isPreviewed } from './preview/is-previewed.ts';
import type * as Preview from './preview.ts';
import { createEventOutbox } from './send/outbox.ts';
import { createLoader } from './show/load.ts';
import { findSiteScript, type SiteScript } from './site-script.ts';
import { createStorage } from './store/storage.ts';
import type * as Within from './within.ts';

async function start(script: SiteScript): Promise<void> {
  await whenActive();
  const { edge, key } = script;
  const ask: Ask = async (path) => {
    const response = await fetch(`${edge}/tag/${key}/${path}`, { credentials: 'omit' });
    return response.ok ? response.json() : undefined;
  };
  const loadPart: LoadPart = (name) => loadBundle(edge, name);
  if (
    isPreviewed() &&
    (await (await loadPart<typeof Preview>('preview')).startPreview(script, ask, loadPart))
  )
    return;
  const manifest = await ask<Manifest>('manifest.json');
  if (manifest?.v !== 1) return;
  // The page around a frame may be the site's own: its tag is the visitor's.
  if (self !== top && !(await loadPart<typeof Within>('within')).worksHere(manifest.site)) return;
  const { memory, honoursSignal } = manifest.site.privacy;
  const isRefused = honoursSignal && (navigator as { globalPrivacyControl?: boolean }).globalPrivacyControl;
  const storage = createStorage(memory === 'assumed' && !isRefused);
  await begin({
    script,
    manifest,
    storage,
    outbox: createEventOutbox(edge, key, storage, manifest.made),
    load: createLoader(loadPart, (hash) => ask<MessageFile>(`messages/${hash}.json`)),
    ask,
    loadPart,
  });
}

const scope = window as { velariumIsHere?: true };
const script = findSiteScript(document);
// Two snippets on one page are one tag. Whatever goes wrong, the page never hears of it.
if (script && !scope.velariumIsHere) {
  scope.velariumIsHere = true;
  start(script).catch(() => {});
}
