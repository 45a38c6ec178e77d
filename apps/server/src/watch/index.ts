export { createWatchApp } from './app.ts';
export { createMetrics, type Metrics } from './metrics.ts';
