export { goalRoutes } from './routes.ts';
export { createGoalService, goalDeeds, readGoals } from './service.ts';
