export { createResultService, type ResultService } from './service.ts';
