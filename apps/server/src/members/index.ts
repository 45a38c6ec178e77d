export { memberRoutes } from './routes.ts';
export { createMemberService, type MemberService } from './service.ts';
