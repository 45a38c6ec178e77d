import { createServer, type RequestListener, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pipeline, Readable } from 'node:stream';
import { gzipSync } from 'node:zlib';
import type { PageReading, Site, SitePage, StayHistograms } from '@velarium/contract';
import { STAY_DEPTHS, STAY_SECONDS, survivalCurve } from '@velarium/core';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import {
  addColleague,
  createTestServer,
  createWorkspace,
  eventId,
  type Member,
  randomVisitor,
  sendEvents,
  type TestServer,
} from './server.ts';

let server: TestServer;
let owner: Member;
beforeAll(async () => {
  server = await createTestServer();
  await server.services.jobs.work('read-pages', server.services.sites.readPages);
});
beforeEach(async () => {
  owner = await createWorkspace(server);
});
afterAll(() => server.close());

const pagesOf = async (): Promise<SitePage[]> =>
  (await owner.ask('GET', `/sites/${owner.siteId}/pages`)).json();

describe('a site', () => {
  const body = { name: 'Skerry Line', origins: ['https://skerryline.example'], timeZone: 'Europe/London' };
  it('is added by an owner, with a tag that serves an empty manifest at once', async () => {
    const made = await owner.ask('POST', '/sites', body);
    expect(made.statusCode).toBe(201);
    const site = made.json<Site>();
    expect((await server.manifestOf(site.key)).campaigns).toEqual([]);
    const changed = await owner.ask('PUT', `/sites/${site.id}`, { ...body, timeZone: 'Asia/Tokyo' });
    expect(changed.json()).toMatchObject({ timeZone: 'Asia/Tokyo' });
    expect((await server.manifestOf(site.key)).timeZone).toBe('Asia/Tokyo');
  });
  it.each([
    ['a path in its address', { origins: ['https://skerryline.example/fares'] }],
    ['no address', { origins: [] }],
    ['a made-up time zone', { timeZone: 'Europe/Skerry' }],
    ['no name', { name: ' ' }],
  ])('with %s is refused in words', async (_what, change) => {
    expect((await owner.ask('POST', '/sites', { ...body, ...change })).json()).toMatchObject({ status: 422 });
  });
  it('is not an editor’s to add or change', async () => {
    const editor = await addColleague(server, owner, 'editor');
    expect((await editor.ask('POST', '/sites', body)).statusCode).toBe(403);
    expect((await editor.ask('PUT', `/sites/${owner.siteId}`, body)).statusCode).toBe(403);
  });
});

