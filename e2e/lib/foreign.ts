import { readdirSync, readFileSync } from 'node:fs';
import type { BrowserContext } from '@playwright/test';
import { type SitePage, type Velarium, visit } from './velarium.ts';

const FOLDER = new URL('../pages/', import.meta.url);

/** Pages that do what frameworks, themes and applications do; each says at its script which of their habits it has. */
export const FOREIGN = readdirSync(FOLDER)
  .filter((name) => name.endsWith('.html'))
  .map((name) => name.replace('.html', ''));

const served = new WeakSet<BrowserContext>();

/** Opens one of them as a page of the demo's site, with the snippet in it, as its owner would have put it there. */
export async function visitForeign(
  context: BrowserContext,
  velarium: Velarium,
  name: string,
): Promise<SitePage> {
  await serveForeign(context, velarium);
  return visit(context, `${velarium.fell}/pages/${name}`);
}

export async function serveForeign(context: BrowserContext, { fell, edge }: Velarium): Promise<void> {
  if (served.has(context)) return;
  served.add(context);
  // A page that was not fetched has no address, and one without may not reach this machine's own.
  await context.grantPermissions(['local-network-access']);
  const snippet = `<script async src="${edge}/tag/quillonfell2.js"></script>`;
  await context.route(`${fell}/pages/*`, (route) => {
    const name = new URL(route.request().url()).pathname.split('/').at(-1);
    const html = readFileSync(new URL(`${name}.html`, FOLDER), 'utf8');
    return route.fulfill({ contentType: 'text/html', body: html.replace('<body', `${snippet}<body`) });
  });
}
