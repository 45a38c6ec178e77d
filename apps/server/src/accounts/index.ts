export { auth, requireMember, requireRole } from './auth.ts';
export { accountRoutes } from './routes.ts';
export { createAccountService, type Principal } from './service.ts';
