export { createFollowUps } from './follow-ups.ts';
export { enqueue, mailLane } from './outbox.ts';
export { linkPages } from './pages.ts';
export type { MemberMail, WeekMail } from './payload.ts';
export { deliveryRoutes } from './routes.ts';
export type { OwnMailbox } from './sending.ts';
export { createDeliveryService, type DeliveryService } from './service.ts';
