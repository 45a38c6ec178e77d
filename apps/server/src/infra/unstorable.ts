import type { FastifyInstance } from 'fastify';
import { ProblemError } from './problem.ts';

/** NUL, and half a surrogate pair: PostgreSQL keeps neither in a text. */
const UNSTORABLE = /[\0\p{Surrogate}]/u;

/** The path to the first text in `value`, keys included, that cannot be kept; `undefined` where there is none. */
function findUnstorable(value: unknown, path: readonly string[] = []): readonly string[] | undefined {
  if (typeof value === 'string') return UNSTORABLE.test(value) ? path : undefined;
  if (typeof value !== 'object' || value === null || ArrayBuffer.isView(value)) return undefined;
  for (const [key, inner] of Object.entries(value)) {
    const found = UNSTORABLE.test(key) ? [...path, '…'] : findUnstorable(inner, [...path, key]);
    if (found) return found;
  }
  return undefined;
}

/** Refuses requests with text that cannot be kept, at the door, wherever in them it stands. */
export function refuseUnstorable(app: FastifyInstance): void {
  app.addHook('preValidation', async ({ params, query, body }) => {
    const found = findUnstorable(params) ?? findUnstorable(query) ?? findUnstorable(body);
    if (!found) return;
    const path = found.join('.');
    throw new ProblemError(
      422,
      'invalid-input',
      'Something in this is not right',
      `${path || 'The request'}: it holds a sign that cannot be kept. Type it anew.`,
      [{ path, message: 'holds a sign that cannot be kept' }],
    );
  });
}
