import type { FastifyPluginAsync } from 'fastify';
import { notFound } from '../infra/problem.ts';
import { drawnPicture } from './drawn/index.ts';
import type { LibraryService } from './service.ts';

const FOREVER = 'public, max-age=31536000, immutable';
const HOUR = 'public, max-age=3600';

/** Pictures and letters, as pages load them: public, pictures in the best format the browser takes. */
export const servePictures: FastifyPluginAsync<{
  library: () => LibraryService;
}> = async (app, { library }) => {
  const hidden = { schema: { hide: true } };
  app.get<{ Params: { name: string } }>('/pictures/drawn/:name.svg', hidden, (request, reply) => {
    const svg = drawnPicture(request.params.name);
    if (svg === undefined) throw notFound('picture');
    return reply
      .headers({
        'content-type': 'image/svg+xml',
        'cache-control': HOUR,
        'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'",
        'access-control-allow-origin': '*',
        'cross-origin-resource-policy': 'cross-origin',
      })
      .send(svg);
  });
  app.get<{ Params: { hash: string } }>('/letters/:hash.woff2', hidden, async (request, reply) => {
    const { hash } = request.params;
    const bytes = /^[0-9a-f]{32}$/.test(hash) ? await library().letters.served(hash) : undefined;
    if (!bytes) throw notFound('file of letters');
    return reply
      .headers({
        'content-type': 'font/woff2',
        'cache-control': FOREVER,
        'access-control-allow-origin': '*',
        'cross-origin-resource-policy': 'cross-origin',
      })
      .send(bytes);
  });
  app.get<{ Params: { id: string; width: string } }>(
    '/pictures/:id/:width',
    hidden,
    async (request, reply) => {
      const { id, width } = request.params;
      const isAsked = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(id) && /^\d{2,4}$/.test(width);
      const takesAvif = (request.headers.accept ?? '').includes('image/avif');
      const file = isAsked ? await library().pictures.serve(id, Number(width), takesAvif) : undefined;
      if (!file) throw notFound('picture');
      return reply
        .headers({
          'content-type': file.type,
          'cache-control': FOREVER,
          vary: 'accept',
          'access-control-allow-origin': '*',
          'cross-origin-resource-policy': 'cross-origin',
        })
        .send(file.bytes);
    },
  );
};
