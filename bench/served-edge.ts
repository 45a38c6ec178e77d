import { readFileSync } from 'node:fs';
import type { Frame, Page } from '@playwright/test';
import type { Manifest, MessageFile } from '@velarium/contract';

interface Served {
  readonly edge: string;
  /** Of the site. */
  readonly key: string;
  readonly manifest: Manifest;
  readonly file: MessageFile;
}

const headers = { 'access-control-allow-origin': '*' };

/** Answers as the edge would, from memory, so that nothing but the page's own work is measured. */
export async function serveEdge(
  page: Page,
  { edge, key, manifest, file }: Served,
  answered: (what: { path: string; body: Buffer; frame: Frame }) => void = () => {},
): Promise<void> {
  await page.route(`${edge}/**`, async (route) => {
    const request = route.request();
    const path = new URL(request.url()).pathname;
    const frame = request.frame();
    const answer = (contentType: string, text: string | Buffer) => {
      const body = Buffer.from(text);
      answered({ path, body, frame });
      return route.fulfill({ headers, contentType, body });
    };
    if (path.endsWith('manifest.json')) return answer('application/json', JSON.stringify(manifest));
    if (path.includes('/messages/')) return answer('application/json', JSON.stringify(file));
    if (path === '/collect') {
      answered({ path, body: Buffer.alloc(0), frame });
      return route.fulfill({ status: 204, headers });
    }
    const name = path === `/tag/${key}.js` ? 'tag.js' : path.slice('/tag/'.length);
    return answer('text/javascript', readFileSync(new URL(`../packages/tag/dist/${name}`, import.meta.url)));
  });
}
