import { useMutation } from '@tanstack/react-query';
import type { Campaign } from '@velarium/contract';
import { documentSentence, sentenceText } from '@velarium/core';
import { request } from '../api/client.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { tellProblem } from '../ui/toast.tsx';
import { useWorkbench, useWorkbenchStore } from './store.ts';

/** Somebody else saved meanwhile: neither version is lost until a person has decided. */
export function ConflictDialog({ flush }: { readonly flush: () => Promise<void> }) {
  const store = useWorkbenchStore();
  const isOpen = useWorkbench((state) => state.status === 'conflict');
  const load = () => request<Campaign>('GET', `/campaigns/${store.getState().id}`);
  const takeTheirs = useMutation({
    mutationFn: load,
    onSuccess: (theirs) => store.getState().takeTheirs(theirs),
    onError: tellProblem,
  });
  const keepMine = useMutation({
    mutationFn: async () => {
      store.getState().takeServer(await load());
      store.getState().setStatus('unsaved');
      await flush();
    },
    onError: tellProblem,
  });
  const document = useWorkbench((state) => state.document);
  return (
    <Dialog
      isOpen={isOpen}
      onClose={() => {}}
      title="Somebody else saved this first"
      description="Your changes are kept here and have not been saved. Choose which to go on with; the other stays among the campaign’s revisions."
    >
      <p className="mb-5 border-l-2 border-line-strong pl-4 font-serif">
        Yours: {sentenceText(documentSentence(document))}
      </p>
      <div className="flex justify-end gap-2">
        <Button isBusy={takeTheirs.isPending} onClick={() => takeTheirs.mutate()}>
          Go on with theirs
        </Button>
        <Button tone="main" isBusy={keepMine.isPending} onClick={() => keepMine.mutate()}>
          Keep mine in its place
        </Button>
      </div>
    </Dialog>
  );
}
