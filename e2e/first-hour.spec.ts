import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { expectAccessible } from './lib/accessibility.ts';
import { expect, test, visit } from './lib/velarium.ts';
import { launch, newCampaign, say, stage } from './lib/workbench.ts';

/** A small site as its owner has it: a few pages, a sheet, no sitemap. Its tag is what was pasted into the template. */
const site = { server: undefined as Server | undefined, origin: '', tag: '' };

test.beforeAll(async () => {
  const nav = '<nav><a href="/">Home</a> <a href="/rooms">Rooms</a> <a href="/find-us">Find us</a></nav>';
  const titles: Record<string, string> = { '/': 'Moorland Hut', '/rooms': 'Rooms', '/find-us': 'Find us' };
  const sheet =
    ':root{--moss:#2f5d3a}body{margin:0;background:#f4efe4;color:#2a2118;font:17px Georgia,serif}a{color:var(--moss)}.btn{background:var(--moss);color:#fff;border-radius:20px}main{padding:2rem}';
  const server = createServer(({ url = '' }, response) => {
    if (url === '/hut.css') return response.writeHead(200, { 'content-type': 'text/css' }).end(sheet);
    const title = titles[url];
    response.writeHead(title ? 200 : 404, { 'content-type': 'text/html' });
    return response.end(
      `<!doctype html><html lang="en"><title>${title} – Moorland Hut</title><link rel="icon" href="data:,"><link rel="stylesheet" href="/hut.css">${site.tag}<body>${nav}<main><h1>${title}</h1><a class="btn" href="/rooms">See the rooms</a></main>`,
    );
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  Object.assign(site, {
    server,
    origin: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    tag: '',
  });
});
test.afterAll(() => void site.server?.close());

test('a new site’s first hour: added, heard, its pages, a Look of its own, a message, seen', async ({
  studioPage: page,
  visitor,
}) => {
  await page.keyboard.press('ControlOrMeta+k');
  await page.getByPlaceholder(/^What would you like to do/).fill('Add a site');
  await page.keyboard.press('Enter');
  const dialog = page.getByRole('dialog', { name: 'Add a site' });
  await dialog.getByLabel('Name').fill('Moorland Hut');
  const addresses = dialog.getByLabel(/address/i).first();
  await addresses.fill(`${site.origin}\nhttps://moorland.example:80800`);
  await expect(
    dialog.getByText('“https://moorland.example:80800”: no browser knows such an address'),
  ).toBeVisible();
  await expect(addresses).toHaveAttribute('aria-invalid', 'true');
  // As somebody may write it; it is kept as browsers name it.
  await addresses.fill(`${site.origin.toUpperCase()}/\n`);
  await expect(addresses).not.toHaveAttribute('aria-invalid');
  await dialog.getByRole('button', { name: 'Add the site' }).click();
  await expect(page.getByRole('heading', { name: 'Moorland Hut' })).toBeVisible();

  // The Board leads on, and ticks what is there.
  const steps = page.getByRole('region', { name: 'From here to the first showing' });
  const step = (name: string) => steps.getByRole('listitem').filter({ hasText: name });
  await page.getByRole('link', { name: 'Board' }).first().click();
  await expect(step('The tag on a page')).toHaveAttribute('aria-current', 'step');
  await expect(steps.getByText(': done')).toHaveCount(0);
  await expectAccessible(page);
  await steps.getByRole('link', { name: 'Get the line' }).click();

  // The line goes into the site's template, and the first page that is opened is heard.
  const snippet = page.getByText(/<script async src=/);
  site.tag = (await snippet.textContent()) ?? '';
  const first = await visit(visitor, `${site.origin}/`);
  await first.settle();
  await expect(page.getByText('Seen on 1 of 1 page, last just now.')).toBeVisible();

  await page.getByRole('tab', { name: 'Pages', exact: true }).click();
  await page.getByRole('button', { name: 'Read the pages' }).click();
  await expect(page.getByText(/3 pages found by the links of the home page/)).toBeVisible();
  await expect(page.getByRole('row', { name: /Rooms/ })).toBeVisible();
  await expectAccessible(page);

  await page.getByRole('link', { name: 'Board' }).first().click();
  await expect(step('The tag on a page')).toContainText(/✓.*Heard (just now|1 minute ago)/);
  await steps.getByRole('link', { name: 'Read it from a page' }).click();
  await expect(page.getByRole('tab', { name: 'Looks' })).toHaveAttribute('aria-selected', 'true');
  await expect(page.getByRole('list', { name: 'Looks' })).toContainText('the site’s own');
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByText(/Read from the page: ground, text colour, accent/)).toBeVisible();
  await expectAccessible(page);
  // Nothing is taken before it is said.
  await expect(page.getByRole('list', { name: 'Looks' })).not.toContainText('As on Moorland Hut');
  await page.getByRole('button', { name: 'Make it the site’s own Look' }).click();
  await expect(page.getByRole('list', { name: 'Looks' }).getByRole('listitem').last()).toContainText(
    'the site’s own',
  );

  await expect(page.getByRole('list', { name: 'Looks' }).getByRole('listitem').last()).toContainText(
    'As on Moorland Hut',
  );
  await page.getByRole('link', { name: 'Board' }).first().click();
  await expect(step('A Look of its own')).toContainText('“As on Moorland Hut” is this site’s own.');
  await expect(step('A first message')).toHaveAttribute('aria-current', 'step');
  await newCampaign(page, 'Autumn rooms', /Corner invitation/);
  const green = ['background-color', 'rgb(244, 239, 228)'] as const;
  await expect(stage(page, 'desktop').locator('.card')).toHaveCSS(...green);
  await say(page, 'after 2 seconds on rooms, on every device, once per session');
  await launch(page);
  await expect(step('Seen live')).toContainText('It is published; nobody has met it yet.');
  await first.go(`${site.origin}/rooms`);
  await first.pass(2.5);
  await expect(first.message.locator('.card')).toHaveCSS(...green);
  expect(first.problems).toEqual([]);
  // With the first showing it has led as far as it can.
  await first.settle();
  await expect(steps).toHaveCount(0);
});
