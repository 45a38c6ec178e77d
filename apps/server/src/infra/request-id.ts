import { randomUUID } from 'node:crypto';
import type { IncomingMessage } from 'node:http';

/** What a proxy may call a request: nothing that could be mistaken for another line of a log. */
const GIVEN = /^[\w.-]{8,80}$/;

/** What a request is called in the log and in the answer that says it failed: as the proxy in front calls it, or anew. */
export function requestId({ headers }: Pick<IncomingMessage, 'headers'>): string {
  const given = headers['x-request-id'];
  return typeof given === 'string' && GIVEN.test(given) ? given : randomUUID();
}
