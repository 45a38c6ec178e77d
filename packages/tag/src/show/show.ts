import type { CloseWay, Message, Submit } from '@velarium/contract';
import { convertsByLink } from '@velarium/core/message';
import { renderMessage } from '@velarium/render';
import { onViewable } from '../page/on-viewable.ts';
import { submitAnswers } from '../send/submit.ts';

export interface ShowHooks {
  readonly onViewable: () => void;
  readonly onClicked: () => void;
  /** `form` answers are counted by the server that stored them; a followed link has only the tag to tell of it. */
  readonly onConverted: (by: 'link' | 'form') => void;
  /** The edge's origin, and what goes to it with the answers of a form. */
  readonly edge: string;
  readonly envelope: () => Omit<Submit, 'fields' | 'consent'>;
  /** Gone for good; `way` is `undefined` when the page left it, not the visitor. */
  readonly onGone: (way: CloseWay | undefined) => void;
}

export interface Shown {
  close(way: CloseWay | undefined): void;
}

/** Draws a loaded message over the page and reports what becomes of it. */
export function show(message: Message, hooks: ShowHooks): Shown {
  let isGone = false;
  const close = (way: CloseWay | undefined) => {
    if (isGone) return;
    isGone = true;
    stopWatching();
    rendered.remove();
    hooks.onGone(way);
  };
  const rendered = renderMessage(message, {
    // Beside the body, where no transform of the page can hold a fixed layer back.
    parent: document.documentElement,
    onClose: close,
    onAction: (action) => {
      if (action.kind === 'link') {
        hooks.onClicked();
        if (convertsByLink(message)) hooks.onConverted('link');
      }
      close('action');
    },
    onSend: async (answers) => {
      await submitAnswers(hooks.edge, { ...hooks.envelope(), ...answers });
      hooks.onConverted('form');
      const success = message.steps.find((step) => step.role === 'success');
      if (success) rendered.showStep(success.id);
      else close('action');
    },
  });
  const stopWatching = onViewable(rendered.box, hooks.onViewable);
  return { close };
}
