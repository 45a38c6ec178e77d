export { forecastRoutes } from './routes.ts';
export { createForecastService } from './service.ts';
