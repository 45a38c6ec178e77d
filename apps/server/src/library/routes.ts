import multipart from '@fastify/multipart';
import {
  askFilmSchema,
  bringLettersSchema,
  changePictureSchema,
  filmFactsSchema,
  lettersIdSchema,
  lettersSchema,
  lookReadSchema,
  lookSchema,
  ownTemplateSchema,
  pictureSchema,
  readLookSchema,
  saveBlockSchema,
  savedBlockSchema,
  saveLookSchema,
  saveTemplateSchema,
} from '@velarium/contract';
import type { FastifyRequest } from 'fastify';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { requireRole } from '../accounts/index.ts';
import { ProblemError } from '../infra/problem.ts';
import type { SiteService } from '../sites/index.ts';
import type { LibraryService } from './service.ts';

/** Largest upload taken, bytes. */
const MOST_BYTES = 12 * 1024 * 1024;
const MESSAGE_BYTES = 1024 * 1024;
/** Another server is asked on a person's word: often enough for a person. */
const OUTSIDE_ASKED = { max: 30, timeWindow: '1 minute' };

const siteParams = z.object({ siteId: z.uuid() });
const params = siteParams.extend({ id: z.uuid() });
const lettersParams = siteParams.extend({ id: lettersIdSchema });

export interface LibraryRouteServices {
  readonly library: LibraryService;
  readonly sites: SiteService;
  /** Called after something that published messages are made of has changed. */
  readonly onChanged: (workspaceId: string, siteId: string) => Promise<void>;
}

