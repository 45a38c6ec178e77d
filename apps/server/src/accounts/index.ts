export { auth, requireMember, requireRole } from './auth.ts';
export type { Principal } from './principal.ts';
export { accountRoutes } from './routes.ts';
export { type AccountService, createAccountService, type HashingCost } from './service.ts';
