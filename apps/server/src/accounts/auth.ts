import cookie from '@fastify/cookie';
import csrf from '@fastify/csrf-protection';
import rateLimit from '@fastify/rate-limit';
import session from '@fastify/session';
import type { Role } from '@velarium/contract';
import type { FastifyInstance, FastifyRequest } from 'fastify';
import fp from 'fastify-plugin';
import type { DataSource } from 'typeorm';
import { forbidden, ProblemError } from '../infra/problem.ts';
import type { AccountService, Principal } from './service.ts';
import { SessionStore } from './session-store.ts';

declare module 'fastify' {
  interface Session {
    accountId?: string;
  }
  interface FastifyRequest {
    principal: Principal;
  }
}

export interface AuthOptions {
  readonly db: DataSource;
  readonly accounts: AccountService;
  readonly sessionSecret: string;
  readonly isBehindTls: boolean;
}

const SESSION_SECONDS = 14 * 24 * 3600;
const RANK: Readonly<Record<Role, number>> = { viewer: 0, editor: 1, owner: 2 };

/** Sessions in an HttpOnly cookie, CSRF tokens and rate limits, for the studio's API. */
export const auth = fp(async (app: FastifyInstance, options: AuthOptions) => {
  await app.register(cookie);
  await app.register(session, {
    secret: options.sessionSecret,
    cookieName: 'velarium_session',
    cookie: {
      httpOnly: true,
      sameSite: 'strict',
      secure: options.isBehindTls,
      maxAge: SESSION_SECONDS * 1000,
      path: '/',
    },
    saveUninitialized: false,
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
    const { accountId } = request.session;
    const principal = accountId ? await accounts.findPrincipal(accountId) : undefined;
    if (!principal) throw new ProblemError(401, 'signed-out', 'Signed out', 'Sign in to go on.');
    request.principal = principal;
  });
  app.addHook('preHandler', (request, reply, done) => {
    if (request.method === 'GET') done();
    else app.csrfProtection(request, reply, done);
  });
}

/** A hook that lets only members of at least this role pass. */
export function requireRole(role: Role) {
  return async (request: FastifyRequest): Promise<void> => {
    if (RANK[request.principal.role] < RANK[role]) throw forbidden(role);
  };
}
