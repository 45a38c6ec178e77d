import { ToldError } from './told-error.ts';

/** What is wrong with a file that was brought, and how to mend it. */
export class UnreadableFile extends ToldError {
  constructor(detail: string) {
    super('Nothing was taken from the file', detail);
  }
}
