import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { createBrowserRouter, Navigate } from 'react-router';
import { RouterProvider } from 'react-router/dom';
import { SignInPage } from '../account/sign-in-page.tsx';
import { ApiProblem } from '../api/client.ts';
import { sessionQuery } from '../api/queries.ts';
import { BoardPage } from '../board/board-page.tsx';
import { PeoplePage } from '../people/people-page.tsx';
import { SitePage } from '../site/site-page.tsx';
import { TeamPage } from '../team/team-page.tsx';
import { Toaster } from '../ui/toast.tsx';
import { TooltipProvider } from '../ui/tooltip.tsx';
import { WorkbenchPage } from '../workbench/workbench-page.tsx';
import { FirstSite } from './first-site.tsx';
import { LostPage } from './lost-page.tsx';
import { Shell } from './shell.tsx';

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
  defaultOptions: { queries: { retry: (count, error) => !(error instanceof ApiProblem) && count < 2 } },
});

const router = createBrowserRouter([
  { path: '/sign-in', element: <SignInPage /> },
  {
    path: '/',
    element: <Shell />,
    children: [
      { index: true, element: <FirstSite /> },
      { path: 'sites/:siteId', element: <Navigate to="board" replace /> },
      { path: 'sites/:siteId/board', element: <BoardPage /> },
      { path: 'sites/:siteId/people', element: <PeoplePage /> },
      { path: 'sites/:siteId/site', element: <SitePage /> },
      { path: 'sites/:siteId/team', element: <TeamPage /> },
      { path: 'sites/:siteId/campaigns/:campaignId', element: <WorkbenchPage /> },
      { path: '*', element: <LostPage /> },
    ],
  },
]);

export function App() {
  return (
    <QueryClientProvider client={queryClient}>
      <TooltipProvider>
        <RouterProvider router={router} />
        <Toaster />
      </TooltipProvider>
    </QueryClientProvider>
  );
}
