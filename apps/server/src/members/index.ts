export { memberRoutes } from './routes.ts';
export { createMemberService } from './service.ts';
