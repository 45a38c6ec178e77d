export { readAttachment } from './attachments.ts';
export type { LeadRow } from './entities.ts';
export { readableAddress, readMailAddress } from './mail-address.ts';
export type { PersonRow } from './persons.ts';
export { peopleRoutes } from './routes.ts';
export {
  type Actor,
  createPeopleService,
  type ForgetSent,
  type PeopleService,
  searchOf,
} from './service.ts';
export type { StoredAnswer } from './stored-answers.ts';
