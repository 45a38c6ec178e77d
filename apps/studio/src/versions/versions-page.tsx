import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Campaign, CampaignHistory, HistoryEntry } from '@velarium/contract';
import { documentSentence, quantity, sentenceText } from '@velarium/core';
import { type ReactNode, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { failureOf } from '../api/failure-of.ts';
import { campaignQuery, campaignsQuery, saveDraft } from '../api/queries.ts';
import { bringBack, callOffLaunch, historyQuery } from '../api/versions.ts';
import { useCanEdit } from '../app/use-session.ts';
import { useTitle } from '../app/use-title.ts';
import { useNames } from '../board/use-names.ts';
import { Button } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { Segments } from '../ui/segments.tsx';
import { Select } from '../ui/select.tsx';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { when } from '../ui/when.ts';
import { AgreeDialog } from './agree-dialog.tsx';
import type { Compared } from './drawn.tsx';
import { EarlierDrafts } from './earlier-drafts.tsx';
import { useVersion } from './use-version.ts';
import { WhatChanges } from './what-changes.tsx';

const DRAFT = 'draft';

/** Everything that has become of a campaign; any two of its states compared, any of them brought back. */
export function VersionsPage() {
  const { campaignId = '' } = useParams();
  const campaign = useQuery({ ...campaignQuery(campaignId), staleTime: 0 });
  const history = useInfiniteQuery(historyQuery(campaignId));
  const [first] = history.data?.pages ?? [];
  const failure = failureOf([campaign, history]);
  useTitle(campaign.data ? `Versions of ${campaign.data.name}` : 'Versions');
  if (failure) return <ErrorState {...failure} />;
  if (!campaign.data || !first) return <Skeleton rows={6} label="Loading the versions" />;
  return (
    <Versions
      campaign={campaign.data}
      history={{ ...first, entries: history.data?.pages.flatMap(({ entries }) => entries) ?? [] }}
      earlier={
        history.hasNextPage && (
          <Button isBusy={history.isFetchingNextPage} onClick={() => void history.fetchNextPage()}>
            Show earlier ones
          </Button>
        )
      }
    />
  );
}

const ENTRY_WORDS: Readonly<Record<HistoryEntry['what'], string>> = {
  published: 'Published',
  rested: 'Put to rest',
  resumed: 'Run again',
  redrawn: 'Drawn anew: what it is drawn with was changed',
  asked: 'A second person was asked to agree',
  declined: 'Not agreed to',
};

interface VersionsProps {
  readonly campaign: Campaign;
  readonly history: CampaignHistory;
  /** What brings more of the history, where there is more. */
  readonly earlier: ReactNode;
}

function Versions({ campaign, history, earlier }: VersionsProps) {
  const { id, siteId, name } = campaign;
  const numbers = history.entries.flatMap(({ what, version }) =>
    what === 'published' && version !== null ? version : [],
  );
  const [shown, setShown] = useState<'versions' | 'drafts'>('versions');
  const [picked, setChosen] = useState<number | null>(null);
  // The first may be published while one looks.
  const chosen = picked ?? numbers[0] ?? null;
  return (
    <div className="mx-auto max-w-[1360px] px-6 pb-16 max-sm:px-4">
      <div className="pt-7 pb-4">
        <p className="text-xs text-soft">
          <Link to={`/sites/${siteId}/campaigns/${id}`} className="underline-offset-4 hover:underline">
            {name}
          </Link>
        </p>
        <h1 className="font-serif text-3xl">Versions</h1>
      </div>
      <div className="mb-5 w-72">
        <Segments
          label="What is looked through"
          isLabelHidden
          value={shown}
          options={[
            { value: 'versions', label: 'Published' },
            { value: 'drafts', label: 'Earlier drafts' },
          ]}
          onChange={setShown}
        />
      </div>
      {history.planned && <Planned campaign={campaign} planned={history.planned} />}
      {shown === 'drafts' ? (
        <EarlierDrafts campaign={campaign} />
      ) : chosen === null ? (
        <EmptyState title="Not published yet" drawing="layers">
          With its first launch a version is kept, whole: its words, its rule, its Look as it was.
        </EmptyState>
      ) : (
        <div className="grid gap-8 lg:grid-cols-[21rem_minmax(0,1fr)]">
          <div className="grid content-start gap-3">
            <ol aria-label="History" className="border-t border-line-strong">
              {history.entries.map((entry) => (
                <Entry
                  key={`${entry.at}${entry.what}`}
                  entry={entry}
                  isLive={entry.what === 'published' && entry.version === history.live}
                  isChosen={entry.version === chosen && entry.what === 'published'}
                  onChoose={() => setChosen(entry.version)}
                />
              ))}
            </ol>
            {earlier}
          </div>
          <Version key={chosen} campaign={campaign} version={chosen} numbers={numbers} live={history.live} />
        </div>
      )}
    </div>
  );
}

interface EntryProps {
  readonly entry: HistoryEntry;
  readonly isLive: boolean;
  readonly isChosen: boolean;
  readonly onChoose: () => void;
}

function Entry({ entry: { at, what, version, byName, note }, isLive, isChosen, onChoose }: EntryProps) {
  const words = (
    <>
      <span className="flex items-baseline gap-2">
        <span className={what === 'published' ? 'font-semibold' : ''}>
          {what === 'published' ? `Version ${version}` : ENTRY_WORDS[what]}
        </span>
        {isLive && <span className="text-xs text-sail">● visitors meet it</span>}
      </span>
      <span className="block text-xs text-soft">
        {when.format(new Date(at))}
        {byName && `, ${byName}`}
      </span>
      {note && <span className="block">{note}</span>}
    </>
  );
  return (
    <li className="border-b border-line">
      {what === 'published' ? (
        <button
          type="button"
          aria-pressed={isChosen}
          onClick={onChoose}
          className={cx('block w-full px-3 py-2 text-left hover:bg-sail-wash', isChosen && 'bg-sail-wash')}
        >
          {words}
        </button>
      ) : (
        <div className="px-3 py-2">{words}</div>
      )}
    </li>
  );
}

interface VersionProps {
  readonly campaign: Campaign;
  readonly version: number;
  readonly numbers: readonly number[];
  readonly live: number | null;
}

function Version({ campaign, version, numbers, live }: VersionProps) {
  const { id, siteId } = campaign;
  const canEdit = useCanEdit();
  const names = useNames(siteId);
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  // What came before it, else what is drafted now.
  const before = numbers.find((one) => one < version);
  const [against, setAgainst] = useState<string>(before === undefined ? DRAFT : String(before));
  const other = against === DRAFT ? null : Number(against);
  const one = useVersion(id, version);
  const another = useVersion(id, other);
  const refresh = (saved: Campaign) => {
    queryClient.setQueryData(campaignQuery(id).queryKey, saved);
    void queryClient.invalidateQueries({ queryKey: historyQuery(id).queryKey });
    void queryClient.invalidateQueries({ queryKey: campaignsQuery(siteId).queryKey });
  };
  const goLive = useMutation({
    mutationFn: () => bringBack(id, version, ''),
    onError: tellProblem,
    onSuccess: (saved) => {
      refresh(saved);
      tell(`Version ${version} is live again, as a new version. The draft is as it was.`);
    },
  });
  const asDraft = useMutation({
    mutationFn: () => {
      if (!one) throw new Error('expected the version to be there');
      return saveDraft(id, campaign.revision, one.document);
    },
    onError: tellProblem,
    onSuccess: (saved) => {
      refresh(saved);
      tell(`The draft says what version ${version} said.`);
      navigate(`/sites/${siteId}/campaigns/${id}`);
    },
  });
  if (!one) return <Skeleton rows={4} label="Loading the version" />;
  const drafted: Compared = { name: 'The draft', document: campaign.document };
  const compared = against === DRAFT ? drafted : another;
  // The older stands on the left.
  const [left, right] = against === DRAFT || (other ?? 0) > version ? [one, compared] : [compared, one];
  return (
    <section aria-label={`Version ${version}`} className="grid content-start gap-5">
      <p className="border-l-2 border-sail pl-4 font-serif text-lg leading-snug">
        {sentenceText(documentSentence(one.document, names))}
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <Select
          label="Compare it with"
          className="w-44"
          value={against}
          options={[
            { value: DRAFT, label: 'The draft' },
            ...numbers
              .filter((number) => number !== version)
              .map((number) => ({ value: String(number), label: `Version ${number}` })),
          ]}
          onChange={setAgainst}
        />
        {canEdit && (
          <span className="ml-auto flex gap-2">
            <Button isBusy={asDraft.isPending} onClick={() => asDraft.mutate()}>
              Bring back as draft
            </Button>
            {version !== live && (
              <Button tone="main" isBusy={goLive.isPending} onClick={() => goLive.mutate()}>
                Live at once
              </Button>
            )}
          </span>
        )}
      </div>
      {left && right ? (
        <WhatChanges siteId={siteId} before={left} after={right} />
      ) : (
        <Skeleton rows={3} label="Loading the other version" />
      )}
    </section>
  );
}

interface PlannedProps {
  readonly campaign: Campaign;
  readonly planned: NonNullable<CampaignHistory['planned']>;
}

/** What is launched by itself, or waits for somebody to agree to it. */
function Planned({ campaign, planned }: PlannedProps) {
  const { id, siteId } = campaign;
  const { at, awaits, together, isMine, byName, note, failure } = planned;
  const others = together > 0 ? `, together with ${quantity(together, 'other campaign')}` : '';
  const [isLooking, setLooking] = useState(false);
  const canEdit = useCanEdit();
  const queryClient = useQueryClient();
  const callOff = useMutation({
    mutationFn: () => callOffLaunch(id),
    onError: tellProblem,
    onSuccess: () =>
      tell(
        together > 0
          ? `Called off, and the ${quantity(together, 'other campaign')} with it.`
          : 'Called off. Nothing is launched by itself.',
      ),
    onSettled: () => {
      void queryClient.invalidateQueries({ queryKey: historyQuery(id).queryKey });
      void queryClient.invalidateQueries({ queryKey: campaignsQuery(siteId).queryKey });
    },
  });
  return (
    <div
      role={failure ? 'alert' : 'status'}
      className="mb-5 flex flex-wrap items-center gap-3 border border-hold p-3"
    >
      <p className="mr-auto">
        {failure ? (
          <>
            <strong>It could not be launched{at && ` at ${when.format(new Date(at))}`}.</strong> {failure}
          </>
        ) : awaits ? (
          <>
            <strong>
              {isMine ? 'You ask a second person' : `${byName} asks a second person`} to agree to a launch
            </strong>{' '}
            {at ? `at ${when.format(new Date(at))}` : 'as soon as they do'}
            {others}, as it was when it was asked for. What is edited meanwhile does not slip in.
          </>
        ) : (
          <>
            <strong>Launches by itself at {at && when.format(new Date(at))}</strong>, as it was when {byName}{' '}
            planned it. What is edited meanwhile does not slip in.
          </>
        )}
        {note && ` “${note}”`}
      </p>
      {canEdit && awaits && !isMine && !failure && (
        <Button tone="main" onClick={() => setLooking(true)}>
          Look at it
        </Button>
      )}
      {isLooking && <AgreeDialog campaign={campaign} onClose={() => setLooking(false)} />}
      {canEdit && (!awaits || isMine || failure) && (
        <Button isBusy={callOff.isPending} onClick={() => callOff.mutate()}>
          {failure ? 'Put this away' : together > 0 ? 'Call all of them off' : 'Call it off'}
        </Button>
      )}
    </div>
  );
}
