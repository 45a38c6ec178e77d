import {
  beginSchema,
  forgottenSchema,
  invitationSchema,
  inviteSchema,
  joinSchema,
  newPasswordSchema,
  openInvitationSchema,
} from '@velarium/contract';
import type { FastifyPluginAsyncZod, ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { type AccountService, requireMember, requireRole } from '../accounts/index.ts';
import type { MemberService } from './service.ts';

const byToken = z.object({ token: z.string().max(300) });
const SELDOM = { rateLimit: { max: 10, timeWindow: '1 minute' } };

/** Joining by invitation and setting a forgotten password: for those who cannot sign in, and for owners who ask them. */
export const memberRoutes: FastifyPluginAsyncZod<{
  readonly members: MemberService;
  readonly accounts: AccountService;
}> = async (app, { members, accounts }) => {
  app.post(
    '/beginning',
    { config: SELDOM, schema: { body: beginSchema, response: { 204: z.void() } } },
    async ({ body }, reply) => {
      await members.begin(body);
      return reply.status(204).send();
    },
  );
  app.post(
    '/forgotten',
    { config: SELDOM, schema: { body: forgottenSchema, response: { 204: z.void() } } },
    async ({ body }, reply) => {
      await members.forgotten(body.email);
      return reply.status(204).send();
    },
  );
  app.post(
    '/password',
    { config: SELDOM, schema: { body: newPasswordSchema, response: { 204: z.void() } } },
    async ({ body }, reply) => {
      await members.setPassword(body.token, body.password);
      return reply.status(204).send();
    },
  );
  app.get(
    '/joining/:token',
    { config: SELDOM, schema: { params: byToken, response: { 200: openInvitationSchema } } },
    ({ params }) => members.open(params.token),
  );
  app.post(
    '/joining/:token',
    { config: SELDOM, schema: { params: byToken, body: joinSchema, response: { 204: z.void() } } },
    async ({ params, body }, reply) => {
      await members.join(params.token, body.password);
      return reply.status(204).send();
    },
  );

  await app.register(async (scope) => {
    const owned = scope.withTypeProvider<ZodTypeProvider>();
    requireMember(scope, accounts);
    scope.addHook('preHandler', requireRole('owner'));
    owned.get('/invitations', { schema: { response: { 200: z.array(invitationSchema) } } }, ({ principal }) =>
      members.list(principal.workspaceId),
    );
    owned.post(
      '/invitations',
      { config: SELDOM, schema: { body: inviteSchema, response: { 204: z.void() } } },
      async ({ principal, body }, reply) => {
        await members.invite(principal, body);
        return reply.status(204).send();
      },
    );
    owned.delete(
      '/invitations/:invitationId',
      { schema: { params: z.object({ invitationId: z.uuid() }), response: { 204: z.void() } } },
      async ({ principal, params }, reply) => {
        await members.withdraw(principal.workspaceId, params.invitationId);
        return reply.status(204).send();
      },
    );
  });
};
