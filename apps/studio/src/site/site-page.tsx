import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { sitesQuery } from '../api/queries.ts';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';
import { Tabs } from '../ui/tabs.tsx';
import { GoalsSection } from './goals-section.tsx';
import { GroupsSection } from './groups-section.tsx';
import { HealthSection } from './health-section.tsx';
import { LooksSection } from './looks-section.tsx';
import { PagesSection } from './pages-section.tsx';
import { SettingsSection } from './settings/settings-section.tsx';
import { TagSection } from './tag-section.tsx';

/** The site itself: how it carries the tag, its pages and their groups, and what holds on it. */
export function SitePage() {
  const { siteId = '' } = useParams();
  const { data: sites, error, refetch } = useQuery(sitesQuery);
  const site = sites?.find(({ id }) => id === siteId);
  if (error && !sites) return <ErrorState error={error} onRetry={() => void refetch()} />;
  if (!sites) return <Skeleton rows={3} label="Loading the site" />;
  if (!site)
    return (
      <EmptyState title="No such site" drawing="lens">
        This workspace has no site at this address.
      </EmptyState>
    );
  return (
    <div key={siteId} className="mx-auto max-w-4xl px-6 pb-16">
      <h1 className="pt-7 pb-1 font-serif text-3xl">{site.name}</h1>
      <p className="pb-5 text-soft">
        {site.origins.map((origin) => (
          <a
            key={origin}
            href={origin}
            target="_blank"
            rel="noreferrer"
            className="mr-3 underline underline-offset-4"
          >
            {origin}
          </a>
        ))}
      </p>
      <Tabs
        label="Site"
        tabs={[
          { id: 'tag', label: 'The tag', content: <TagSection site={site} /> },
          { id: 'pages', label: 'Pages', content: <PagesSection siteId={site.id} /> },
          { id: 'groups', label: 'Page groups', content: <GroupsSection siteId={site.id} /> },
          { id: 'goals', label: 'Goals', content: <GoalsSection siteId={site.id} /> },
          { id: 'looks', label: 'Looks', content: <LooksSection site={site} /> },
          { id: 'health', label: 'Health', content: <HealthSection site={site} /> },
          { id: 'settings', label: 'What holds here', content: <SettingsSection site={site} /> },
        ]}
      />
    </div>
  );
}
