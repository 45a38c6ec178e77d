export { auth, requireMember, requireRole } from './auth.ts';
export { accountRoutes } from './routes.ts';
export { createAccountService, type HashingCost, type Principal } from './service.ts';
