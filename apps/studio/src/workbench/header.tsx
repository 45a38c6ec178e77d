import { useMutation } from '@tanstack/react-query';
import { campaignNameSchema } from '@velarium/contract';
import { Redo2, Undo2 } from 'lucide-react';
import { Link } from 'react-router';
import { changeCampaign } from '../api/queries.ts';
import { useTitle } from '../app/use-title.ts';
import { isLive, StateMark } from '../board/state-mark.tsx';
import { useMoves } from '../board/use-moves.ts';
import { Button, IconButton } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { mayGlide, useGlide } from '../ui/glide.ts';
import { tellProblem } from '../ui/toast.tsx';
import { useTyped } from '../ui/use-typed.ts';
import { NoteOfTeam } from './note-of-team.tsx';
import { hasEdits, type SaveStatus, useWorkbench, useWorkbenchStore } from './store.ts';
import { TryOnSite } from './try-on-site.tsx';
import { WhoIsHere } from './who-is-here.tsx';

const STATUS_WORDS: Readonly<Record<SaveStatus, string>> = {
  saved: 'All saved',
  unsaved: 'Saving soon …',
  saving: 'Saving …',
  waiting: 'Not saved yet: the server cannot be reached. Trying again.',
  refused: 'Not saved: the server refused the last change. Undo it or change it.',
  conflict: 'Not saved: somebody else saved first.',
};

/** The row of the header, and where a name stands in it: the same before the campaign is there, so that nothing moves. */
export const HEADER_ROW =
  'flex min-h-12 flex-wrap items-center gap-x-2.5 gap-y-1 border-b border-line px-5 max-lg:py-1.5';
export const NAME_BOX = 'h-8 rounded border border-transparent px-1.5 font-semibold';

/** The other places of this campaign. */
export function PlacesOfCampaign({
  siteId,
  campaignId,
}: {
  readonly siteId: string;
  readonly campaignId: string;
}) {
  const places = {
    Board: `/sites/${siteId}/board`,
    Results: `/sites/${siteId}/campaigns/${campaignId}/results`,
    Rehearse: `/sites/${siteId}/rehearsal?of=${campaignId}`,
    Versions: `/sites/${siteId}/campaigns/${campaignId}/versions`,
  };
  return (
    <>
      {Object.entries(places).map(([name, to]) => (
        <Link
          key={name}
          to={to}
          viewTransition={name === 'Board' && mayGlide()}
          className="text-soft underline-offset-4 hover:underline"
        >
          {name}
        </Link>
      ))}
      <span aria-hidden="true" className="text-line-strong">
        /
      </span>
    </>
  );
}

export interface WorkbenchHeaderProps {
  readonly onLaunch: () => void;
  readonly flush: () => Promise<void>;
}

export function WorkbenchHeader({ onLaunch, flush }: WorkbenchHeaderProps) {
  const store = useWorkbenchStore();
  const { undo, redo } = store.getState();
  const { move, isBusy } = useMoves();
  const status = useWorkbench((state) => state.status);
  const campaignState = useWorkbench((state) => state.campaignState);
  const isEdited = useWorkbench(hasEdits);
  const siteId = useWorkbench((state) => state.siteId);
  const canEdit = useWorkbench((state) => state.canEdit);
  const canUndo = useWorkbench((state) => state.past.length > 0);
  const canRedo = useWorkbench((state) => state.future.length > 0);
  const subject = () => store.getState();
  useTitle(useWorkbench((state) => state.name));
  return (
    <div className={HEADER_ROW}>
      <PlacesOfCampaign siteId={siteId} campaignId={subject().id} />
      <CampaignName />
      <StateMark state={campaignState} />
      {isEdited && <span className="text-xs whitespace-nowrap text-hold">◇ edits not yet published</span>}
      <p role="status" className="text-xs text-soft">
        {canEdit ? STATUS_WORDS[status] : 'You may look; changing takes the role editor.'}
      </p>
      <div className="ml-auto flex flex-wrap items-center gap-1">
        <WhoIsHere />
        <NoteOfTeam />
        <IconButton label="Undo" disabled={!canUndo} onClick={undo}>
          <Undo2 size={16} aria-hidden />
        </IconButton>
        <IconButton label="Redo" disabled={!canRedo} onClick={redo}>
          <Redo2 size={16} aria-hidden />
        </IconButton>
        {canEdit && <TryOnSite flush={flush} />}
        {canEdit && isLive(campaignState) && (
          <Button isBusy={isBusy} onClick={() => move(subject(), 'rest')}>
            Rest
          </Button>
        )}
        {canEdit && campaignState === 'resting' && (
          <Button isBusy={isBusy} onClick={() => move(subject(), 'run')}>
            Run again
          </Button>
        )}
        {canEdit && (
          <Button tone="main" onClick={onLaunch}>
            {isEdited ? 'Launch the edits' : 'Launch'}
          </Button>
        )}
      </div>
    </div>
  );
}

function CampaignName() {
  const store = useWorkbenchStore();
  const name = useWorkbench((state) => state.name);
  const glide = useGlide(store.getState().siteId, store.getState().id);
  const { text, type, letGo } = useTyped(name);
  const rename = useMutation({
    mutationFn: ({ next }: { readonly next: string; readonly typed: string }) =>
      changeCampaign(store.getState().id, { name: next }),
    onSuccess: (campaign, { typed }) => {
      store.getState().takeServer(campaign);
      letGo(typed);
    },
    // What was written stays in the field, which says that it is not kept.
    onError: tellProblem,
  });
  const commit = () => {
    const read = campaignNameSchema.safeParse(text);
    if (!read.success || read.data === name) letGo();
    else rename.mutate({ next: read.data, typed: text });
  };
  const isUnkept = rename.isError && text !== name;
  const field = (
    <input
      aria-label="Campaign name"
      aria-invalid={isUnkept || undefined}
      aria-describedby={isUnkept ? 'name-unkept' : undefined}
      readOnly={!store.getState().canEdit}
      value={text}
      maxLength={120}
      onChange={(event) => type(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') letGo();
      }}
      style={{ width: `${Math.min(Math.max(text.length, 8) + 2, 44)}ch`, ...glide('name') }}
      className={cx(
        NAME_BOX,
        'bg-transparent hover:border-line-strong focus:border-line-strong aria-invalid:border-halt',
      )}
    />
  );
  return (
    <>
      {field}
      {isUnkept && (
        <span id="name-unkept" className="text-xs whitespace-nowrap text-halt">
          Name not kept: press Enter in it
        </span>
      )}
    </>
  );
}
