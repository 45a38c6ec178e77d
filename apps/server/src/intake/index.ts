export { IntakeFull } from './batcher.ts';
export { ensurePartitions, type StoredEvent, storeEvents } from './queries.ts';
export { createIntakeService, type IntakeService } from './service.ts';
export { type Client, languagesOf } from './visits.ts';
