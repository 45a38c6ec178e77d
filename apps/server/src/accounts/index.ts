export { auth, requireMember, requireRole } from './auth.ts';
export { accountRoutes } from './routes.ts';
export { type AccountService, createAccountService, type HashingCost, type Principal } from './service.ts';
