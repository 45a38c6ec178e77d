/** Folder of the newest PostgreSQL's programs, if there is one. */
export function postgresPrograms(): string | undefined;
export function ensurePostgres(say: (words: string) => void): Promise<unknown>;
export function ensureChromium(say: (words: string) => void): Promise<unknown>;
