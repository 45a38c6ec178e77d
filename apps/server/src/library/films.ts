import { type FilmFacts, filmFactsSchema, frameAddressSchema } from '@velarium/contract';
import { cleanFilmAddress, filmStart, withFilmStart } from '@velarium/core';
import { DomUtils } from 'htmlparser2';
import { z } from 'zod';
import { parseHtml } from '../infra/html.ts';
import { OutsideError } from '../infra/network.ts';
import type { ReadOutside } from '../infra/outside.ts';
import { ProblemError } from '../infra/problem.ts';
import type { PictureStore } from './pictures.ts';

const TIMEOUT_MS = 8000;
const PAGE_BYTES = 1_000_000;
const ANSWER_BYTES = 100_000;
const STILL_BYTES = 12 * 1024 * 1024;

/** What a host says of a film. Source: oEmbed 1.0, sections 2.3.4 and 2.3.4.2; sizes may come as texts. */
const answerSchema = z.object({
  type: z.string(),
  title: z.string().trim().max(1000).optional(),
  html: z.string().max(20_000).optional(),
  width: z.coerce.number().positive().optional().catch(undefined),
  height: z.coerce.number().positive().optional().catch(undefined),
  thumbnail_url: z.string().optional(),
});

/** The address of the answer that a page offers. Source: oEmbed 1.0, section 4, discovery. */
function offeredBy(html: string, page: string): string | undefined {
  const link = DomUtils.findOne(
    ({ name, attribs }) =>
      name === 'link' &&
      attribs.type?.toLowerCase() === 'application/json+oembed' &&
      /\balternate\b/i.test(attribs.rel ?? ''),
    parseHtml(html).children,
  );
  const href = link?.attribs.href;
  return href !== undefined && URL.canParse(href, page) ? new URL(href, page).href : undefined;
}

/** Where the frame that the host would have put into a page leads. */
function frameIn(html: string | undefined, page: string): string | undefined {
  const [frame] = DomUtils.getElementsByTagName('iframe', parseHtml(html ?? '').children);
  const src = frame?.attribs.src;
  return src !== undefined && URL.canParse(src, page) ? new URL(src, page).href : undefined;
}

const untold = (detail: string) =>
  new ProblemError(422, 'no-film', 'The video host told nothing of this film', detail, [
    { path: 'address', message: 'nothing was told of it' },
  ]);

/** Asks the host of a film what it is called, what it looks like, and where its frame is. */
export function createFilms(outside: ReadOutside, pictures: PictureStore) {
  /** The film's still in the site's own library, so that no page asks the host for it. */
  async function still(siteId: string, address: string | undefined, name: string): Promise<string | null> {
    if (address === undefined || !/^https?:/.test(address)) return null;
    try {
      const { status, bytes } = await outside(address, {
        mostBytes: STILL_BYTES,
        timeoutMs: TIMEOUT_MS,
        isLed: true,
      });
      return status === 200 ? (await pictures.add(siteId, name.slice(0, 120), bytes)).id : null;
    } catch (error) {
      // A film without a still is one all the same.
      if (error instanceof OutsideError || error instanceof ProblemError) return null;
      throw error;
    }
  }

  return {
    /** @throws {ProblemError} In words, when the host tells nothing that can be used. */
    async ask(siteId: string, pasted: string): Promise<FilmFacts> {
      const page = cleanFilmAddress(pasted);
      if (page === undefined) throw untold('This is no address of a page.');
      try {
        const at = await outside(page, {
          mostBytes: PAGE_BYTES,
          timeoutMs: TIMEOUT_MS,
          isCut: true,
          // Short addresses of films lead to those of their hosts.
          isLed: true,
          accept: 'text/html',
        });
        if (at.status !== 200) throw untold(`Its page answered with status ${at.status}.`);
        const offer = offeredBy(at.bytes.toString('utf8'), at.address);
        if (offer === undefined) throw untold('Its page offers no description by the oEmbed standard.');
        const answer = await outside(offer, {
          mostBytes: ANSWER_BYTES,
          timeoutMs: TIMEOUT_MS,
          isLed: true,
          accept: 'application/json',
        });
        if (answer.status !== 200) throw untold(`Its description answered with status ${answer.status}.`);
        const said = answerSchema.safeParse(jsonOf(answer.bytes));
        if (!said.success || said.data.type !== 'video') throw untold('What its host describes is no film.');
        const { title = '', html, width, height, thumbnail_url } = said.data;
        const frame = frameAddressSchema.safeParse(frameIn(html, offer)).data;
        return filmFactsSchema.parse({
          address: frame === undefined ? page : withFilmStart(frame, filmStart(page)),
          title: title.slice(0, 200),
          picture: await still(siteId, thumbnail_url, title || 'Still of a film'),
          ratio: width && height ? Math.min(300, Math.max(40, Math.round((100 * width) / height))) : null,
        });
      } catch (error) {
        if (error instanceof OutsideError) throw untold(`${error.message}.`);
        throw error;
      }
    },
  };
}

function jsonOf(bytes: Buffer): unknown {
  try {
    return JSON.parse(bytes.toString('utf8'));
  } catch {
    return undefined;
  }
}
