import { createHash } from 'node:crypto';
import type { LookStyle } from '@velarium/contract';
import { fontStack, type MailWords, mailWords, ofSite, writingDirection } from '@velarium/core';
import type { FastifyPluginAsync, FastifyReply } from 'fastify';
import type { LinkOutcome } from './due.ts';
import { escapeMarkup } from './mail/draw-mail.ts';
import type { DeliveryService } from './service.ts';

type Deed = 'confirm' | 'leave';

/** What a page says before its button was pressed. Mail scanners follow links; only pressing it does anything. */
const ASKS = { confirm: 'askConfirm', leave: 'askLeave' } as const;
const SAYS: Readonly<Record<Deed, Readonly<Record<LinkOutcome, PageName>>>> = {
  confirm: { done: 'confirmed', already: 'confirmedBefore', ended: 'ended', gone: 'nothing' },
  leave: { done: 'left', already: 'leftBefore', ended: 'nothing', gone: 'nothing' },
};
type PageName = Exclude<keyof MailWords, 'confirm' | 'leave' | 'asked' | 'answered'>;
type SiteOfLink = Awaited<ReturnType<DeliveryService['siteOfLink']>>;

/** The pages that links in mails open, in the Look of the site they are of. */
export const linkPages: FastifyPluginAsync<{ readonly deliveries: () => DeliveryService }> = async (
  app,
  { deliveries },
) => {
  // Forms and mail programs (RFC 8058) post in these ways; what they say beside the address is not asked for.
  app.addContentTypeParser(
    ['application/x-www-form-urlencoded', 'multipart/form-data'],
    { parseAs: 'buffer', bodyLimit: 4096 },
    (_request, _body, done) => done(null, undefined),
  );
  for (const deed of ['confirm', 'leave'] as const) {
    const address = `/${deed}/:token`;
    app.get<{ Params: { token: string } }>(address, async (request, reply) => {
      const site = await deliveries().siteOfLink(request.params.token);
      return page(reply, site, site ? ASKS[deed] : 'nothing', site ? 200 : 404, site ? deed : undefined);
    });
    app.post<{ Params: { token: string } }>(address, async (request, reply) => {
      const site = await deliveries().siteOfLink(request.params.token);
      const outcome = site ? await deliveries()[deed](request.params.token) : 'gone';
      return page(reply, site, SAYS[deed][outcome], outcome === 'gone' ? 404 : 200);
    });
  }
};

function page(
  reply: FastifyReply,
  site: SiteOfLink,
  says: PageName,
  status: number,
  /** What its button does. */
  deed?: Deed,
): FastifyReply {
  const { words, language } = mailWords(site?.language ?? null);
  const [title, text] = words[says];
  const say = (one: string) => escapeMarkup(ofSite(one, site?.name ?? ''));
  const style = site
    ? sheetOf(site.look)
    : 'body{font:16px system-ui;margin:20vh auto;max-width:30rem;padding:0 1rem}';
  const hash = createHash('sha256').update(style).digest('base64');
  const name = site ? `<p class="site">${escapeMarkup(site.name)}</p>` : '';
  const form = deed ? `<form method="post"><button>${escapeMarkup(words[deed])}</button></form>` : '';
  return reply
    .status(status)
    .headers({
      'content-type': 'text/html; charset=utf-8',
      'content-security-policy': `default-src 'none'; style-src 'sha256-${hash}'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'`,
      'cache-control': 'no-store',
      // The address itself lets one act: it is nobody else's to know.
      'referrer-policy': 'no-referrer',
      'x-robots-tag': 'noindex',
    })
    .send(
      `<!doctype html><html lang="${language}" dir="${writingDirection(language)}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>${say(title)}</title><style>${style}</style></head><body><main>${name}<h1>${say(title)}</h1><p>${say(text)}</p>${form}</main></body></html>`,
    );
}

const sheetOf = ({ palette, fonts, textSize, corners }: LookStyle): string =>
  [
    `body{margin:0;min-height:100vh;display:grid;place-items:center;background:${palette.field};color:${palette.fieldText};font:${textSize}px/1.55 ${fontStack(fonts.text)}}`,
    `main{box-sizing:border-box;width:min(92vw,30rem);padding:2rem;background:${palette.surface};color:${palette.ink};border-radius:${corners.box}px}`,
    `h1{margin:.2em 0;font:600 1.6em/1.25 ${fontStack(fonts.heading)}}`,
    `.site{margin:0;color:${palette.soft}}`,
    `button{margin-top:.6em;padding:.7em 1.3em;border:0;border-radius:${corners.control}px;background:${palette.accent};color:${palette.accentText};font:inherit;cursor:pointer}`,
    `button:focus-visible{outline:3px solid ${palette.ink};outline-offset:2px}`,
  ].join('');
