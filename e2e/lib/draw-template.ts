import type { Device, LookStyle } from '@velarium/contract';
import { DRAWN_FILES, TEMPLATES } from '@velarium/core';
import { type RenderedMessage, renderMessage } from '@velarium/render';
import { drawForm } from '@velarium/render/form';
import { further } from '@velarium/render/further';
import { sheetOf } from '@velarium/render/sheet';

export interface Drawing {
  readonly template: string;
  readonly look: LookStyle;
  readonly device: Device;
  /** Where its pictures lie. */
  readonly pictureBase: string;
}
declare global {
  interface Window {
    drawTemplate: (drawing: Drawing) => void;
  }
}

const BREAKPOINTS = { mobile: 768, tablet: 1024 };
const nothing = () => {};
let drawn: RenderedMessage | undefined;

/** Runs in a page of a test, bundled for it: draws a template by the renderer alone, in the place of the one before. */
window.drawTemplate = ({ template, look, device, pictureBase }) => {
  drawn?.remove();
  const message = TEMPLATES.find(({ id }) => id === template)?.message;
  if (!message) throw new Error(`no template ${template}`);
  drawn = renderMessage(message, {
    sheet: sheetOf(message, {
      look,
      breakpoints: BREAKPOINTS,
      pictures: DRAWN_FILES,
      pictureBase,
      as: device,
    }),
    parent: document.documentElement,
    isStill: true,
    onClose: nothing,
    onAction: nothing,
    onSend: () => new Promise(nothing),
    factOf: () => '',
    pictures: DRAWN_FILES,
    pictureBase,
    form: { drawForm },
    further,
    clock: { nowMs: Date.now, firstSeenMs: Date.now(), timeZone: 'UTC' },
  });
};