describe('the page catalogue', () => {
  let web: Server;
  /** A little site on loopback, and this workspace's site moved there. */
  const live = async (answer: (path: string, origin: string) => string | Buffer | undefined) => {
    let origin = '';
    const listener: RequestListener = (request, response) => {
      const found = answer(request.url ?? '', origin);
      const type = String(found).startsWith('<!doctype html>') ? 'text/html' : 'text/plain';
      response.writeHead(found === undefined ? 404 : 200, { 'content-type': type }).end(found);
    };
    web = createServer(listener).listen(0, '127.0.0.1');
    await new Promise((resolve) => web.once('listening', resolve));
    origin = `http://127.0.0.1:${(web.address() as AddressInfo).port}`;
    await owner.ask('PUT', `/sites/${owner.siteId}`, { name: 'Site', origins: [origin], timeZone: 'UTC' });
  };
  afterEach(() => void web?.close());
  const urlset = (...addresses: string[]) =>
    `<?xml version="1.0" encoding="UTF-8"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${addresses
      .map((loc) => `<url><loc>${loc}</loc></url>`)
      .join('')}</urlset>`;
  const siteOrigin = async () =>
    (await owner.ask('GET', `/sites/${owner.siteId}`)).json<Site>().origins[0] ?? '';
  /** Has the worker read the pages, and waits for its end. */
  const learn = async (sitemap: string | null = null): Promise<PageReading> => {
    await owner.ask('POST', `/sites/${owner.siteId}/pages/reading`, { sitemap });
    return endOf(['done', 'stopped', 'failed']);
  };
  const endOf = async (states: readonly string[]): Promise<PageReading> => {
    let reading: PageReading | undefined;
    await expect
      .poll(
        async () => {
          reading = (await owner.ask('GET', `/sites/${owner.siteId}/pages/reading`)).json<PageReading>();
          return states.includes(reading.state);
        },
        { timeout: 10_000 },
      )
      .toBe(true);
    return reading as PageReading;
  };

  it('is read from an index of sitemaps, one of them gzip (sitemaps.org 0.9, RFC 1952)', async () => {
    await live((path, origin) => {
      if (path === '/sitemap.xml')
        return `<sitemapindex xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"><sitemap><loc>${origin}/a.xml</loc></sitemap><sitemap><loc>${origin}/b.xml.gz</loc></sitemap><sitemap><loc>https://elsewhere.example/c.xml</loc></sitemap></sitemapindex>`;
      if (path === '/a.xml') return urlset(`${origin}/a?x=1&amp;y=2`, 'https://elsewhere.example/not-ours');
      if (path === '/b.xml.gz') return gzipSync(urlset(`${origin}/b`));
      if (path.startsWith('/a?')) return '<title>A</title>';
      if (path === '/b')
        return '<title>Bee &amp; me · Site</title><meta property="og:type" content="article">';
      return undefined;
    });
    expect(await learn()).toMatchObject({ state: 'done', found: 2, read: 2, unread: 0 });
    expect(await pagesOf()).toEqual([
      { path: '/a?x=1&y=2', title: 'A', kind: null, source: 'sitemap', views: 0 },
      { path: '/b', title: 'Bee & me · Site', kind: 'article', source: 'sitemap', views: 0 },
    ]);
  });
  it('is found by robots.txt, wherever the sitemap stands (sitemaps.org 0.9), with titles of the pages’ own', async () => {
    await live((path, origin) => {
      if (path === '/robots.txt') return `User-agent: *\nDisallow:\nSITEMAP : ${origin}/maps/all.xml\n`;
      if (path === '/maps/all.xml') return urlset(`${origin}/a`, `${origin}/b`);
      return `<title>Page ${path.slice(1)} | Site</title>`;
    });
    expect(await learn()).toMatchObject({
      state: 'done',
      found: 2,
      source: 'the sitemaps that robots.txt names',
    });
    expect(await pagesOf()).toMatchObject([{ title: 'Page a' }, { title: 'Page b' }]);
  });
  it('is read from the address that is given, and from no address that is none', async () => {
    await live((path, origin) => (path === '/special.xml' ? urlset(`${origin}/only`) : undefined));
    expect(await learn(`${await siteOrigin()}/special.xml`)).toMatchObject({
      state: 'done',
      found: 1,
      source: expect.stringContaining('/special.xml'),
    });
    const wrong = await owner.ask('POST', `/sites/${owner.siteId}/pages/reading`, { sitemap: 'file:///etc' });
    expect(wrong.statusCode).toBe(422);
  });
  it('is what links lead to where there is no sitemap, two steps from the home page and on the site’s own host', async () => {
    await live((path) => {
      const html = (words: string) => `<!doctype html><title>${path}</title>${words}`;
      if (path === '/')
        return html(
          '<a href="/rooms">R</a><a href="https://elsewhere.example/">E</a><a href="/plan.pdf">P</a>',
        );
      if (path === '/rooms') return html('<a href="rooms/attic">A</a><a href="#top">T</a>');
      return path === '/rooms/attic' ? html('<a href="/deeper">D</a>') : undefined;
    });
    expect(await learn()).toMatchObject({
      state: 'done',
      source: expect.stringContaining('links of the home page'),
    });
    expect((await pagesOf()).map(({ path }) => path)).toEqual(['/', '/rooms', '/rooms/attic']);
  });
  it('that cannot be read says so and keeps what is known', async () => {
    await live(() => undefined);
    const pages = [{ path: '/kept', title: 'Kept', kind: null }];
    await owner.ask('POST', `/sites/${owner.siteId}/pages`, { source: 'hand', pages });
    expect(await learn()).toMatchObject({
      state: 'failed',
      fault: expect.stringMatching(/sitemap\.xml answered with status 404/),
    });
    expect(await pagesOf()).toMatchObject([{ path: '/kept', source: 'hand' }]);
  });
  it('leaves out what answers that it is not there, and takes two addresses of one page for one', async () => {
    await live((path, origin) => {
      if (path === '/sitemap.xml')
        return urlset(`${origin}/members/`, `${origin}/members`, `${origin}/gone`, `${origin}/?utm_source=x`);
      return path === '/gone' ? undefined : '<title>T</title>';
    });
    await learn();
    expect((await pagesOf()).map(({ path }) => path)).toEqual(['/', '/members']);
    const by = { source: 'hand', pages: [{ path: '/members/', title: 'M', kind: null }] };
    await owner.ask('POST', `/sites/${owner.siteId}/pages`, by);
    const [origin = ''] = (await owner.ask('GET', `/sites/${owner.siteId}`)).json<Site>().origins;
    await sendEvents(
      server,
      owner,
      ['/members/', '/members'].map((page) => ({ kind: 'pageview', page })),
      {
        headers: { origin },
      },
    );
    expect(await pagesOf()).toMatchObject([{ path: '/' }, { path: '/members', views: 2 }]);
  });
  it('is never read past its limit: a sitemap and a page without end cost no memory', async () => {
    let sent = 0;
    const endless: RequestListener = (request, response) => {
      const isMap = request.url === '/sitemap.xml';
      const isEndless = isMap ? stream === 'sitemap' : stream === 'page';
      response.writeHead(200);
      if (isMap && !isEndless) return void response.end(urlset(`${origin}/endless`));
      if (!isEndless) return void response.end();
      const chunk = Buffer.alloc(65_536, 'x');
      const chunks = function* () {
        for (;;) {
          sent += chunk.length;
          yield chunk;
        }
      };
      pipeline(Readable.from(chunks()), response, () => {});
    };
    let stream = 'sitemap';
    web = createServer(endless).listen(0, '127.0.0.1');
    await new Promise((resolve) => web.once('listening', resolve));
    const origin = `http://127.0.0.1:${(web.address() as AddressInfo).port}`;
    await owner.ask('PUT', `/sites/${owner.siteId}`, { name: 'Site', origins: [origin], timeZone: 'UTC' });
    expect(await learn()).toMatchObject({
      state: 'failed',
      fault: expect.stringMatching(/larger than 20 MB/),
    });
    expect(sent).toBeLessThan(60_000_000);
    stream = 'page';
    sent = 0;
    expect(await learn()).toMatchObject({ state: 'done', found: 1, unread: 0 });
    expect(sent).toBeLessThan(10_000_000);
  }, 40_000);
  it('is stopped while it is read, and stays as it was', async () => {
    let release = () => {};
    const held = new Promise<void>((resolve) => {
      release = resolve;
    });
    web = createServer(async (request, response) => {
      if (request.url !== '/sitemap.xml') await held;
      response.end(request.url === '/sitemap.xml' ? urlset(`${origin}/slow`) : '<title>S</title>');
    }).listen(0, '127.0.0.1');
    await new Promise((resolve) => web.once('listening', resolve));
    const origin = `http://127.0.0.1:${(web.address() as AddressInfo).port}`;
    await owner.ask('PUT', `/sites/${owner.siteId}`, { name: 'Site', origins: [origin], timeZone: 'UTC' });
    await owner.ask('POST', `/sites/${owner.siteId}/pages/reading`, { sitemap: null });
    await endOf(['running']);
    await owner.ask('DELETE', `/sites/${owner.siteId}/pages/reading`);
    expect(await endOf(['stopped'])).toMatchObject({ state: 'stopped' });
    release();
    expect(await pagesOf()).toEqual([]);
  });
  it('read again forgets what has left the sitemap, and nothing else', async () => {
    let inMap = ['/a', '/b'];
    await live((path, origin) =>
      path === '/sitemap.xml' ? urlset(...inMap.map((one) => origin + one)) : '<title>T</title>',
    );
    await learn();
    const pages = [{ path: '/by-hand', title: '', kind: 'index' }];
    await owner.ask('POST', `/sites/${owner.siteId}/pages`, { source: 'hand', pages });
    inMap = ['/b'];
    await learn();
    expect((await pagesOf()).map(({ path }) => path)).toEqual(['/b', '/by-hand']);
    await owner.ask('DELETE', `/sites/${owner.siteId}/pages?path=${encodeURIComponent('/by-hand')}`);
    expect((await pagesOf()).map(({ path }) => path)).toEqual(['/b']);
  });
});

