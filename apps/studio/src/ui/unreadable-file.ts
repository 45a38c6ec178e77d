/** What is wrong with a file that was brought, and how to mend it. */
export class UnreadableFile extends Error {}
