import Fastify, { type FastifyInstance } from 'fastify';
import type { Mailbox } from './mailbox.ts';

interface Received {
  readonly at: string;
  readonly headers: Readonly<Record<string, unknown>>;
  readonly body: unknown;
}

const KEPT = 500;
const plain = (text: string) => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

const MAILBOX_SHEET =
  'body{font:15px system-ui;max-width:60rem;margin:2rem auto;padding:0 1rem;color:#1b2130;background:#f4efe4}article{border-top:1px solid #8d8674;padding:1rem 0}h2{margin:0}iframe{width:100%;height:26rem;border:1px solid #8d8674;background:#fff}pre{white-space:pre-wrap;overflow-wrap:anywhere;background:#fbf8f1;padding:.7rem}';

/** Every mail with its markup in a sandbox where nothing runs, its plain text and its headers. */
const mailboxPage = (mails: ReturnType<Mailbox['mails']>): string =>
  `<!doctype html><html lang="en"><meta charset="utf-8"><title>Mailbox</title><style>${MAILBOX_SHEET}</style><h1>Mailbox</h1>${
    mails
      .map(
        (mail) =>
          `<article><h2>${plain(mail.subject)}</h2><p>${plain(mail.from)} to ${plain(mail.to)}, ${mail.receivedAt}</p>${
            mail.html
              ? `<iframe title="${plain(mail.subject)}" sandbox srcdoc="${plain(mail.html)}"></iframe>`
              : ''
          }${mail.attachments.map(({ name, type, bytes }) => `<p>With it: ${plain(name)}, ${plain(type)}, ${bytes} bytes</p>`).join('')}<details><summary>Plain text</summary><pre>${plain(mail.text)}</pre></details><details><summary>Headers</summary><pre>${plain(mail.headers)}</pre></details></article>`,
      )
      .join('') || '<p>No mail yet.</p>'
  }`;

const FILMS: Readonly<Record<string, string>> = {
  dome: 'The dome opens',
  saturn: 'Saturn in eleven minutes',
};
const filmPicture = (title: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 640 360"><rect width="640" height="360" fill="#16223b"/><circle cx="320" cy="180" r="70" fill="#f0c257"/><text x="320" y="330" fill="#fff" text-anchor="middle" font-size="22">${title}</text></svg>`;

/** Small stand-ins for outside services: a mailbox page, customer records that take webhooks, a video host. */
export function createStandinsApp(mailbox: Mailbox): FastifyInstance {
  const app = Fastify({ logger: false });
  const records: Received[] = [];
  let failures = 0;

  app.get('/', (_request, reply) =>
    reply
      .type('text/html')
      .send(
        '<!doctype html><title>Stand-ins</title><h1>Stand-ins</h1><ul><li><a href="/mailbox">Mailbox</a></li><li><a href="/records">Customer records</a></li><li><a href="/films/dome">Video host</a></li></ul>',
      ),
  );
  app.get('/mailbox', (_request, reply) =>
    reply
      .type('text/html')
      .header(
        'content-security-policy',
        "default-src 'none'; style-src 'unsafe-inline'; img-src http: https:; frame-src 'self'",
      )
      .send(mailboxPage(mailbox.mails())),
  );
  app.get('/mailbox.json', () => mailbox.mails());
  app.delete('/mailbox', (_request, reply) => {
    mailbox.empty();
    return reply.status(204).send();
  });

  app.addContentTypeParser('application/cloudevents+json', { parseAs: 'string' }, (_request, body, done) =>
    done(null, JSON.parse(String(body))),
  );
  app.addContentTypeParser(
    'application/x-www-form-urlencoded',
    { parseAs: 'string' },
    (_request, body, done) => done(null, Object.fromEntries(new URLSearchParams(String(body)))),
  );
  app.get('/records', () => records);
  app.post('/records', (request, reply) => {
    if (failures > 0) {
      failures--;
      return reply.status(503).send({ error: 'told to fail' });
    }
    records.unshift({ at: new Date().toISOString(), headers: request.headers, body: request.body });
    records.splice(KEPT);
    return reply.status(202).send({ stored: true });
  });
  /** The next `times` deliveries fail. */
  app.put<{ Body: { times: number } }>(
    '/records/failures',
    {
      schema: {
        body: {
          type: 'object',
          required: ['times'],
          properties: { times: { type: 'integer', minimum: 0, maximum: 1000 } },
        },
      },
    },
    (request, reply) => {
      failures = request.body.times;
      return reply.status(204).send();
    },
  );

  app.get<{ Params: { film: string } }>('/films/:film', (request, reply) => {
    const title = FILMS[request.params.film];
    if (!title) return reply.status(404).send({ error: 'no such film' });
    return reply
      .type('text/html')
      .send(
        `<!doctype html><title>${title}</title><link rel="alternate" type="application/json+oembed" href="/oembed?url=${encodeURIComponent(`/films/${request.params.film}`)}&amp;format=json">${filmPicture(title)}`,
      );
  });
  /** What a page's frame plays. */
  app.get<{ Params: { film: string } }>('/films/:film/play', (request, reply) => {
    const title = FILMS[request.params.film];
    if (!title) return reply.status(404).send({ error: 'no such film' });
    return reply.type('text/html').send(`<!doctype html><title>${title}</title>${filmPicture(title)}`);
  });
  // oEmbed 1.0, section 2.3.4.2.
  app.get<{ Querystring: { url?: string } }>('/oembed', (request, reply) => {
    const film = /\/films\/([a-z]+)/.exec(request.query.url ?? '')?.[1] ?? '';
    const title = FILMS[film];
    if (!title) return reply.status(404).send({ error: 'no such film' });
    const origin = `http://${request.headers.host}`;
    return {
      version: '1.0',
      type: 'video',
      title,
      width: 640,
      height: 360,
      thumbnail_url: `${origin}/films/${film}/still.svg`,
      thumbnail_width: 640,
      thumbnail_height: 360,
      html: `<iframe src="${origin}/films/${film}/play" width="640" height="360"></iframe>`,
    };
  });
  app.get<{ Params: { film: string } }>('/films/:film/still.svg', (request, reply) =>
    reply.type('image/svg+xml').send(filmPicture(FILMS[request.params.film] ?? '')),
  );
  return app;
}
