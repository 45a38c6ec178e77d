import type { Preview, TellWhy } from '@velarium/contract';
import { toJson } from '@velarium/core/decide';
import type { Ask, LoadPart } from '../files.ts';
import type { SiteScript } from '../site-script.ts';
import { shareSession } from '../store/share-session.ts';
import { createReader } from '../store/storage.ts';
import { loadFrom, type OpenPreview } from './opened.ts';
import { button, drawPanel } from './panel-view.ts';

interface Asked {
  readonly script: SiteScript;
  readonly preview: Preview;
  readonly code: string;
  /** The campaign the visitor asks after. */
  readonly asked: string;
  readonly loadPart: LoadPart;
  readonly ask: Ask;
  readonly leave: () => void;
}

/**
 * A visitor who was given a code sees what each campaign answers to them: with what they are remembered by, of which nothing is
 * changed and nothing counted. They may let the studio know what the panel says.
 */
export async function openWhy({
  script,
  preview,
  code,
  asked,
  loadPart,
  ask,
  leave,
}: Asked): Promise<OpenPreview> {
  const { manifest, files, campaigns } = preview;
  const { memory, honoursSignal } = manifest.site.privacy;
  const isRefused = honoursSignal && (navigator as { globalPrivacyControl?: boolean }).globalPrivacyControl;
  return {
    manifest,
    storage: createReader(memory === 'assumed' && !isRefused),
    load: loadFrom(files, loadPart, ask),
    parts: {
      // What another subdomain handed over counts; nothing is handed on.
      shareSession: (site, key, storage, store) =>
        shareSession(site, key, { ...storage, isKept: () => false }, store),
    },
    draw(visit) {
      const send = button(
        'Send this to the site’s team',
        'Send what this panel says to the site’s team',
        async () => {
          send.disabled = true;
          const told: TellWhy = {
            site: script.key,
            code,
            page: location.pathname + location.search,
            lines: read(),
          };
          const response = await fetch(`${script.edge}/why`, {
            method: 'POST',
            body: toJson(told),
            credentials: 'omit',
          }).catch(() => undefined);
          send.disabled = false;
          note.textContent = response?.ok
            ? 'Sent, as it stands here. Thank you.'
            : 'It could not be sent. Please try again, or tell them what it says.';
        },
      );
      const note = document.createElement('p');
      note.setAttribute('role', 'status');
      const read = drawPanel(visit, {
        campaigns,
        tried: asked,
        heading: 'What messages do here, and why',
        words:
          'As this browser is known here. Nothing of it is changed or counted. Sending tells the team what stands in this panel and on which page, and nothing else.',
        canShow: false,
        below: [note],
        footer: [send, button('Leave', 'Leave, and go on as before', leave)],
      });
    },
  };
}
