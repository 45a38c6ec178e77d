import type { Manifest, Preview } from '@velarium/contract';
import { toJson, writeMemory } from '@velarium/core/decide';
import { type Pretended, pretendedFacts, pretendedMemory } from '@velarium/core/explain';
import type * as Extras from '../extras.ts';
import type { Parts } from '../parts.ts';
import type { EventOutbox } from '../send/outbox.ts';
import { createLoader, type Load, type LoadPart } from '../show/load.ts';
import type { SiteScript } from '../site-script.ts';
import { createStorage, recordName, type Storage } from '../store/storage.ts';
import type { Visit } from '../visit.ts';
import { PREVIEW } from './is-previewed.ts';
import { drawEnded, drawPanel } from './panel-view.ts';
import { isForPicking, pickElement } from './pick-element.ts';
import { forget, keep, readKept } from './pretend-view.ts';
import { sendSight } from './send-sight.ts';
import { takePreviewToken } from './token.ts';

interface OpenPreview {
  readonly manifest: Manifest;
  /** Kept for the tab alone: the visitor's real record is neither read nor changed. */
  readonly storage: Storage;
  readonly outbox: EventOutbox;
  readonly load: Load;
  /** What is put in place of the tag's own parts. */
  readonly parts?: Pick<Parts, 'createToldFacts'>;
  draw(visit: Visit): void;
}

/** Nothing of a preview is counted. */
const SILENT: EventOutbox = { add: () => {}, start: () => {} };

/**
 * Takes up a preview: the campaign that is tried as its draft stands, among those that run; a visit of its own, and a
 * panel that says what each of them is waiting for. `undefined` when the token is refused; the page then goes on as for anybody.
 */
export async function openPreview(script: SiteScript, loadPart: LoadPart): Promise<OpenPreview | undefined> {
  const { edge, key } = script;
  const [ticket, tried] = takePreviewToken()?.split('~') ?? [];
  const response = await fetch(`${edge}/preview`, {
    method: 'POST',
    body: toJson({ site: key, token: ticket, campaign: tried }),
    credentials: 'omit',
  });
  const leave = () => {
    sessionStorage.removeItem(PREVIEW);
    sessionStorage.removeItem(recordName(key));
    forget();
    location.reload();
  };
  if (!response.ok) {
    drawEnded(leave);
    return undefined;
  }
  const { manifest, files, campaigns, link }: Preview = await response.json();
  if (!link) sendSight(script, ticket ?? '');
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
  const pretended = readKept();
  // Asked for anyway, and before anything is decided.
  const { createToldFacts } = manifest.parts.includes('extras')
    ? await loadPart<typeof Extras>('extras')
    : { createToldFacts: undefined };
  /** Begins a visit of its own, as somebody who may have been here before. */
  const beginAnew = (visit: Visit, as: Pretended) => {
    storage.write(recordName(key), '');
    const [, , memory] = visit.look();
    storage.write(recordName(key), writeMemory(pretendedMemory(memory, as)));
  };
  return {
    manifest,
    storage,
    outbox: SILENT,
    load,
    ...(createToldFacts && {
      parts: {
        createToldFacts: (...given) => {
          const told = createToldFacts(...given);
          return { ...told, read: () => pretendedFacts(told.read(), pretended) };
        },
      },
    }),
    draw: (visit) =>
      !link?.isBare &&
      drawPanel(visit, campaigns, tried, pretended, {
        leave,
        startAgain() {
          beginAnew(visit, pretended);
          visit.restart();
        },
        pretend(next) {
          keep(next);
          beginAnew(visit, next);
          location.reload();
        },
      }),
  };
}
