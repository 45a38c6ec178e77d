export { peopleRoutes } from './routes.ts';
export { createPeopleService, type PeopleService } from './service.ts';
