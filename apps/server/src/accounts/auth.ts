import cookie from '@fastify/cookie';
import csrf from '@fastify/csrf-protection';
import rateLimit from '@fastify/rate-limit';
import session from '@fastify/session';
import type { KeyReads, Role } from '@velarium/contract';
import type { FastifyInstance, FastifyRequest } from 'fastify';
import fp from 'fastify-plugin';
import type { DataSource } from 'typeorm';
import { forbidden, ProblemError } from '../infra/problem.ts';
import type { Secrets } from '../infra/seal.ts';
import type { Principal } from './principal.ts';
import type { AccountService } from './service.ts';
import { SessionStore } from './session-store.ts';

declare module 'fastify' {
  interface Session {
    accountId?: string;
    /** When the password was asked for, by the database's clock, epoch milliseconds. */
    signedInMs?: number;
    /** The last day it was used, so that it is written down once a day. */
    usedOn?: string;
  }
  interface FastifyRequest {
    principal: Principal;
  }
  interface FastifyContextConfig {
    /** What a key of the workspace's must read for a program to ask this with it; without it none can. Only ever for reading. */
    forKeys?: KeyReads;
  }
}

export interface AuthOptions {
  readonly db: DataSource;
  readonly accounts: AccountService;
  readonly secrets: Secrets;
  readonly isBehindTls: boolean;
}

const SESSION_SECONDS = 14 * 24 * 3600;
const RANK: Readonly<Record<Role, number>> = { viewer: 0, editor: 1, owner: 2 };

/** Sessions in an HttpOnly cookie, CSRF tokens and rate limits, for the studio's API. */
export const auth = fp(async (app: FastifyInstance, options: AuthOptions) => {
  await app.register(cookie);
  await app.register(session, {
    // A cookie that one of before has signed still holds.
    secret: [...options.secrets],
    cookieName: 'velarium_session',
    cookie: {
      httpOnly: true,
      sameSite: 'strict',
      secure: options.isBehindTls,
      maxAge: SESSION_SECONDS * 1000,
      path: '/',
    },
    saveUninitialized: false,
    // Written down when it changes: of a sign-in that has ended meanwhile nothing is.
    rolling: false,
    store: new SessionStore(options.db) as never,
  });
  await app.register(csrf, {
    sessionPlugin: '@fastify/session',
    getToken: (request) => request.headers['x-csrf-token'] as string,
  });
  await app.register(rateLimit, { global: false });
  app.decorateRequest('principal');
});

/** Guards a scope of routes: somebody is signed in, and what changes anything carries the session's CSRF token. */
export function requireMember(app: FastifyInstance, accounts: AccountService): void {
  app.addHook('onRequest', async (request) => {
    const { authorization } = request.headers;
    if (authorization !== undefined) {
      request.principal = await principalOfToken(request, accounts, authorization);
      return;
    }
    const { accountId, signedInMs = 0 } = request.session;
    const principal = accountId ? await accounts.findPrincipal(accountId, signedInMs) : undefined;
    if (!principal) throw new ProblemError(401, 'signed-out', 'Signed out', 'Sign in to go on.');
    request.principal = principal;
    // Its fourteen days begin anew with every day on which it is used.
    request.session.usedOn = new Date().toISOString().slice(0, 10);
  });
  app.addHook('preHandler', (request, reply, done) => {
    if (request.method === 'GET') done();
    else app.csrfProtection(request, reply, done);
  });
}

/** Who asks with a key (RFC 6750, 2.1), where keys may be used and this one reads the site. */
async function principalOfToken(
  request: FastifyRequest,
  accounts: AccountService,
  authorization: string,
): Promise<Principal> {
  const secret = /^Bearer +(\S+)$/i.exec(authorization)?.[1];
  const found = secret ? await accounts.tokens.find(secret) : undefined;
  if (!found)
    throw new ProblemError(401, 'wrong-key', 'Not this key', 'The key is unknown, or was taken back.');
  if (request.method !== 'GET' || request.routeOptions.config.forKeys !== found.scope.reads)
    throw new ProblemError(
      403,
      'key-scope',
      'Not with a key',
      found.scope.reads === 'people'
        ? 'This key reads answers and people, nothing else.'
        : 'This key reads what becomes of rehearsals, nothing else.',
    );
  const { siteId } = request.params as { siteId?: string };
  if (found.scope.siteId !== null && found.scope.siteId !== siteId)
    throw new ProblemError(
      403,
      'key-scope',
      'Not this site',
      'The key is for another site of the workspace.',
    );
  return found.principal;
}

/** A hook that lets only members of at least this role pass. */
export function requireRole(role: Role) {
  return async (request: FastifyRequest): Promise<void> => {
    if (RANK[request.principal.role] < RANK[role]) throw forbidden(role);
  };
}