describe('what visits tell', () => {
  const visitor = randomVisitor();
  const session = eventId();
  const send = (...events: object[]) => sendEvents(server, owner, events, { visitor, session });
  const stays = async (question: object = {}): Promise<StayHistograms> =>
    (
      await owner.ask('POST', `/sites/${owner.siteId}/stays`, { paths: null, device: null, ...question })
    ).json();
  const total = (counts: readonly number[]) => counts.reduce((sum, count) => sum + count, 0);

  it('fills the catalogue with pages nobody listed, and counts their views once', async () => {
    const view = { id: eventId(), kind: 'pageview' };
    await send(view, { kind: 'pageview', page: '/tours?date=1' }, { kind: 'pageview', page: '/' });
    await send(view);
    expect(await pagesOf()).toEqual([
      { path: '/', title: '/', kind: null, source: 'visits', views: 1 },
      { path: '/tours', title: '/tours', kind: null, source: 'visits', views: 2 },
    ]);
    const heard = async () => (await owner.ask('GET', `/sites/${owner.siteId}`)).json<Site>().lastSeenAt;
    await expect.poll(heard).not.toBeNull();
  });
  it('gives the curves, and a visitor who came back counts once, by the last word', async () => {
    const view = eventId();
    await send(
      { kind: 'left', stay: [12, 40], view },
      { kind: 'left', stay: [3, 100], view: eventId(), page: '/journal', device: 'mobile' },
      { kind: 'left', stay: [999_999, 250], view: eventId() },
    );
    await send({ kind: 'left', stay: [40, 60], view });
    const all = await stays();
    expect(total(all.seconds)).toBe(3);
    expect(all.seconds[STAY_SECONDS.indexOf(40)]).toBe(1);
    expect(all.seconds[STAY_SECONDS.indexOf(12)]).toBe(0);
    expect(all.seconds[STAY_SECONDS.indexOf(3600)]).toBe(1);
    expect(all.depth[STAY_DEPTHS.indexOf(100)]).toBe(2);
    const curve = survivalCurve(all.seconds, STAY_SECONDS);
    expect(curve.find(({ at }) => at === 10)?.share).toBeCloseTo(2 / 3, 12);
    expect(total((await stays({ device: 'mobile' })).seconds)).toBe(1);
    expect(total((await stays({ paths: ['/journal'] })).depth)).toBe(1);
    expect(total((await stays({ paths: [] })).depth)).toBe(0);
  });
  it('no forged word of one page view takes anything from the others', async () => {
    const view = eventId();
    await send({ kind: 'left', stay: [0, 0], view: eventId() }, { kind: 'left', stay: [0, 0], view });
    const forged = Array.from({ length: 20 }, (_, n) => ({
      kind: 'left',
      stay: [10 + n, 10 + n],
      view,
      page: `/tours/${n}`,
    }));
    for (const one of forged) await send(one);
    const rows = await server.db.query('SELECT min(visits) AS least FROM stay_day WHERE site_id = $1', [
      owner.siteId,
    ]);
    expect(Number(rows[0].least)).toBe(0);
    const { seconds } = await stays();
    expect([seconds[0], total(seconds)]).toEqual([1, 2]);
  });
  it('gives the page views of each of the last days, today left out', async () => {
    const yesterday = Date.now() - 86_400_000;
    await send({ kind: 'pageview' }, { id: eventId(yesterday), kind: 'pageview' });
    const days = (await owner.ask('GET', `/sites/${owner.siteId}/days`)).json<number[]>();
    expect(days).toHaveLength(14);
    expect([days.at(-1), total(days)]).toEqual([1, 1]);
  });
  it('sent twice counts once', async () => {
    const left = { id: eventId(), kind: 'left', stay: [5, 50], view: eventId() };
    await send(left);
    await send(left);
    expect(total((await stays()).seconds)).toBe(1);
  });
});

