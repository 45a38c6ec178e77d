export { createSiteDirectory, type SiteDirectory } from './directory.ts';
export { onSiteChanged } from './on-site-changed.ts';
export { edgeRoutes } from './routes.ts';
