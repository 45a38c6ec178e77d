import Fastify, { type FastifyInstance } from 'fastify';
import { FELL_ICON, SKERRY_ICON } from './art.ts';
import { htmlDocument, sitemap } from './document.ts';
import { isSiteLetters, lettersFile } from './letters.ts';
import { type DemoSite, SITE_KEYS } from './page.ts';

/** Serves one demo site under a strict Content-Security-Policy, as a careful site owner would. */
export function createSiteApp(site: DemoSite, edgeOrigin: string): FastifyInstance {
  const app = Fastify({ logger: false });
  const policy = [
    "default-src 'none'",
    `script-src 'self' ${edgeOrigin}`,
    `connect-src 'self' ${edgeOrigin}`,
    "style-src 'self'",
    // Pictures of messages come from the edge; films and frames are where the marketer says.
    `img-src 'self' ${edgeOrigin}`,
    `font-src 'self' ${edgeOrigin}`,
    'frame-src blob: http://127.0.0.1:*',
    "form-action 'self'",
    "base-uri 'none'",
  ].join('; ');
  const icon = site.siteKey === SITE_KEYS.fell ? FELL_ICON : SKERRY_ICON;
  app.addHook('onSend', async (_request, reply) => {
    reply.header('content-security-policy', policy).header('x-content-type-options', 'nosniff');
  });
  for (const page of site.pages) {
    app.get(page.path, (_request, reply) =>
      reply.type('text/html').send(htmlDocument(site, page, edgeOrigin)),
    );
  }
  app.get('/site.css', (_request, reply) => reply.type('text/css').send(site.css));
  app.get<{ Params: { name: string } }>('/letters/:name.woff2', (request, reply) => {
    const { name } = request.params;
    return isSiteLetters(name)
      ? reply
          .type('font/woff2')
          // A page shown in a frame of no origin, as on a stage, is set in them too.
          .headers({ 'cache-control': 'public, max-age=86400', 'access-control-allow-origin': '*' })
          .send(lettersFile(name))
      : reply.callNotFound();
  });
  app.get('/site.js', (_request, reply) => reply.type('text/javascript').send(site.script));
  app.get('/icon.svg', (_request, reply) => reply.type('image/svg+xml').send(icon));
  app.get('/sitemap.xml', (request, reply) =>
    reply.type('application/xml').send(sitemap(site, `http://${request.headers.host}`)),
  );
  app.setNotFoundHandler((_request, reply) =>
    reply
      .status(404)
      .type('text/html')
      .send(
        htmlDocument(
          site,
          {
            path: '',
            title: 'Not here',
            kind: 'website',
            description: '',
            body: '<h1>Nothing to see here</h1><p>This page does not exist. <a href="/">Back to the beginning</a></p>',
          },
          edgeOrigin,
        ),
      ),
  );
  return app;
}
