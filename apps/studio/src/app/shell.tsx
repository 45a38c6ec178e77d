import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { Navigate, NavLink, Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { problemWords } from '../api/client.ts';
import { sessionQuery, signOut, signOutEverywhere, sitesQuery } from '../api/queries.ts';
import { cx } from '../ui/cx.ts';
import { keepChoice } from '../ui/kept-choice.ts';
import { Menu } from '../ui/menu.tsx';
import { ErrorState, Opening } from '../ui/states.tsx';
import { Toaster, tellProblem } from '../ui/toast.tsx';
import { UNKNOWN_YET } from '../ui/unknown-yet.ts';
import { useCommands } from './commands.ts';
import { useLetterKeysTurn } from './letter-keys.ts';
import { MissingNotice } from './missing-notice.tsx';
import { OfflineNotice } from './offline-notice.tsx';
import { Palette } from './palette.tsx';
import { useKeptFocus } from './use-kept-focus.ts';
import { useTitle } from './use-title.ts';

const AddSiteDialog = lazy(async () => ({
  default: (await import('../site/settings/site-form.tsx')).AddSiteDialog,
}));

const ChangePasswordDialog = lazy(async () => ({
  default: (await import('../account/change-password-dialog.tsx')).ChangePasswordDialog,
}));

const PLACES = [
  { path: 'board', label: 'Board', keys: 'b' },
  { path: 'rehearsal', label: 'Rehearsal', keys: 'v' },
  { path: 'forecast', label: 'Forecast', keys: 'f' },
  { path: 'coverage', label: 'Coverage', keys: 'c' },
  { path: 'season', label: 'Season', keys: 'e' },
  { path: 'results', label: 'Results', keys: 'r' },
  { path: 'people', label: 'People', keys: 'p' },
  { path: 'outbox', label: 'Outbox', keys: 'o' },
  { path: 'site', label: 'Site', keys: 's' },
  { path: 'team', label: 'Team', keys: 't' },
] as const;

/** How long after it could not be had who is signed in is asked for again. */
const AGAIN_MS = 3000;

/** The frame around every place: which site, which place, who. */
export function Shell() {
  const session = useQuery({
    ...sessionQuery,
    refetchInterval: ({ state }) => (state.status === 'error' ? AGAIN_MS : false),
  });
  /** Stays in sight while it is asked for again by itself. */
  const failure = useRef<Error>(null);
  if (!session.isPending) failure.current = session.isLoadingError ? session.error : null;
  const location = useLocation();
  const place = useKeptFocus<HTMLElement>();
  if (failure.current && problemWords(failure.current).title !== 'Signed out') {
    const askAgain = () => {
      failure.current = null;
      void session.refetch();
    };
    return <ErrorState error={failure.current} onRetry={askAgain} />;
  }
  if (session.isPending) return <Opening />;
  if (!session.data) return <Navigate to="/sign-in" state={{ from: location.pathname }} replace />;
  return (
    <div className="grid h-full grid-rows-[auto_1fr]">
      <button
        type="button"
        onClick={() => place.current?.focus()}
        className="sr-only z-50 rounded bg-ink px-4 py-2 text-sheet focus:not-sr-only focus:fixed focus:top-2 focus:left-2"
      >
        Skip to the place
      </button>
      <Masthead
        name={session.data.account.name}
        workspace={session.data.workspace.name}
        isOwner={session.data.role === 'owner'}
      />
      {/* What keys lead to is seen below the heads and above the foot that stay in some places. */}
      <main
        ref={place}
        tabIndex={-1}
        className="min-h-0 scroll-pt-24 scroll-pb-16 overflow-y-auto outline-none"
      >
        <Outlet />
      </main>
      {/* Rows of their own, so that they lie over nothing. */}
      <MissingNotice />
      <OfflineNotice />
      <Toaster />
    </div>
  );
}

interface MastheadProps {
  readonly name: string;
  readonly workspace: string;
  readonly isOwner: boolean;
}

/** Apart, so that places with a name of their own are left to say it. */
function PlaceTitle({ place, site }: { readonly place: string; readonly site: string | undefined }) {
  useTitle(place, site);
  return null;
}

function Masthead({ name, workspace, isOwner }: MastheadProps) {
  const { siteId } = useParams();
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const { data: known } = useQuery(sitesQuery);
  const sites = known ?? [];
  const site = sites.find(({ id }) => id === siteId);
  const { pathname } = useLocation();
  const here = PLACES.find(({ path }) => pathname === `/sites/${siteId}/${path}`);
  const [isAdding, setAdding] = useState(false);
  const [isChanging, setChanging] = useState(false);
  const leave = useMutation({
    mutationFn: (run: () => Promise<void>) => run(),
    onError: tellProblem,
    onSuccess: () => {
      queryClient.clear();
      navigate('/sign-in');
    },
  });
  const letterKeys = useLetterKeysTurn();
  useCommands('Account', [
    ...(isOwner ? [{ id: 'add-site', label: 'Add a site', run: () => setAdding(true) }] : []),
    { id: 'letter-keys', label: letterKeys.label, run: letterKeys.turn },
    { id: 'sign-out', label: 'Sign out', run: () => leave.mutate(signOut) },
  ]);
  useEffect(() => {
    if (siteId) keepChoice('velarium:last-site', siteId);
  }, [siteId]);
  // Where they do not all fit into the window, the one that one is in is among those that are seen.
  const places = useRef<HTMLElement>(null);
  const at = here?.path;
  useEffect(() => {
    const row = places.current;
    if (!at || !row) return undefined;
    const fit = new ResizeObserver(() =>
      row.querySelector('[aria-current=page]')?.scrollIntoView({ inline: 'center', block: 'nearest' }),
    );
    fit.observe(row);
    return () => fit.disconnect();
  }, [at]);
  useCommands('Go to', [
    ...(siteId
      ? PLACES.map(({ path, label, keys }) => ({
          id: path,
          label,
          keys,
          run: () => navigate(`/sites/${siteId}/${path}`),
        }))
      : []),
    ...sites
      .filter(({ id }) => id !== siteId)
      .map((one) => ({
        id: one.id,
        label: `Board of ${one.name}`,
        run: () => navigate(`/sites/${one.id}/board`),
      })),
  ]);
  return (
    <header className="flex min-h-12 flex-wrap items-center gap-x-6 border-b border-line px-5 max-lg:gap-x-3 max-lg:px-4 max-sm:gap-x-2">
      {here && <PlaceTitle place={here.label} site={site?.name} />}
      <NavLink
        to="/"
        className="flex items-baseline gap-2 font-serif text-xl italic"
        aria-label="Velarium, to the Board"
      >
        Velarium
      </NavLink>
      <Menu
        items={[
          ...sites.map((one) => ({ label: one.name, onSelect: () => navigate(`/sites/${one.id}/board`) })),
          ...(isOwner ? [{ label: 'Add a site …', onSelect: () => setAdding(true) }] : []),
        ]}
      >
        <button
          type="button"
          className="flex h-8 max-w-56 items-center gap-2 truncate rounded border border-line px-2.5 hover:border-ink max-sm:max-w-24"
        >
          <span className="truncate">{site?.name ?? (known ? 'Choose a site' : UNKNOWN_YET)}</span>
          <span aria-hidden="true" className="text-soft">
            ⌄
          </span>
        </button>
      </Menu>
      {siteId && (
        <nav
          aria-label="Places"
          ref={places}
          className="flex h-12 gap-5 self-stretch max-lg:order-last max-lg:-mx-4 max-lg:h-10 max-lg:w-[calc(100%+2rem)] max-lg:overflow-x-auto max-lg:px-4"
        >
          {PLACES.map(({ path, label }) => (
            <NavLink
              key={path}
              to={`/sites/${siteId}/${path}`}
              className={({ isActive }) =>
                cx(
                  '-mb-px flex items-center border-b-2',
                  isActive ? 'border-sail' : 'border-transparent text-soft hover:text-ink',
                )
              }
            >
              {label}
            </NavLink>
          ))}
        </nav>
      )}
      {isChanging && (
        <Suspense>
          <ChangePasswordDialog onClose={() => setChanging(false)} />
        </Suspense>
      )}
      {isAdding && (
        <Suspense>
          <AddSiteDialog onClose={() => setAdding(false)} />
        </Suspense>
      )}
      <div className="ml-auto flex h-12 min-w-0 items-center gap-2">
        <Palette />
        <Menu
          items={[
            { label: 'Change your password …', onSelect: () => setChanging(true) },
            { label: letterKeys.label, onSelect: letterKeys.turn },
            { label: 'Sign out', onSelect: () => leave.mutate(signOut) },
            { label: 'Sign out everywhere', onSelect: () => leave.mutate(signOutEverywhere) },
          ]}
        >
          <button
            type="button"
            className="h-8 rounded px-2.5 whitespace-nowrap max-sm:px-1 hover:bg-sail-wash"
            title={workspace}
          >
            {name}
          </button>
        </Menu>
      </div>
    </header>
  );
}
