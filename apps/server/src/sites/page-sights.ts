import type { SeenPage } from '@velarium/contract';
import type { DataSource } from 'typeorm';

/** How long a page is shown as it was seen, and how many of a site are kept. */
const KEPT_DAYS = 30;
const KEPT_PAGES = 60;

/** A link to an address behind a `#`, as routed applications write it. */
const ROUTE = /\shref="(#!?\/[^"]*)"/g;

export interface Sight {
  /** Where it was seen: what its own addresses are relative to. */
  readonly address: string;
  readonly html: string;
}

/** Pages as they looked in the browser of somebody the studio sent there. */
export function createPageSights(db: DataSource) {
  return {
    /** Keeps what a page looks like, in place of what it looked like before. */
    async keep(siteId: string, path: string, { address, html }: Sight): Promise<void> {
      const routes = new Set([...html.matchAll(ROUTE)].map(([, to]) => to)).size;
      await db.query(
        `INSERT INTO page_sight (site_id, path, address, html, routes) VALUES ($1, $2, $3, $4, $5)
         ON CONFLICT (site_id, path) DO UPDATE SET address = $3, html = $4, routes = $5, at = now()`,
        [siteId, path, address, html, routes],
      );
      await db.query(
        `DELETE FROM page_sight WHERE site_id = $1
           AND (at < now() - make_interval(days => $2)
             OR path IN (SELECT path FROM page_sight WHERE site_id = $1 ORDER BY at DESC OFFSET $3))`,
        [siteId, KEPT_DAYS, KEPT_PAGES],
      );
    },
    async list(siteId: string): Promise<SeenPage[]> {
      const rows: (Omit<SeenPage, 'at'> & { at: Date })[] = await db.query(
        `SELECT path, at, routes FROM page_sight
          WHERE site_id = $1 AND at > now() - make_interval(days => $2) ORDER BY at DESC`,
        [siteId, KEPT_DAYS],
      );
      return rows.map(({ at, ...page }) => ({ ...page, at: at.toISOString() }));
    },
    async find(siteId: string, path: string): Promise<Sight | undefined> {
      const [row]: Sight[] = await db.query(
        'SELECT address, html FROM page_sight WHERE site_id = $1 AND path = $2',
        [siteId, path],
      );
      return row;
    },
  };
}

/** What a sight may load and do, wherever it is opened: it looks like the page, and nothing of it runs. */
export const SIGHT_POLICY = [
  'sandbox',
  "default-src 'none'",
  'img-src http: https: data:',
  'media-src http: https:',
  "style-src http: https: data: 'unsafe-inline'",
  'font-src http: https: data:',
  "form-action 'none'",
  "frame-ancestors 'self'",
].join('; ');

/** The document of a sight. A base before everything is the document's first, and no other counts (HTML, 4.2.3). */
export const sightDocument = ({ address, html }: Sight): string =>
  `<!doctype html><base href="${address.replace(/&/g, '&amp;').replace(/"/g, '&quot;')}">${html}`;
