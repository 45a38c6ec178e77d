import type { Campaign, CampaignDocument } from '@velarium/contract';
import { ApiProblem } from '../api/client.ts';
import type { WorkbenchStore } from './store.ts';

const DELAY_MS = 500;
const RETRY_MS = 3000;

export type SaveDraft = (id: string, revision: number, document: CampaignDocument) => Promise<Campaign>;

export interface Autosave {
  /** Saves at once what is unsaved; resolves when everything is saved and rejects when it cannot be. */
  flush(): Promise<void>;
  stop(): void;
}

/**
 * Saves the store's document a moment after the last edit, one request at a time, and tries again while the
 * server cannot be reached. A refusal because of a newer revision stops it until somebody has decided.
 *
 * A save without an answer may have been made all the same: it is sent again as it was, which the server takes for the one save it
 * is, before what has been changed since. Otherwise one would be told that somebody else had saved first.
 */
export function startAutosave(store: WorkbenchStore, save: SaveDraft): Autosave {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let underWay: Promise<void> | undefined;
  let unanswered: { readonly revision: number; readonly document: CampaignDocument } | undefined;

  const plan = (delayMs: number) => {
    clearTimeout(timer);
    timer = setTimeout(() => void saveNow().catch(() => {}), delayMs);
  };

  const saveNow = (): Promise<void> => {
    clearTimeout(timer);
    underWay ??= saveOnce().finally(() => {
      underWay = undefined;
    });
    return underWay;
  };

  const saveOnce = async (): Promise<void> => {
    while (
      store.getState().document !== store.getState().savedDocument &&
      store.getState().status !== 'conflict'
    ) {
      const { id, revision, document: latest } = store.getState();
      const document = unanswered?.revision === revision ? unanswered.document : latest;
      unanswered = { revision, document };
      store.getState().setStatus('saving');
      try {
        const saved = await save(id, revision, document);
        unanswered = undefined;
        store.getState().markSaved(document, saved.revision);
      } catch (error) {
        const isConflict = error instanceof ApiProblem && error.problem.code === 'newer-revision';
        // What the server has refused it will refuse again; only the next edit can change its mind.
        const isRefused = error instanceof ApiProblem && error.problem.status < 500;
        store.getState().setStatus(isConflict ? 'conflict' : isRefused ? 'refused' : 'waiting');
        if (isRefused) unanswered = undefined;
        else plan(RETRY_MS);
        throw error;
      }
    }
    if (store.getState().status !== 'conflict') store.getState().setStatus('saved');
  };

  const stopWatching = store.subscribe((state, before) => {
    if (state.document !== before.document && state.status !== 'conflict') plan(DELAY_MS);
  });
  // What a reload left unsaved.
  if (store.getState().status === 'unsaved') plan(0);
  const onOnline = () => plan(0);
  const onLeave = (event: BeforeUnloadEvent) => {
    if (store.getState().status !== 'saved') event.preventDefault();
  };
  addEventListener('online', onOnline);
  addEventListener('beforeunload', onLeave);
  return {
    flush: saveNow,
    stop() {
      void saveNow().catch(() => {});
      clearTimeout(timer);
      stopWatching();
      removeEventListener('online', onOnline);
      removeEventListener('beforeunload', onLeave);
    },
  };
}
