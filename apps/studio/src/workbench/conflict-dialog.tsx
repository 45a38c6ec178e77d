import { useQuery } from '@tanstack/react-query';
import type { Campaign } from '@velarium/contract';
import { documentSentence, findBlock, mergeDocuments, sentenceText } from '@velarium/core';
import { useEffect, useMemo } from 'react';
import { request } from '../api/client.ts';
import { useNames } from '../board/use-names.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { BLOCK_WORDS, blockWords } from './message/block-names.tsx';
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
      description="You both changed the same thing. Choose whose change stands there; everything else of both is kept, and the other stays reachable by undo and among the campaign’s revisions."
    >
      <ul className="mb-4 list-disc pl-5">
        {[...new Set((mine?.conflicts ?? []).map((path) => placeWords(path, document)))].map((words) => (
          <li key={words}>{words}</li>
        ))}
      </ul>
      <p className="mb-5 border-l-2 border-line-strong pl-4 font-serif">
        Yours: {sentenceText(documentSentence(document, names))}
      </p>
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

/** Where in a campaign a path of its document points, as a person would say it. */
function placeWords(path: string, { message }: Campaign['document']): string {
  const [part, side] = path.split('.');
  if (part === 'rule')
    return side === 'moment'
      ? 'Moment: when it opens'
      : side === 'reach'
        ? 'Reach: where and to whom'
        : 'Limits: how often';
  const [block] = path
    .split('.')
    .flatMap((step) => findBlock(message, step) ?? [])
    .reverse();
  if (block) return `${BLOCK_WORDS[block.kind]} “${blockWords(block)}”`;
  return side === 'steps' ? 'The steps of the message' : 'The box of the message';
}
