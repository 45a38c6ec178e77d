import {
  blockIdSchema,
  connectionSchema,
  type DeliveryFilter,
  deliveryFilterSchema,
  deliveryPageSchema,
  deliveryTriesSchema,
  followUpSchema,
  mailPreviewSchema,
  mailTrialSchema,
  moveDeliveriesSchema,
  saveConnectionSchema,
  saveSendingSchema,
  sendingSchema,
  shownSecretSchema,
  triedConnectionSchema,
  triedSendingSchema,
} from '@velarium/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { type Principal, requireRole } from '../accounts/index.ts';
import { forbidden } from '../infra/problem.ts';
import type { OutboxScope } from './outbox.ts';
import type { DeliveryService } from './service.ts';

const ofSite = z.object({ siteId: z.uuid() });
const ofOne = z.object({ siteId: z.uuid(), id: z.uuid() });
const ofForm = z.object({ campaignId: z.uuid(), form: blockIdSchema });
/** What asks another server is asked no oftener than a person presses. */
const BY_HAND = { rateLimit: { max: 30, timeWindow: '1 minute' } };

/** What goes out, and how. Viewers see none of it, since it says who answered. The caller guards the scope. */
export const deliveryRoutes: FastifyPluginAsyncZod<{ deliveries: DeliveryService }> = async (
  app,
  { deliveries },
) => {
  const { outbox, connections, sending } = deliveries;
  app.addHook('preHandler', requireRole('editor'));
  /** Makes sure the site is the workspace's before anything of it is touched. */
  const zoneOf = deliveries.timeZoneOf;
  /** What goes to the members of a workspace only its owners see. */
  async function scopeOf(
    { workspaceId, role }: Principal,
    siteId: string,
    of: DeliveryFilter['of'],
  ): Promise<OutboxScope> {
    const timeZone = await zoneOf(workspaceId, siteId);
    if (of === 'site') return { siteId, timeZone };
    if (role !== 'owner') throw forbidden('owner');
    return { workspaceId, timeZone };
  }

  app.get(
    '/sites/:siteId/deliveries',
    { schema: { params: ofSite, querystring: deliveryFilterSchema, response: { 200: deliveryPageSchema } } },
    async ({ principal, params: { siteId }, query }) =>
      outbox.list(await scopeOf(principal, siteId, query.of), query),
  );
  app.get(
    '/sites/:siteId/deliveries/:id',
    {
      schema: {
        params: ofOne,
        querystring: deliveryFilterSchema.pick({ of: true }),
        response: { 200: deliveryTriesSchema },
      },
    },
    async ({ principal, params: { siteId, id }, query }) =>
      outbox.tries(await scopeOf(principal, siteId, query.of), id),
  );
  app.post(
    '/sites/:siteId/deliveries/moves',
    {
      schema: {
        params: ofSite,
        body: moveDeliveriesSchema,
        response: { 200: z.strictObject({ count: z.number().int() }) },
      },
    },
    async ({ principal, params: { siteId }, body }) => ({
      count: await outbox.move(await scopeOf(principal, siteId, body.of), body),
    }),
  );

  app.get(
    '/campaigns/:campaignId/follow-ups/:form',
    { schema: { params: ofForm, response: { 200: followUpSchema } } },
    ({ principal, params }) => deliveries.followUp(principal.workspaceId, params.campaignId, params.form),
  );
  app.put(
    '/campaigns/:campaignId/follow-ups/:form',
    { schema: { params: ofForm, body: followUpSchema, response: { 204: z.void() } } },
    async ({ principal, params, body }, reply) => {
      await deliveries.saveFollowUp(principal.workspaceId, params.campaignId, params.form, body);
      return reply.status(204).send();
    },
  );
  app.post(
    '/sites/:siteId/mail-previews',
    { schema: { params: ofSite, body: mailTrialSchema, response: { 200: mailPreviewSchema } } },
    ({ principal, params, body }) => deliveries.previewMail(principal.workspaceId, params.siteId, body),
  );
  app.post(
    '/sites/:siteId/mail-trials',
    { config: BY_HAND, schema: { params: ofSite, body: mailTrialSchema, response: { 204: z.void() } } },
    async ({ principal, params, body }, reply) => {
      await deliveries.tryMail(principal.workspaceId, params.siteId, principal.email, body);
      return reply.status(204).send();
    },
  );

  app.get(
    '/sites/:siteId/connections',
    { schema: { params: ofSite, response: { 200: z.array(connectionSchema) } } },
    async ({ principal, params: { siteId } }) => {
      await zoneOf(principal.workspaceId, siteId);
      return connections.list(siteId);
    },
  );
  app.post(
    '/sites/:siteId/connections',
    { schema: { params: ofSite, body: saveConnectionSchema, response: { 201: shownSecretSchema } } },
    async ({ principal, params: { siteId }, body }, reply) => {
      await zoneOf(principal.workspaceId, siteId);
      return reply.status(201).send(await connections.create(principal.workspaceId, siteId, body));
    },
  );
  app.post(
    '/sites/:siteId/connections/trials',
    {
      config: BY_HAND,
      schema: {
        params: ofSite,
        body: z.strictObject({ settings: saveConnectionSchema, connection: z.uuid().nullable() }),
        response: { 200: triedConnectionSchema },
      },
    },
    ({ principal, params, body }) =>
      deliveries.tryConnection(principal.workspaceId, params.siteId, body.settings, body.connection),
  );
  app.put(
    '/sites/:siteId/connections/:id',
    { schema: { params: ofOne, body: saveConnectionSchema, response: { 200: connectionSchema } } },
    async ({ principal, params: { siteId, id }, body }) => {
      await zoneOf(principal.workspaceId, siteId);
      return connections.save(siteId, id, body);
    },
  );
  app.delete(
    '/sites/:siteId/connections/:id',
    { schema: { params: ofOne, response: { 204: z.void() } } },
    async ({ principal, params: { siteId, id } }, reply) => {
      await zoneOf(principal.workspaceId, siteId);
      await connections.remove(siteId, id);
      return reply.status(204).send();
    },
  );
  app.post(
    '/sites/:siteId/connections/:id/secrets',
    { schema: { params: ofOne, response: { 201: shownSecretSchema } } },
    async ({ principal, params: { siteId, id } }, reply) => {
      await zoneOf(principal.workspaceId, siteId);
      return reply.status(201).send(await connections.renewSecret(siteId, id));
    },
  );
  app.delete(
    '/sites/:siteId/connections/:id/secrets/old',
    { schema: { params: ofOne, response: { 200: connectionSchema } } },
    async ({ principal, params: { siteId, id } }) => {
      await zoneOf(principal.workspaceId, siteId);
      return connections.dropOldSecret(siteId, id);
    },
  );
  app.post(
    '/sites/:siteId/connections/:id/earlier',
    {
      config: BY_HAND,
      schema: { params: ofOne, response: { 200: z.strictObject({ count: z.number().int() }) } },
    },
    async ({ principal, params: { siteId, id } }) => ({
      count: await deliveries.sendEarlier(principal.workspaceId, siteId, id),
    }),
  );
  app.post(
    '/sites/:siteId/connections/:id/state',
    {
      schema: {
        params: ofOne,
        body: z.strictObject({ state: z.enum(['on', 'resting']) }),
        response: { 200: connectionSchema },
      },
    },
    async ({ principal, params: { siteId, id }, body }) => {
      await zoneOf(principal.workspaceId, siteId);
      return body.state === 'on'
        ? deliveries.wakeConnection(siteId, id)
        : deliveries.restConnection(siteId, id);
    },
  );

  app.get('/sending', { schema: { response: { 200: sendingSchema } } }, ({ principal }) =>
    sending.get(principal.workspaceId),
  );
  await app.register(async (scope) => {
    const owned = scope as typeof app;
    scope.addHook('preHandler', requireRole('owner'));
    owned.put(
      '/sending',
      { schema: { body: saveSendingSchema, response: { 200: sendingSchema } } },
      async ({ principal, body }) => {
        await sending.save(principal.workspaceId, body);
        return sending.get(principal.workspaceId);
      },
    );
    owned.delete('/sending', { schema: { response: { 200: sendingSchema } } }, async ({ principal }) => {
      await sending.remove(principal.workspaceId);
      return sending.get(principal.workspaceId);
    });
    owned.post(
      '/sending/trials',
      { config: BY_HAND, schema: { body: saveSendingSchema, response: { 200: triedSendingSchema } } },
      ({ principal, body }) => deliveries.trySending(principal.workspaceId, body),
    );
  });
};
