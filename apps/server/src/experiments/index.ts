export { experimentRoutes } from './routes.ts';
export { createExperimentService } from './service.ts';
