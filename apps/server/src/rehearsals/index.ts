export { rehearsalRoutes } from './routes.ts';
export { createRehearsalService } from './service.ts';
