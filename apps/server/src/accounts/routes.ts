import {
  accessTokenSchema,
  changePasswordSchema,
  changeRoleSchema,
  madeTokenSchema,
  makeTokenSchema,
  memberSchema,
  type Session,
  sessionSchema,
  signInSchema,
  workspaceSettingsSchema,
} from '@velarium/contract';
import type { FastifyReply } from 'fastify';
import type { FastifyPluginAsyncZod, ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { requireMember, requireRole } from './auth.ts';
import type { Principal } from './principal.ts';
import type { AccountService } from './service.ts';

const memberParams = z.object({ accountId: z.uuid() });

/** Signing in and out, and the workspace's members. */
export const accountRoutes: FastifyPluginAsyncZod<{ accounts: AccountService }> = async (
  app,
  { accounts },
) => {
  app.post(
    '/session',
    {
      config: { rateLimit: { max: 10, timeWindow: '1 minute' } },
      schema: { body: signInSchema, response: { 200: sessionSchema } },
    },
    async (request, reply) => {
      const { principal, signedInMs } = await accounts.signIn(request.body.email, request.body.password);
      // A new id, so a session planted before signing in is worth nothing after it.
      await request.session.regenerate();
      Object.assign(request.session, { accountId: principal.accountId, signedInMs });
      return sessionOf(principal, reply);
    },
  );

  await app.register(async (scope) => {
    const members = scope.withTypeProvider<ZodTypeProvider>();
    requireMember(scope, accounts);
    members.get('/session', { schema: { response: { 200: sessionSchema } } }, async (request, reply) =>
      sessionOf(request.principal, reply),
    );
    members.delete('/session', { schema: { response: { 204: z.void() } } }, async (request, reply) => {
      await request.session.destroy();
      return reply.status(204).send();
    });
    members.get('/members', { schema: { response: { 200: z.array(memberSchema) } } }, (request) =>
      accounts.members(request.principal.workspaceId),
    );
    members.delete('/sessions', { schema: { response: { 204: z.void() } } }, async (request, reply) => {
      await accounts.signOutEverywhere(request.principal.accountId);
      await request.session.destroy();
      return reply.status(204).send();
    });
    members.post(
      '/account/password',
      {
        config: { rateLimit: { max: 10, timeWindow: '1 minute' } },
        schema: { body: changePasswordSchema, response: { 204: z.void() } },
      },
      async (request, reply) => {
        const { current, password } = request.body;
        await accounts.changePassword(request.principal.accountId, current, password);
        await request.session.destroy();
        return reply.status(204).send();
      },
    );
    await members.register(async (owned) => {
      const tokens = owned.withTypeProvider<ZodTypeProvider>();
      owned.addHook('preHandler', requireRole('owner'));
      tokens.get('/tokens', { schema: { response: { 200: z.array(accessTokenSchema) } } }, ({ principal }) =>
        accounts.tokens.list(principal.workspaceId),
      );
      tokens.post(
        '/tokens',
        { schema: { body: makeTokenSchema, response: { 201: madeTokenSchema } } },
        async ({ principal, body }, reply) =>
          reply.status(201).send(await accounts.tokens.make(principal, body)),
      );
      tokens.delete(
        '/tokens/:tokenId',
        { schema: { params: z.object({ tokenId: z.uuid() }), response: { 204: z.void() } } },
        async ({ principal, params }, reply) => {
          await accounts.tokens.revoke(principal.workspaceId, params.tokenId);
          return reply.status(204).send();
        },
      );
    });
    members.put(
      '/workspace',
      {
        preHandler: requireRole('owner'),
        schema: { body: workspaceSettingsSchema, response: { 204: z.void() } },
      },
      async ({ principal, body }, reply) => {
        await accounts.setWorkspace(principal.workspaceId, body);
        return reply.status(204).send();
      },
    );
    members.patch(
      '/members/:accountId',
      {
        preHandler: requireRole('owner'),
        schema: { params: memberParams, body: changeRoleSchema, response: { 204: z.void() } },
      },
      async (request, reply) => {
        await accounts.changeRole(request.principal.workspaceId, request.params.accountId, request.body.role);
        return reply.status(204).send();
      },
    );
    members.delete(
      '/members/:accountId',
      { preHandler: requireRole('owner'), schema: { params: memberParams, response: { 204: z.void() } } },
      async (request, reply) => {
        await accounts.removeMember(request.principal.workspaceId, request.params.accountId);
        return reply.status(204).send();
      },
    );
  });
};

function sessionOf(principal: Principal, reply: FastifyReply): Session {
  return {
    account: { id: principal.accountId, name: principal.name, email: principal.email },
    workspace: {
      id: principal.workspaceId,
      name: principal.workspaceName,
      asksSecond: principal.asksSecond,
    },
    role: principal.role,
    csrfToken: reply.generateCsrf(),
  };
}
