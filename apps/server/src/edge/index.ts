export { createSiteDirectory, type SiteDirectory } from './directory.ts';
export { createKeptFiles } from './kept-files.ts';
export { onSiteChanged } from './on-site-changed.ts';
export { type EdgeServices, edgeRoutes } from './routes.ts';
export {
  createTagFiles,
  findReleased,
  keepRelease,
  readRelease,
  type TagFiles,
} from './tag-files.ts';
