import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { createBrowserRouter, Navigate } from 'react-router';
import { RouterProvider } from 'react-router/dom';
import { ApiProblem } from '../api/client.ts';
import { sessionQuery } from '../api/queries.ts';
import { Opening } from '../ui/states.tsx';
import { TooltipProvider } from '../ui/tooltip.tsx';
import { BrokenPlace } from './broken-place.tsx';
import { LostPage } from './lost-page.tsx';

/** A session that ended elsewhere shows as signed out wherever it is noticed. */
const onError = (error: unknown) => {
  if (error instanceof ApiProblem && error.problem.code === 'signed-out') {
    void queryClient.resetQueries({ queryKey: sessionQuery.queryKey });
  }
};
const queryClient: QueryClient = new QueryClient({
  queryCache: new QueryCache({
    onError: (error, query) => query.queryKey[0] !== 'session' && onError(error),
  }),
  mutationCache: new MutationCache({ onError }),
  defaultOptions: {
    // Asked, and done, also where the browser holds itself to be offline, which says nothing about the way to this server: what is
    // pressed and cannot be done is told of now, and not done by itself when nobody thinks of it any more.
    queries: {
      networkMode: 'always',
      refetchOnReconnect: true,
      retry: (count, error) => !(error instanceof ApiProblem) && count < 2,
    },
    mutations: { networkMode: 'always' },
  },
});

/** Each place is loaded when one goes there. */
const router = createBrowserRouter([
  {
    path: '/sign-in',
    errorElement: <BrokenPlace />,
    hydrateFallbackElement: <Opening />,
    lazy: async () => ({ Component: (await import('../account/sign-in-page.tsx')).SignInPage }),
  },
  {
    path: '/begin',
    errorElement: <BrokenPlace />,
    hydrateFallbackElement: <Opening />,
    lazy: async () => ({ Component: (await import('../account/begin-page.tsx')).BeginPage }),
  },
  ...(
    [
      ['/forgotten', 'ForgottenPage'],
      ['/password', 'NewPasswordPage'],
      ['/join', 'JoinPage'],
    ] as const
  ).map(([path, page]) => ({
    path,
    errorElement: <BrokenPlace />,
    hydrateFallbackElement: <Opening />,
    lazy: async () => ({ Component: (await import('../account/password-pages.tsx'))[page] }),
  })),
  {
    path: '/',
    lazy: async () => ({ Component: (await import('./shell.tsx')).Shell }),
    errorElement: <BrokenPlace />,
    hydrateFallbackElement: <Opening />,
    children: [
      {
        // An error in a place stays in it: the masthead above leads on to the others.
        errorElement: <BrokenPlace />,
        children: [
          {
            index: true,
            lazy: async () => ({ Component: (await import('./first-site.tsx')).FirstSite }),
          },
          { path: 'sites/:siteId', element: <Navigate to="board" replace /> },
          {
            path: 'sites/:siteId/board',
            lazy: async () => ({ Component: (await import('../board/board-page.tsx')).BoardPage }),
          },
          {
            path: 'sites/:siteId/results',
            lazy: async () => ({ Component: (await import('../results/results-page.tsx')).ResultsPage }),
          },
          {
            path: 'sites/:siteId/campaigns/:campaignId/results',
            lazy: async () => ({
              Component: (await import('../results/campaign-results-page.tsx')).CampaignResultsPage,
            }),
          },
          {
            path: 'sites/:siteId/campaigns/:campaignId/versions',
            lazy: async () => ({
              Component: (await import('../versions/versions-page.tsx')).VersionsPage,
            }),
          },
          {
            path: 'sites/:siteId/forecast',
            lazy: async () => ({ Component: (await import('../forecast/forecast-page.tsx')).ForecastPage }),
          },
          {
            path: 'sites/:siteId/season',
            lazy: async () => ({ Component: (await import('../season/season-page.tsx')).SeasonPage }),
          },
          {
            path: 'sites/:siteId/coverage',
            lazy: async () => ({ Component: (await import('../coverage/coverage-page.tsx')).CoveragePage }),
          },
          {
            path: 'sites/:siteId/rehearsal',
            lazy: async () => ({
              Component: (await import('../rehearsal/rehearsal-page.tsx')).RehearsalPage,
            }),
          },
          {
            path: 'sites/:siteId/people',
            lazy: async () => ({ Component: (await import('../people/people-page.tsx')).PeoplePage }),
          },
          {
            path: 'sites/:siteId/outbox',
            lazy: async () => ({ Component: (await import('../outbox/outbox-page.tsx')).OutboxPage }),
          },
          {
            path: 'sites/:siteId/site',
            lazy: async () => ({ Component: (await import('../site/site-page.tsx')).SitePage }),
          },
          {
            path: 'sites/:siteId/team',
            lazy: async () => ({ Component: (await import('../team/team-page.tsx')).TeamPage }),
          },
          {
            path: 'sites/:siteId/campaigns/:campaignId',
            lazy: async () => ({
              Component: (await import('../workbench/workbench-page.tsx')).WorkbenchPage,
            }),
          },
          { path: '*', element: <LostPage /> },
        ],
      },
    ],
  },
]);

export function App() {
  return (
    <QueryClientProvider client={queryClient}>
      <TooltipProvider>
        <RouterProvider router={router} />
      </TooltipProvider>
    </QueryClientProvider>
  );
}
