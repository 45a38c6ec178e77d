export { experimentRoutes } from './routes.ts';
export { createExperimentService, type ExperimentService } from './service.ts';
