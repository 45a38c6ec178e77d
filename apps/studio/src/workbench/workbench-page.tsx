import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { Campaign } from '@velarium/contract';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { campaignQuery, campaignsQuery, saveDraft } from '../api/queries.ts';
import { useCommands } from '../app/commands.ts';
import { useCanEdit } from '../app/use-session.ts';
import { useDesign } from '../library/use-design.ts';
import { cx } from '../ui/cx.ts';
import { mayGlide, useGlide } from '../ui/glide.ts';
import { Segments } from '../ui/segments.tsx';
import { ErrorState } from '../ui/states.tsx';
import { type Autosave, startAutosave } from './autosave.ts';
import { ConflictDialog } from './conflict-dialog.tsx';
import { FollowOthers } from './follow-others.tsx';
import { HEADER_ROW, NAME_BOX, PlacesOfCampaign, WorkbenchHeader } from './header.tsx';
import { keepHistory, takeKeptHistory } from './kept-history.ts';
import { LaunchDialog } from './launch-dialog.tsx';
import { SentenceBar } from './sentence-bar.tsx';
import { SIDES, Sides } from './sides/sides.tsx';
import { keptStage } from './stage/kept-stage.ts';
import { Stage } from './stage/stage.tsx';
import { createWorkbenchStore, WorkbenchProvider } from './store.ts';
import { VisitLine } from './visit-line/visit-line.tsx';

export function WorkbenchPage() {
  const { siteId = '', campaignId = '' } = useParams();
  const { data, error, refetch } = useQuery({ ...campaignQuery(campaignId), staleTime: 0 });
  // Asked for beside it: whoever sees the message sees it as its visitors do, from the first.
  const design = useDesign(siteId);
  if (error && !data) return <ErrorState error={error} onRetry={() => void refetch()} />;
  if (!data || design.isPending) return <WorkbenchSkeleton siteId={siteId} campaignId={campaignId} />;
  return <Workbench key={campaignId} campaign={data} />;
}

function Workbench({ campaign }: { readonly campaign: Campaign }) {
  const canEdit = useCanEdit();
  const queryClient = useQueryClient();
  const navigate = useNavigate();
  // biome-ignore lint/correctness/useExhaustiveDependencies: one store for as long as the campaign is open.
  const store = useMemo(
    () =>
      createWorkbenchStore(campaign, {
        canEdit,
        kept: canEdit ? takeKeptHistory(campaign) : undefined,
        stage: keptStage(),
      }),
    [],
  );
  const autosave = useRef<Autosave | null>(null);
  const [isLaunching, setLaunching] = useState(false);
  const [inSight, setInSight] = useState<'stage' | 'panel'>('stage');
  const flush = () => autosave.current?.flush() ?? Promise.resolve();

  useEffect(() => {
    const saving = startAutosave(store, async (id, revision, document) => {
      const saved = await saveDraft(id, revision, document);
      queryClient.setQueryData(campaignQuery(id).queryKey, saved);
      void queryClient.invalidateQueries({ queryKey: campaignsQuery(saved.siteId).queryKey });
      return saved;
    });
    autosave.current = saving;
    return () => saving.stop();
  }, [store, queryClient]);

  useEffect(() => keepHistory(store), [store]);

  const { undo, redo, openSide } = store.getState();
  useCommands('Workbench', [
    ...(canEdit ? [{ id: 'launch', label: 'Launch', keys: 'Mod+Enter', run: () => setLaunching(true) }] : []),
    { id: 'undo', label: 'Undo', keys: 'Mod+z', run: undo },
    { id: 'redo', label: 'Redo', keys: 'Mod+Shift+z', run: redo },
    ...SIDES.map(({ side, label }, position) => ({
      id: side,
      label: `Side: ${label}`,
      keys: String(position + 1),
      run: () => {
        setInSight('panel');
        openSide(side);
      },
    })),
    {
      id: 'leave',
      label: 'Back to the Board',
      run: () => navigate(`/sites/${campaign.siteId}/board`, { viewTransition: mayGlide() }),
    },
  ]);

  return (
    <WorkbenchProvider value={store}>
      {/* The panel has most to show, so it goes down beside the visit line too. */}
      <div className="grid min-h-full grid-rows-[auto_auto_minmax(22rem,1fr)_auto] lg:h-full lg:grid-cols-[minmax(0,1fr)_21rem] lg:grid-rows-[auto_minmax(0,1fr)_auto]">
        <div className="min-w-0 lg:col-span-2">
          <WorkbenchHeader onLaunch={() => setLaunching(true)} flush={flush} />
          <SentenceBar />
        </div>
        {/* Where there is no room for both, stage and panel take turns. */}
        <div className="px-4 py-2 lg:hidden">
          <Segments
            label="What is in sight"
            isLabelHidden
            value={inSight}
            options={[
              { value: 'stage', label: 'Stage' },
              { value: 'panel', label: 'Panel' },
            ]}
            onChange={setInSight}
          />
        </div>
        <div className={cx('grid min-h-0 min-w-0', inSight === 'panel' && 'max-lg:hidden')}>
          <Stage />
        </div>
        <div className={cx('grid min-h-0 min-w-0 lg:row-span-2', inSight === 'stage' && 'max-lg:hidden')}>
          <Sides />
        </div>
        <div className="min-w-0">
          <VisitLine />
        </div>
      </div>
      {isLaunching && <LaunchDialog onClose={() => setLaunching(false)} flush={flush} />}
      <ConflictDialog flush={flush} />
      <FollowOthers campaign={campaign} />
    </WorkbenchProvider>
  );
}

/** Whoever comes from the Board keeps sight of the campaign: what the list knew of it is there at once. */
function WorkbenchSkeleton({ siteId, campaignId }: { readonly siteId: string; readonly campaignId: string }) {
  const glide = useGlide(siteId, campaignId);
  const known = useQueryClient()
    .getQueryData(campaignsQuery(siteId).queryKey)
    ?.find(({ id }) => id === campaignId);
  return (
    <div
      role="status"
      aria-label="Loading the campaign"
      className="grid h-full grid-rows-[3rem_5rem_1fr_7rem]"
    >
      <div className={HEADER_ROW}>
        <PlacesOfCampaign siteId={siteId} campaignId={campaignId} />
        {known ? (
          <span className={cx(NAME_BOX, 'leading-7.5')} style={glide('name')}>
            {known.name}
          </span>
        ) : (
          <span className="h-4 w-64 rounded bg-line/70" />
        )}
      </div>
      <div className="border-b border-line p-5">
        <div className="h-5 w-3/4 rounded bg-line/50" />
      </div>
      <div className="bg-line/35" style={glide('message')} />
      <div className="border-t border-line" />
    </div>
  );
}
