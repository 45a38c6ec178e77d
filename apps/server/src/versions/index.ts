export { versionRoutes } from './routes.ts';
export { createVersionService } from './service.ts';
