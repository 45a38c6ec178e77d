export { resultRoutes } from './routes.ts';
export { createReports, type Reports } from './service.ts';
