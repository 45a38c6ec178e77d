import { useQuery } from '@tanstack/react-query';
import { Navigate } from 'react-router';
import { sitesQuery } from '../api/queries.ts';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';

/** Leads to the Board of the site that was open last, or of the first. */
export function FirstSite() {
  const { data: sites, error, refetch } = useQuery(sitesQuery);
  if (error) return <ErrorState error={error} onRetry={() => void refetch()} />;
  if (!sites) return <Skeleton rows={4} label="Loading sites" />;
  const last = localStorage.getItem('velarium:last-site');
  const site = sites.find(({ id }) => id === last) ?? sites[0];
  if (!site)
    return (
      <EmptyState title="No site yet">
        This workspace has no site. Ask whoever runs the server to add one.
      </EmptyState>
    );
  return <Navigate to={`/sites/${site.id}/board`} replace />;
}
