export { linkPages } from './pages.ts';
export { deliveryRoutes } from './routes.ts';
export type { OwnMailbox } from './sending.ts';
export { createDeliveryService, type DeliveryService } from './service.ts';
