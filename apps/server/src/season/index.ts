export { readCalendar, writeCalendar } from './calendar.ts';
export { calendarRoute, seasonRoutes } from './routes.ts';
export { createSeasonService } from './service.ts';
