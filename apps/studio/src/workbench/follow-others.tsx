import type { Campaign, CampaignDocument } from '@velarium/contract';
import { mergeDocuments } from '@velarium/core';
import { useEffect, useState } from 'react';
import { useNames } from '../board/use-names.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { tell } from '../ui/toast.tsx';
import { BothTexts } from './both-texts.tsx';
import { changedWords } from './places.ts';
import { useWorkbench, useWorkbenchStore } from './store.ts';

interface Replaced {
  readonly paths: readonly string[];
  readonly mine: CampaignDocument;
  readonly theirs: CampaignDocument;
  /** Both people's changes together, mine where both have changed the same. */
  readonly together: CampaignDocument;
}

/**
 * An open campaign follows what others save, and says so. Where that puts something else in the place of what was
 * changed here, both texts are shown, and one's own can be put back.
 */
export function FollowOthers({ campaign }: { readonly campaign: Campaign }) {
  const store = useWorkbenchStore();
  const names = useNames(useWorkbench((state) => state.siteId));
  const status = useWorkbench((state) => state.status);
  const [replaced, setReplaced] = useState<Replaced>();

  useEffect(() => {
    // While something is being changed here nothing is followed: saving it tells of the other's save.
    if (status !== 'saved') return;
    const { revision, document, groundDocument } = store.getState();
    if (campaign.revision > revision) {
      const { merged, conflicts } = mergeDocuments(groundDocument, document, campaign.document);
      store.getState().takeTheirs(campaign);
      if (conflicts.length > 0)
        setReplaced({ paths: conflicts, mine: document, theirs: campaign.document, together: merged });
      else {
        const changed = changedWords(document, campaign.document);
        if (changed.length > 0) tell(`Somebody else has changed this campaign: ${changed.join(', ')}.`);
      }
    }
    // Moves made elsewhere (rest, run, a new name) come the same way.
    if (campaign.revision === store.getState().revision) store.getState().takeServer(campaign);
  }, [campaign, status, store]);

  return (
    <Dialog
      isOpen={replaced !== undefined}
      onClose={() => setReplaced(undefined)}
      title="Somebody else changed what you had changed"
      description="Theirs stands there now. Yours is kept among the campaign’s revisions and can be put back."
      className="w-[min(92vw,42rem)]"
    >
      {replaced && <BothTexts {...replaced} names={names} />}
      <div className="flex justify-end gap-2">
        <Button
          onClick={() => {
            const together = replaced?.together;
            setReplaced(undefined);
            if (together) store.getState().setDocument(() => together);
          }}
        >
          Put mine back
        </Button>
        <Button tone="main" onClick={() => setReplaced(undefined)}>
          Leave theirs
        </Button>
      </div>
    </Dialog>
  );
}
