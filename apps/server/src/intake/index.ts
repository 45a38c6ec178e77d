export { IntakeFull } from './batcher.ts';
export { ensurePartitions } from './keeping.ts';
export { createIntakeService, type IntakeService } from './service.ts';
export { storeEvents } from './store-events.ts';
export type { StoredEvent } from './stored-event.ts';
export { type Client, languagesOf, storable } from './visits.ts';
