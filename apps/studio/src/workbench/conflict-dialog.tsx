import { useQuery } from '@tanstack/react-query';
import type { Campaign } from '@velarium/contract';
import { mergeDocuments } from '@velarium/core';
import { useEffect, useMemo } from 'react';
import { request } from '../api/client.ts';
import { useNames } from '../board/use-names.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { BothTexts } from './both-texts.tsx';
import { useWorkbench, useWorkbenchLater, useWorkbenchStore } from './store.ts';

/**
 * Somebody else saved meanwhile. What only one of the two has changed is put together at once; what both have changed
 * is decided by a person, and neither version is lost until then.
 */
export function ConflictDialog({ flush }: { readonly flush: () => Promise<void> }) {
  const store = useWorkbenchStore();
  const id = useWorkbench((state) => state.id);
  const revision = useWorkbench((state) => state.revision);
  const isConflict = useWorkbench((state) => state.status === 'conflict');
  const document = useWorkbenchLater((state) => state.document);
  const saved = useWorkbench((state) => state.savedDocument);
  const names = useNames(useWorkbench((state) => state.siteId));
  const { data: theirs } = useQuery({
    queryKey: ['conflict', id, revision],
    queryFn: () => request<Campaign>('GET', `/campaigns/${id}`),
    enabled: isConflict,
    gcTime: 0,
  });
  const mine = useMemo(
    () => (isConflict && theirs ? mergeDocuments(saved, document, theirs.document) : undefined),
    [isConflict, theirs, saved, document],
  );

  useEffect(() => {
    if (!mine || !theirs || mine.conflicts.length > 0) return;
    store.getState().takeTogether(theirs, mine.merged);
    tell('Somebody else has changed this campaign meanwhile. Their changes and yours were put together.');
    flush().catch(tellProblem);
  }, [mine, theirs, store, flush]);

  const goOn = (together: Campaign['document']) => {
    if (!theirs) return;
    store.getState().takeTogether(theirs, together);
    flush().catch(tellProblem);
  };
  const isOpen = isConflict && mine !== undefined && mine.conflicts.length > 0;
  return (
    <Dialog
      isOpen={isOpen}
      onClose={() => {}}
      title="Somebody else saved this first"
      className="w-[min(92vw,42rem)]"
      description="You both changed the same thing. Choose whose change stands there; everything else of both is kept, and the other stays reachable by undo and among the campaign’s revisions."
    >
      {mine && theirs && (
        <BothTexts paths={mine.conflicts} mine={document} theirs={theirs.document} names={names} />
      )}
      <div className="flex justify-end gap-2">
        <Button onClick={() => theirs && goOn(mergeDocuments(saved, theirs.document, document).merged)}>
          Go on with theirs
        </Button>
        <Button tone="main" onClick={() => mine && goOn(mine.merged)}>
          Keep mine in its place
        </Button>
      </div>
    </Dialog>
  );
}
