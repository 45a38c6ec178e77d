export { resultRoutes } from './routes.ts';
export { createReports } from './service.ts';
export { createWeekMails } from './week-mails.ts';
