import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useState } from 'react';
import { Navigate, NavLink, Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { problemWords } from '../api/client.ts';
import { sessionQuery, signOut, signOutEverywhere, sitesQuery } from '../api/queries.ts';
import { cx } from '../ui/cx.ts';
import { Menu } from '../ui/menu.tsx';
import { ErrorState } from '../ui/states.tsx';
import { useCommands } from './commands.ts';
import { OfflineNotice } from './offline-notice.tsx';
import { Palette } from './palette.tsx';

const AddSiteDialog = lazy(async () => ({
  default: (await import('../site/settings/site-form.tsx')).AddSiteDialog,
}));

const ChangePasswordDialog = lazy(async () => ({
  default: (await import('../account/change-password-dialog.tsx')).ChangePasswordDialog,
}));

const PLACES = [
  { path: 'board', label: 'Board', keys: 'b' },
  { path: 'results', label: 'Results', keys: 'r' },
  { path: 'people', label: 'People', keys: 'p' },
  { path: 'outbox', label: 'Outbox', keys: 'o' },
  { path: 'site', label: 'Site', keys: 's' },
  { path: 'team', label: 'Team', keys: 't' },
] as const;

/** The frame around every place: which site, which place, who. */
export function Shell() {
  const session = useQuery(sessionQuery);
  const location = useLocation();
  if (session.isPending) return null;
  if (session.error && problemWords(session.error).title !== 'Signed out') {
    return <ErrorState error={session.error} onRetry={() => void session.refetch()} />;
  }
  if (!session.data) return <Navigate to="/sign-in" state={{ from: location.pathname }} replace />;
  return (
    <div className="grid h-full grid-rows-[auto_1fr]">
      <Masthead
        name={session.data.account.name}
        workspace={session.data.workspace.name}
        isOwner={session.data.role === 'owner'}
      />
      <main className="min-h-0 overflow-auto">
        <Outlet />
      </main>
      <OfflineNotice />
    </div>
  );
}

interface MastheadProps {
  readonly name: string;
  readonly workspace: string;
  readonly isOwner: boolean;
}

function Masthead({ name, workspace, isOwner }: MastheadProps) {
  const { siteId } = useParams();
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const { data: sites = [] } = useQuery(sitesQuery);
  const site = sites.find(({ id }) => id === siteId);
  const [isAdding, setAdding] = useState(false);
  const [isChanging, setChanging] = useState(false);
  const leave = useMutation({
    mutationFn: (run: () => Promise<void>) => run(),
    onSuccess: () => {
      queryClient.clear();
      navigate('/sign-in');
    },
  });
  useCommands('Account', [
    ...(isOwner ? [{ id: 'add-site', label: 'Add a site', run: () => setAdding(true) }] : []),
    { id: 'sign-out', label: 'Sign out', run: () => leave.mutate(signOut) },
  ]);
  useEffect(() => {
    if (siteId) localStorage.setItem('velarium:last-site', siteId);
  }, [siteId]);
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
    <header className="flex h-12 items-center gap-6 border-b border-line px-5">
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
          className="flex h-8 items-center gap-2 rounded border border-line px-2.5 hover:border-ink"
        >
          {site?.name ?? 'Choose a site'}
          <span aria-hidden="true" className="text-soft">
            ⌄
          </span>
        </button>
      </Menu>
      {siteId && (
        <nav aria-label="Places" className="flex h-full gap-5">
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
      <div className="ml-auto flex items-center gap-2">
        <Palette />
        <Menu
          items={[
            { label: 'Change your password …', onSelect: () => setChanging(true) },
            { label: 'Sign out', onSelect: () => leave.mutate(signOut) },
            { label: 'Sign out everywhere', onSelect: () => leave.mutate(signOutEverywhere) },
          ]}
        >
          <button type="button" className="h-8 rounded px-2.5 hover:bg-sail-wash" title={workspace}>
            {name}
          </button>
        </Menu>
      </div>
    </header>
  );
}