it('says where countries are known from, and that of any address', async () => {
  const ask = async (query: string) => (await owner.ask('GET', `/countries${query}`)).json();
  expect(await ask('')).toEqual({ networks: 1, header: 'x-country', country: null });
  expect(await ask('?address=192.0.2.1')).toMatchObject({ country: 'gb' });
  expect(await ask('?address=nowhere')).toMatchObject({ country: null });
});

describe('pages of one path', () => {
  it('are told apart by the parameters the site names, which visits propose', async () => {
    const [origin = ''] = (await owner.ask('GET', `/sites/${owner.siteId}`)).json<Site>().origins;
    const view = (page: string) => ({ kind: 'pageview' as const, page });
    const visit = (...pages: string[]) => sendEvents(server, owner, pages.map(view), { headers: { origin } });
    const listed = [{ path: '/tour?date=4', title: 'Tour on the 4th', kind: null }];
    await owner.ask('POST', `/sites/${owner.siteId}/pages`, { source: 'hand', pages: listed });
    await visit('/tour?date=4&utm_source=x', '/tour?date=5', '/tour/?date=5&from=a', '/tour');
    expect(await pagesOf()).toMatchObject([{ path: '/tour?date=4', views: 4 }]);
    const seen = await owner.ask('GET', `/sites/${owner.siteId}/parameters`);
    expect(seen.json()).toEqual([
      { name: 'date', views: 3, values: 2 },
      { name: 'from', views: 1, values: 1 },
    ]);
    const { settings } = (await owner.ask('GET', `/sites/${owner.siteId}`)).json<Site>();
    const saved = await owner.ask('PUT', `/sites/${owner.siteId}/settings`, {
      ...settings,
      pageParameters: ['date'],
    });
    expect(saved.statusCode).toBe(200);
    // The edge has heard of it.
    await server.manifestOf(owner.siteKey);
    await visit('/tour?date=4&from=b', '/tour/?utm_source=y&date=5', '/tour?date=5');
    expect(await pagesOf()).toMatchObject([
      // What was counted before stays where it was counted.
      { path: '/tour', views: 4, source: 'visits' },
      { path: '/tour?date=4', title: 'Tour on the 4th', views: 1 },
      { path: '/tour?date=5', views: 2, source: 'visits' },
    ]);
  });
});
