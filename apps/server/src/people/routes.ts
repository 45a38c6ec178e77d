import { Negotiator } from '@fastify/accept-negotiator';
import {
  answerCountsSchema,
  answerFilterSchema,
  answerPageSchema,
  correctAnswerSchema,
  doNotWriteResultSchema,
  doNotWriteSchema,
  erasureReceiptSchema,
  judgeHeldSchema,
  keepAnswersSchema,
  type Person,
  peopleNoteSchema,
  personSchema,
} from '@velarium/contract';
import { ANSWERS_HEADER } from '@velarium/contract/values';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { EntityManager } from 'typeorm';
import { z } from 'zod';
import { requireRole } from '../accounts/index.ts';
import type { PersonRow } from './persons.ts';
import type { Actor, PeopleService } from './service.ts';

export interface PeopleRouteOptions {
  readonly people: PeopleService;
  /** What went or will go to a person. */
  readonly sentTo: (personId: string, isWhole?: boolean) => Promise<Person['sent']>;
  /** Removes it, and says how many that was. */
  readonly forgetSent: (manager: EntityManager, person: PersonRow) => Promise<number>;
  /** Lets answers that were kept apart through, or throws them away. */
  readonly judgeHeld: (
    actor: Actor,
    siteId: string,
    ids: readonly string[],
    verdict: 'letThrough' | 'throwAway',
  ) => Promise<number>;
}

const FOR_KEYS = { forKeys: 'people' } as const;
const ofSite = z.object({ siteId: z.uuid() });
const ofOne = z.object({ siteId: z.uuid(), id: z.uuid() });
/** `2026-11-27 09:00:00.123456+00~id`: where the page before ended. */
const cursor = z
  .string()
  .regex(/^\d{4}-\d\d-\d\d \d\d:\d\d:\d\d(\.\d{1,6})?\+\d\d(:\d\d)?~[0-9a-f-]{36}$/)
  .optional();

/** What visitors sent, and who they are. Viewers see counts alone. The caller guards the scope. */
/** How a file of answers can be written; where neither is wanted it is turned into something else on its way. */
const encodings = new Negotiator({ supportedValues: ['gzip', 'identity'] });

export const peopleRoutes: FastifyPluginAsyncZod<PeopleRouteOptions> = async (
  app,
  { people, sentTo, forgetSent, judgeHeld },
) => {
  app.get(
    '/sites/:siteId/answers/counts',
    { schema: { params: ofSite, querystring: answerFilterSchema, response: { 200: answerCountsSchema } } },
    (request) => people.counts(request.principal.workspaceId, request.params.siteId, request.query),
  );

  await app.register(async (scope) => {
    const own = scope as typeof app;
    scope.addHook('preHandler', requireRole('editor'));
    own.get(
      '/sites/:siteId/answers',
      {
        config: FOR_KEYS,
        schema: {
          params: ofSite,
          querystring: answerFilterSchema.extend({ cursor }),
          response: { 200: answerPageSchema },
        },
      },
      ({ principal, params, query: { cursor: from = null, ...filter } }) =>
        people.list(principal.workspaceId, params.siteId, filter, from),
    );
    own.get(
      '/sites/:siteId/answers.:format',
      {
        config: FOR_KEYS,
        schema: {
          params: ofSite.extend({ format: z.enum(['csv', 'jsonl']) }),
          querystring: answerFilterSchema,
        },
      },
      async ({ principal, params: { siteId, format }, query, headers }, reply) => {
        // Refused before anything is sent, where it is not theirs.
        const count = await people.countAll(principal.workspaceId, siteId, query);
        const isCompressed = encodings.negotiate(headers['accept-encoding'] ?? '') === 'gzip';
        const file = await people.export(principal, siteId, query, format, isCompressed);
        // Said, it is not compressed once more on its way.
        if (isCompressed) reply.header('content-encoding', 'gzip');
        return reply
          .header('vary', 'accept-encoding')
          .type(
            format === 'csv' ? 'text/csv; charset=utf-8; header=present' : 'application/jsonl; charset=utf-8',
          )
          .header(ANSWERS_HEADER, count)
          .header('content-disposition', `attachment; filename="answers.${format}"`)
          .send(file);
      },
    );
    own.patch(
      '/sites/:siteId/answers/:id',
      { schema: { params: ofOne, body: correctAnswerSchema, response: { 204: z.void() } } },
      async ({ principal, params, body }, reply) => {
        await people.correct(principal, params.siteId, params.id, body.values);
        return reply.status(204).send();
      },
    );
    own.post(
      '/sites/:siteId/answers/held',
      {
        schema: {
          params: ofSite,
          body: judgeHeldSchema,
          response: { 200: z.strictObject({ count: z.number().int() }) },
        },
      },
      async ({ principal, params, body }) => ({
        count: await judgeHeld(principal, params.siteId, body.ids, body.verdict),
      }),
    );
    own.get(
      '/sites/:siteId/people/:id',
      { config: FOR_KEYS, schema: { params: ofOne, response: { 200: personSchema } } },
      async ({ principal, params }) => ({
        ...(await people.person(principal.workspaceId, params.siteId, params.id)),
        sent: await sentTo(params.id),
      }),
    );
    own.get(
      '/sites/:siteId/people/:id/everything.json',
      { schema: { params: ofOne } },
      async ({ principal, params }, reply) => {
        const person = await people.everything(principal, params.siteId, params.id);
        const sent = await sentTo(params.id, true);
        return reply
          .type('application/json')
          .header('content-disposition', 'attachment; filename="everything.json"')
          .send(JSON.stringify({ ...person, sent }, null, 2));
      },
    );
    own.delete(
      '/sites/:siteId/people/:id',
      { schema: { params: ofOne, response: { 200: erasureReceiptSchema } } },
      ({ principal, params }) => people.erase(principal, params.siteId, params.id, forgetSent),
    );
    own.post(
      '/sites/:siteId/do-not-write',
      {
        bodyLimit: 4_000_000,
        schema: { params: ofSite, body: doNotWriteSchema, response: { 200: doNotWriteResultSchema } },
      },
      ({ principal, params, body }) => people.importDoNotWrite(principal, params.siteId, body.text),
    );
    own.get(
      '/sites/:siteId/people-notes',
      { schema: { params: ofSite, response: { 200: z.array(peopleNoteSchema) } } },
      ({ principal, params }) => people.notes(principal.workspaceId, params.siteId),
    );
    own.get(
      '/sites/:siteId/kept-answers',
      { schema: { params: ofSite, response: { 200: keepAnswersSchema } } },
      async ({ principal, params }) => ({
        days: await people.keptDays(principal.workspaceId, params.siteId),
      }),
    );
    own.put(
      '/sites/:siteId/kept-answers',
      {
        preHandler: requireRole('owner'),
        schema: { params: ofSite, body: keepAnswersSchema, response: { 204: z.void() } },
      },
      async ({ principal, params, body }, reply) => {
        await people.keepFor(principal.workspaceId, params.siteId, body.days);
        return reply.status(204).send();
      },
    );
    own.get('/sites/:siteId/attachments/:id', { schema: { params: ofOne } }, async (request, reply) => {
      const { siteId, id } = request.params;
      const bytes = await people.attachment(request.principal.workspaceId, siteId, id);
      return reply
        .type('image/webp')
        .header('content-disposition', `attachment; filename="${id}.webp"`)
        .header('cache-control', 'private, no-store')
        .send(bytes);
    });
  });
};
