import type { Device, LookStyle, Message, MessageFile, Pictures } from '@velarium/contract';
import { inLanguage, type PersonalFacts, plainFamily, withSavedBlocks } from '@velarium/core';
import { type RenderedMessage, renderMessage } from '@velarium/render';
import { drawForm } from '@velarium/render/form';
import { further } from '@velarium/render/further';
import { sheetOf } from '@velarium/render/sheet';
import type { Design } from './use-design.ts';

/** A document in which nothing but a message stands. */
export const EMPTY_PAGE = '<!doctype html><html lang="en"><title>Message</title><body></body></html>';
const BREAKPOINTS = { mobile: 768, tablet: 1024 };
const nothing = () => {};
const never = () => new Promise<void>(nothing);

export interface StillOptions {
  readonly design: Design;
  readonly device: Device;
  readonly isDark?: boolean;
  /** Whom the texts are filled for; without, their places stand as written. */
  readonly factOf?: PersonalFacts | null;
  /** A Look in place of the one the message follows. */
  readonly look?: LookStyle | undefined;
  /** Which of its languages; as it was written where nothing is said. */
  readonly language?: string | undefined;
  /** What visitors were given of it: drawn as it was. */
  readonly frozen?: MessageFile | undefined;
}

/** Makes a site's letters known to a document; each is loaded once something in it is set in them. */
function putLetters(document: Document, letters: Design['letters']): void {
  const view = document.defaultView as (Window & typeof globalThis) | null;
  if (!view) return;
  const known = new Set([...document.fonts].map(({ family, weight }) => `${plainFamily(family)} ${weight}`));
  for (const { family, weights, address } of letters) {
    const [from, to] = weights;
    const weight = from === to ? `${from}` : `${from} ${to}`;
    if (!known.has(`${family} ${weight}`))
      document.fonts.add(new view.FontFace(family, `url("${location.origin}${address}")`, { weight }));
  }
}

/** Draws a message as visitors see it, but still: nothing of it acts, comes in or takes the focus. */
export function drawStill(
  document: Document,
  message: Message,
  { design, device, isDark = false, factOf = null, look, language, frozen }: StillOptions,
): RenderedMessage {
  const read = frozen ?? inLanguage(withSavedBlocks(message, design.savedOf), language);
  const whole = read.message;
  const { site } = design;
  putLetters(document, design.letters);
  const pictures: Pictures = frozen?.pictures ?? design.pictures;
  return renderMessage(whole, {
    sheet:
      frozen?.sheet ??
      sheetOf(whole, {
        look: look ?? design.lookOf(message),
        breakpoints: site?.settings.breakpoints ?? BREAKPOINTS,
        pictures,
        pictureBase: location.origin,
        as: device,
        scheme: isDark ? 'dark' : 'light',
      }),
    parent: document.documentElement,
    isStill: true,
    onClose: nothing,
    onAction: nothing,
    onSend: never,
    factOf,
    pictures,
    pictureBase: location.origin,
    language: read.language,
    words: read.words,
    form: { drawForm },
    further,
    clock: { nowMs: Date.now, firstSeenMs: Date.now(), timeZone: site?.timeZone ?? 'UTC' },
  });
}
