import type { Preview } from '@velarium/contract';
import { toJson, writeMemory } from '@velarium/core/decide';
import { type Pretended, pretendedFacts, pretendedMemory } from '@velarium/core/explain';
import { begin } from '../begin.ts';
import type { Ask, LoadPart } from '../files.ts';
import { createToldFacts } from '../page/visitor-facts.ts';
import type { SiteScript } from '../site-script.ts';
import { createStorage, recordName } from '../store/storage.ts';
import type { Visit } from '../visit.ts';
import { PREVIEW } from './is-previewed.ts';
import { openWhy } from './open-why.ts';
import { loadFrom, type OpenPreview, SILENT } from './opened.ts';
import { button, drawEnded, drawPanel } from './panel-view.ts';
import { isForPicking, pickElement } from './pick-element.ts';
import { drawPretend, forget, keep, readKept } from './pretend-view.ts';
import { sendSight } from './send-sight.ts';
import { takePreviewToken } from './token.ts';

/** Begins a preview, if the page was opened for one; whether it has. Where it is refused, the page goes on as for anybody. */
export async function startPreview(script: SiteScript, ask: Ask, loadPart: LoadPart): Promise<boolean> {
  const preview = await openPreview(script, ask, loadPart);
  if (!preview) return false;
  const { draw, ...beginning } = preview;
  draw(await begin({ ...beginning, script, ask, loadPart, outbox: SILENT, isPreview: true }));
  return true;
}

/**
 * Takes up a preview: the campaign that is tried as its draft stands, among those that run; a visit of its own, and a
 * panel that says what each of them is waiting for. `undefined` when the token is refused.
 */
async function openPreview(
  script: SiteScript,
  ask: Ask,
  loadPart: LoadPart,
): Promise<OpenPreview | undefined> {
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
  const preview: Preview = await response.json();
  const { manifest, files, campaigns, link } = preview;
  if (preview.why)
    return openWhy({
      script,
      preview,
      code: ticket ?? '',
      asked: preview.why.campaign,
      loadPart,
      ask,
      leave,
    });
  if (!link) sendSight(script, ticket ?? '');
  if (isForPicking()) {
    // No message may lie over what is to be picked.
    return {
      manifest: { ...manifest, campaigns: [] },
      storage: createStorage(false),
      load: loadFrom(files, loadPart, ask),
      draw: pickElement,
    };
  }
  const storage = createStorage(true, () => sessionStorage);
  const load = loadFrom(files, loadPart, ask);
  const pretended = readKept();
  /** Begins a visit of its own, as somebody who may have been here before. */
  const beginAnew = (visit: Visit, as: Pretended) => {
    storage.write(recordName(key), '');
    const [, , memory] = visit.look();
    storage.write(recordName(key), writeMemory(pretendedMemory(memory, as)));
  };
  return {
    manifest,
    storage,
    load,
    parts: {
      // A cookie of the whole domain would hand this visit over as the visitor's own.
      shareSession: undefined,
      createToldFacts: (...given) => {
        const told = createToldFacts(...given);
        return { ...told, read: () => pretendedFacts(told.read(), pretended) };
      },
    },
    draw(visit) {
      if (link?.isBare) return;
      drawPanel(visit, {
        campaigns,
        tried,
        heading: 'Preview of this visit',
        words: `${tried ? 'As it is drafted, among what visitors meet' : 'Drafts as they stand'}. Nothing here is counted, and no visitor’s caps are spent.`,
        canShow: true,
        below: [
          drawPretend(pretended, (next) => {
            keep(next);
            beginAnew(visit, next);
            location.reload();
          }),
        ],
        footer: [
          button('Start the visit again', 'Start the visit again, as a new visitor', () => {
            beginAnew(visit, pretended);
            visit.restart();
          }),
          button('Leave the preview', 'Leave the preview', leave),
        ],
      });
    },
  };
}
