import type { Problem } from '@velarium/contract';
import type { FastifyBaseLogger, FastifyError, FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import { hasZodFastifySchemaValidationErrors } from 'fastify-type-provider-zod';
import { databaseFault } from './database-fault.ts';
import { NO_SNIFFING } from './no-sniffing.ts';

/** An error that knows how it is told: `code` is for programs and never changes, `detail` says how to mend it. */
export class ProblemError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly title: string,
    readonly detail: string,
    readonly fields?: Problem['fields'],
    /** After how many seconds it is worth trying again. Source: RFC 9110, 10.2.3. */
    readonly retryAfterSeconds?: number,
  ) {
    super(`${code}: ${detail}`);
  }
}

/** How long a caller is asked to wait, seconds. */
const AWAY_SECONDS = 10;
const BUSY_SECONDS = 2;

export const notFound = (what: string): ProblemError =>
  new ProblemError(
    404,
    'not-found',
    'Not found',
    `This ${what} is not here. It may have been removed; go back and choose again.`,
  );

export const forbidden = (needed: string): ProblemError =>
  new ProblemError(
    403,
    'forbidden',
    'Not allowed',
    `This takes the role ${needed}. Ask an owner of the workspace for it.`,
  );

/** The database cannot be reached: what is asked for may be had again in a moment. */
export const databaseAway = (): ProblemError =>
  new ProblemError(
    503,
    'database-away',
    'The database cannot be reached',
    'Nothing is lost. Try again in a moment.',
    undefined,
    AWAY_SECONDS,
  );

export const busy = (): ProblemError =>
  new ProblemError(
    503,
    'busy',
    'Busy',
    'Too much is waiting here. Try again in a moment.',
    undefined,
    BUSY_SECONDS,
  );

const FAULTS = {
  away: databaseAway,
  busy,
  value: () =>
    new ProblemError(
      422,
      'invalid-input',
      'Something in this is not right',
      'A value in this is larger than can be kept, or holds a sign that cannot. Change it and try again.',
    ),
} as const;

function make(
  status: number,
  code: string,
  title: string,
  detail: string,
  fields?: Problem['fields'],
): Problem {
  const type = `urn:velarium:problem:${code}`;
  return { type, title, status, detail, code, ...(fields ? { fields } : {}) };
}

function problemOf(error: FastifyError | ProblemError): Problem {
  if (error instanceof ProblemError) {
    return make(error.status, error.code, error.title, error.detail, error.fields);
  }
  if (hasZodFastifySchemaValidationErrors(error) || error.validation) {
    const fields = (error.validation ?? []).map((issue) => ({
      path: issue.instancePath.replace(/^\//, '').replaceAll('/', '.'),
      message: issue.message ?? 'is not valid',
    }));
    const first = fields[0];
    return make(
      422,
      'invalid-input',
      'Something in this is not right',
      first ? `${first.path || 'The request'}: ${first.message}.` : 'Check what was sent and try again.',
      fields,
    );
  }
  switch (error.statusCode) {
    case 413:
      return make(413, 'too-large', 'Too large', 'This is larger than is taken here. Send less at a time.');
    case 429:
      return make(429, 'too-many', 'Too many tries', 'Wait a minute, then try again.');
    case 403:
      return make(403, 'csrf', 'The page is out of date', 'Reload the page and try again.');
    case 406:
      return make(406, 'bad-request', 'Not understood', 'Send a file, as a form with one does.');
    default:
      // Whatever else a library refuses is not our fault.
      if (error.statusCode && error.statusCode >= 400 && error.statusCode < 500)
        return make(
          error.statusCode,
          'bad-request',
          'Not understood',
          'Send JSON as the API reference describes it.',
        );
      return make(500, 'internal', 'Something went wrong here', 'It has been noted. Try again in a moment.');
  }
}

/** Answers every error of `app` as RFC 9457 problem details; what is our own fault is logged and not told. */
export function answerWithProblems(
  app: FastifyInstance,
  {
    log = app.log,
    idOf = ({ id }) => id,
  }: {
    readonly log?: Pick<FastifyBaseLogger, 'error'>;
    readonly idOf?: (request: FastifyRequest) => string;
  } = {},
): void {
  app.setErrorHandler((raised: FastifyError | ProblemError, request: FastifyRequest, reply: FastifyReply) => {
    const fault = databaseFault(raised);
    const error = fault ? FAULTS[fault]() : raised;
    const problem = problemOf(error);
    if (problem.status >= 500) {
      const id = idOf(request);
      const { method } = request;
      // The route and not the address, which may hold what somebody wrote.
      log.error({ err: raised, reqId: id, method, route: request.routeOptions.url }, 'request failed');
      // So that who was told of it and who reads the log speak of the same.
      reply.header('x-request-id', id);
    }
    if (error instanceof ProblemError && error.retryAfterSeconds !== undefined)
      reply.header('retry-after', error.retryAfterSeconds);
    return send(reply, problem);
  });
}

const send = (reply: FastifyReply, problem: Problem): FastifyReply =>
  reply
    .status(problem.status)
    .header('content-type', 'application/problem+json; charset=utf-8')
    .serializer((value: unknown) => JSON.stringify(value))
    .send(problem);

/** Answers what the framework refuses before it belongs to any route, and does not say back what was asked. */
export function refuseUnread(error: FastifyError, _request: unknown, reply: FastifyReply): void {
  const said = 'This address cannot be read, or is too long. Look at how it is written.';
  // No hook is run for it.
  reply.header(...NO_SNIFFING);
  send(reply, make(error.statusCode ?? 400, 'bad-request', 'Not understood', said));
}
