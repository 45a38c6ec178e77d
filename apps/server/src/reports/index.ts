export { resultRoutes } from './routes.ts';
export { createReports } from './service.ts';