/** A site's Looks, pictures, saved blocks and templates. The caller guards the scope. */
export const libraryRoutes: FastifyPluginAsyncZod<LibraryRouteServices> = async (
  app,
  { library, sites, onChanged },
) => {
  const preHandler = requireRole('editor');
  /** The site, once it is sure that it belongs to the caller's workspace. */
  const own = async (request: FastifyRequest): Promise<string> => {
    const { siteId } = request.params as { siteId: string };
    return (await sites.get(request.principal.workspaceId, siteId)).id;
  };
  /** What pages load follows what it is made of. */
  const follow = (request: FastifyRequest, siteId: string) =>
    onChanged(request.principal.workspaceId, siteId);

  await app.register(multipart, { limits: { fileSize: MOST_BYTES, files: 1, fields: 2 } });

  app.get(
    '/sites/:siteId/looks',
    { schema: { params: siteParams, response: { 200: z.array(lookSchema) } } },
    async (request) => library.looks.list(await own(request)),
  );
  app.post(
    '/sites/:siteId/looks',
    { preHandler, schema: { params: siteParams, body: saveLookSchema, response: { 201: lookSchema } } },
    async (request, reply) =>
      reply.status(201).send(await library.looks.create(await own(request), request.body)),
  );
  app.put(
    '/sites/:siteId/looks/:id',
    { preHandler, schema: { params, body: saveLookSchema, response: { 200: lookSchema } } },
    async (request) => {
      const siteId = await own(request);
      const saved = await library.looks.save(siteId, request.params.id, request.body);
      await follow(request, siteId);
      return saved;
    },
  );
  app.post(
    '/sites/:siteId/looks/:id/default',
    { preHandler, schema: { params, response: { 200: z.array(lookSchema) } } },
    async (request) => {
      const siteId = await own(request);
      const looks = await library.looks.makeDefault(siteId, request.params.id);
      await follow(request, siteId);
      return looks;
    },
  );
  app.delete('/sites/:siteId/looks/:id', { preHandler, schema: { params } }, async (request, reply) => {
    const siteId = await own(request);
    await library.looks.remove(siteId, request.params.id);
    await follow(request, siteId);
    return reply.status(204).send();
  });

  app.post(
    '/sites/:siteId/looks/reading',
    {
      preHandler,
      config: { rateLimit: OUTSIDE_ASKED },
      schema: { params: siteParams, body: readLookSchema, response: { 200: lookReadSchema } },
    },
    async (request) => {
      const { origins } = await sites.get(request.principal.workspaceId, request.params.siteId);
      return library.readLook(request.params.siteId, origins[0] ?? '', request.body.path);
    },
  );

  app.get(
    '/sites/:siteId/letters',
    { schema: { params: siteParams, response: { 200: z.array(lettersSchema) } } },
    async (request) => library.letters.list(await own(request)),
  );
  app.post(
    '/sites/:siteId/letters',
    {
      preHandler,
      bodyLimit: MOST_BYTES + 4096,
      schema: { params: siteParams, querystring: bringLettersSchema, response: { 201: lettersSchema } },
    },
    async (request, reply) => {
      const siteId = await own(request);
      const bytes = await (await request.file())?.toBuffer();
      if (!bytes?.length)
        throw new ProblemError(422, 'no-letters', 'No letters came', 'Choose a file and send it again.');
      return reply.status(201).send(await library.letters.bring(siteId, bytes, request.query));
    },
  );
  app.get('/sites/:siteId/letters/:id/file', { schema: { params: lettersParams } }, async (request, reply) =>
    reply
      .type('font/woff2')
      .header('cache-control', 'private, max-age=31536000, immutable')
      .send(await library.letters.file(await own(request), request.params.id)),
  );
  app.delete(
    '/sites/:siteId/letters/:id',
    { preHandler, schema: { params: lettersParams } },
    async (request, reply) => {
      await library.letters.remove(await own(request), request.params.id);
      return reply.status(204).send();
    },
  );

  app.get(
    '/sites/:siteId/pictures',
    { schema: { params: siteParams, response: { 200: z.array(pictureSchema) } } },
    async (request) => library.pictures.list(await own(request)),
  );
  app.post(
    '/sites/:siteId/pictures',
    {
      preHandler,
      bodyLimit: MOST_BYTES + 4096,
      schema: { params: siteParams, response: { 201: pictureSchema } },
    },
    async (request, reply) => {
      const siteId = await own(request);
      const file = await request.file();
      const bytes = await file?.toBuffer();
      if (!file || !bytes?.length) {
        throw new ProblemError(422, 'no-picture', 'No picture came', 'Choose a picture and send it again.');
      }
      return reply
        .status(201)
        .send(await library.pictures.add(siteId, file.filename.slice(0, 120) || 'Picture', bytes));
    },
  );
  app.patch(
    '/sites/:siteId/pictures/:id',
    { preHandler, schema: { params, body: changePictureSchema, response: { 200: pictureSchema } } },
    async (request) => library.pictures.change(await own(request), request.params.id, request.body),
  );
  app.delete('/sites/:siteId/pictures/:id', { preHandler, schema: { params } }, async (request, reply) => {
    await library.pictures.remove(await own(request), request.params.id);
    return reply.status(204).send();
  });
  app.post(
    '/sites/:siteId/films',
    {
      preHandler,
      config: { rateLimit: OUTSIDE_ASKED },
      schema: { params: siteParams, body: askFilmSchema, response: { 200: filmFactsSchema } },
    },
    async (request) => library.films.ask(await own(request), request.body.address),
  );
  app.get(
    '/sites/:siteId/blocks',
    { schema: { params: siteParams, response: { 200: z.array(savedBlockSchema) } } },
    async (request) => library.savedBlocks.list(await own(request)),
  );
  app.post(
    '/sites/:siteId/blocks',
    {
      preHandler,
      schema: { params: siteParams, body: saveBlockSchema, response: { 201: savedBlockSchema } },
    },
    async (request, reply) =>
      reply.status(201).send(await library.savedBlocks.save(await own(request), request.body)),
  );
  app.put(
    '/sites/:siteId/blocks/:id',
    { preHandler, schema: { params, body: saveBlockSchema, response: { 200: savedBlockSchema } } },
    async (request) => {
      const siteId = await own(request);
      const saved = await library.savedBlocks.save(siteId, request.body, request.params.id);
      await follow(request, siteId);
      return saved;
    },
  );
  app.delete('/sites/:siteId/blocks/:id', { preHandler, schema: { params } }, async (request, reply) => {
    await library.savedBlocks.remove(await own(request), request.params.id);
    return reply.status(204).send();
  });

  app.get(
    '/sites/:siteId/templates',
    { schema: { params: siteParams, response: { 200: z.array(ownTemplateSchema) } } },
    async (request) => library.templates.list(await own(request)),
  );
  app.post(
    '/sites/:siteId/templates',
    {
      preHandler,
      bodyLimit: MESSAGE_BYTES,
      schema: { params: siteParams, body: saveTemplateSchema, response: { 201: ownTemplateSchema } },
    },
    async (request, reply) =>
      reply.status(201).send(await library.templates.add(await own(request), request.body)),
  );
  app.delete('/sites/:siteId/templates/:id', { preHandler, schema: { params } }, async (request, reply) => {
    await library.templates.remove(await own(request), request.params.id);
    return reply.status(204).send();
  });
};
