import type { Manifest, Preview } from '@velarium/contract';
import { toJson } from '@velarium/core/decide';
import type { EventOutbox } from '../send/outbox.ts';
import { createLoader, type Load, type LoadPart } from '../show/load.ts';
import type { SiteScript } from '../site-script.ts';
import { createStorage, recordName, type Storage } from '../store/storage.ts';
import type { Visit } from '../visit.ts';
import { drawEnded, drawPanel } from './panel-view.ts';
import { isForPicking, pickElement } from './pick-element.ts';

interface OpenPreview {
  readonly manifest: Manifest;
  /** Kept for the tab alone: the visitor's real record is neither read nor changed. */
  readonly storage: Storage;
  readonly outbox: EventOutbox;
  readonly load: Load;
  draw(visit: Visit): void;
}

/** Nothing of a preview is counted. */
const SILENT: EventOutbox = { add: () => {}, start: () => {} };

/**
 * Takes up a preview: the campaign that is tried as its draft stands, among those that run; a visit of its own, and a
 * panel that says what each of them is waiting for. `undefined` when the token is refused; the page then goes on as for anybody.
 */
export async function openPreview(
  script: SiteScript,
  token: string,
  loadPart: LoadPart,
): Promise<OpenPreview | undefined> {
  const { edge, key } = script;
  const [ticket, tried] = token.split('~');
  const response = await fetch(`${edge}/preview`, {
    method: 'POST',
    body: toJson({ site: key, token: ticket, campaign: tried }),
    credentials: 'omit',
  });
  const leave = () => {
    sessionStorage.removeItem('velarium-preview');
    sessionStorage.removeItem(recordName(key));
    location.reload();
  };
  if (!response.ok) {
    drawEnded(leave);
    return undefined;
  }
  const { manifest, files, campaigns }: Preview = await response.json();
  if (isForPicking()) {
    // No message may lie over what is to be picked.
    return {
      manifest: { ...manifest, campaigns: [] },
      storage: createStorage(false),
      outbox: SILENT,
      load: createLoader(script, loadPart, files),
      draw: pickElement,
    };
  }
  const storage = createStorage(true, () => sessionStorage);
  const load = createLoader(script, loadPart, files);
  return {
    manifest,
    storage,
    outbox: SILENT,
    load,
    draw: (visit) =>
      drawPanel(visit, campaigns, tried, {
        leave,
        startAgain() {
          storage.write(recordName(key), '');
          visit.restart();
        },
      }),
  };
}
