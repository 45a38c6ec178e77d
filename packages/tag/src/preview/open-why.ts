import type { Preview, TellWhy } from '@velarium/contract';
import { toJson } from '@velarium/core/decide';
import type * as Rare from '../rare.ts';
import { createLoader, type LoadPart } from '../show/load.ts';
import type { SiteScript } from '../site-script.ts';
import { createReader } from '../store/storage.ts';
import { type OpenPreview, SILENT } from './opened.ts';
import { button, drawPanel } from './panel-view.ts';

interface Asked {
  readonly script: SiteScript;
  readonly preview: Preview;
  readonly code: string;
  /** The campaign the visitor asks after. */
  readonly asked: string;
  readonly loadPart: LoadPart;
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
  leave,
}: Asked): Promise<OpenPreview> {
  const { manifest, files, campaigns } = preview;
  const { memory, honoursSignal } = manifest.site.privacy;
  const isRefused = honoursSignal && (navigator as { globalPrivacyControl?: boolean }).globalPrivacyControl;
  const { shareSession } = manifest.parts.includes('rare')
    ? await loadPart<typeof Rare>('rare')
    : { shareSession: undefined };
  return {
    manifest,
    storage: createReader(memory === 'assumed' && !isRefused),
    outbox: SILENT,
    load: createLoader(script, loadPart, files),
    parts: {
      // What another subdomain handed over counts; nothing is handed on.
      shareSession:
        shareSession &&
        ((domain, key, minutes, storage, store) =>
          shareSession(domain, key, minutes, { ...storage, isKept: () => false }, store)),
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
