export { readAttachment } from './attachments.ts';
export { peopleRoutes } from './routes.ts';
export { createPeopleService, type PeopleService } from './service.ts';
