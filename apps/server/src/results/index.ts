export { countEvents, createCounting } from './count-events.ts';
export { barePath, eventPath } from './event-path.ts';
export { readParameters } from './parameters.ts';
export { createResultService, type ResultService } from './service.ts';
export { readStays } from './stay.ts';
export { readAudienceShare, readSeenValues } from './visitors.ts';
