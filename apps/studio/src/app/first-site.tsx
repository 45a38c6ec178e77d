import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useState } from 'react';
import { Navigate } from 'react-router';
import { sessionQuery, sitesQuery } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { keptChoice } from '../ui/kept-choice.ts';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';

const AddSiteDialog = lazy(async () => ({
  default: (await import('../site/settings/site-form.tsx')).AddSiteDialog,
}));

/** Leads to the Board of the site that was open last, or of the first. */
export function FirstSite() {
  const { data: sites, error, refetch } = useQuery(sitesQuery);
  const [isAdding, setAdding] = useState(false);
  const isOwner = useQuery(sessionQuery).data?.role === 'owner';
  if (error && !sites) return <ErrorState error={error} onRetry={() => void refetch()} />;
  if (!sites) return <Skeleton rows={4} label="Loading sites" />;
  const last = keptChoice('velarium:last-site');
  const site = sites.find(({ id }) => id === last) ?? sites[0];
  if (!site)
    return (
      <EmptyState
        title="No site yet"
        action={
          isOwner && (
            <Button tone="main" onClick={() => setAdding(true)}>
              Add the first site
            </Button>
          )
        }
      >
        {isOwner
          ? 'A site is a place on the web that carries one line of yours. Name it, and you are led on from there.'
          : 'This workspace has no site. An owner of it can add one.'}
        {isAdding && (
          <Suspense>
            <AddSiteDialog onClose={() => setAdding(false)} />
          </Suspense>
        )}
      </EmptyState>
    );
  return <Navigate to={`/sites/${site.id}/board`} replace />;
}
