export { goalRoutes } from './routes.ts';
export { createGoalService, readGoals } from './service.ts';
