export { cataloguePath } from './catalogue.ts';
export { learnPages } from './learn-pages.ts';
export { siteRoutes } from './routes.ts';
export { createSiteService, type SiteService } from './service.ts';
