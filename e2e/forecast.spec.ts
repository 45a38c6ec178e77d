import { gzipSync } from 'node:zlib';
import { type Manifest, type Traffic, trafficSchema } from '@velarium/contract';
import { createForecast, USUAL_ASSUMPTIONS } from '@velarium/core';
import { expectAccessible } from './lib/accessibility.ts';
import { addSite, publish, restAll } from './lib/api.ts';
import { expect, newVisitor, test, visit } from './lib/velarium.ts';
import { beginCampaign, launch, openCampaign, saved, say } from './lib/workbench.ts';

test('a replay of real visits comes to what the tag did on them, to the showing', async ({
  velarium,
  studioPage: page,
  browser,
}) => {
  await restAll(velarium);
  await publish(velarium, {
    triggers: [{ kind: 'time', seconds: 20 }],
    reach: { pages: { include: [{ kind: 'exact', address: '/about' }], exclude: [], follows: null } },
    limits: { caps: [{ max: 1, per: 'session' }] },
  });
  await publish(velarium, {
    triggers: [{ kind: 'time', seconds: 10 }],
    reach: { pages: { include: [{ kind: 'exact', address: '/contact' }], exclude: [], follows: null } },
    limits: { caps: [{ max: 1, per: 'ever' }] },
  });
  const manifest: Manifest = await (await fetch(`${velarium.edge}/tag/quillonfell2/manifest.json`)).json();
  const beganMs = Date.now();
  // Seconds far from those that open anything, since a page takes a moment to begin; and what is open when each ends.
  for (const stays of [
    [
      ['/about', 3, 0],
      ['/contact', 30, 1],
    ],
    [
      ['/about', 40, 1],
      ['/about', 40, 0],
    ],
    [
      ['/contact', 1, 0],
      ['/contact', 30, 1],
      ['/contact', 30, 0],
    ],
    [['/membership', 9, 0]],
  ] as const) {
    const context = await newVisitor(browser);
    const site = await visit(context, velarium.fell + stays[0][0]);
    for (const [n, [path, seconds, open]] of stays.entries()) {
      if (n > 0) await site.go(velarium.fell + path);
      await site.pass(seconds);
      await site.shows(open);
    }
    // The end of the last page is told of as it goes.
    await site.go(`${velarium.fell}/shop/checkout`);
    await site.settle();
    await context.close();
  }
  const siteId = page.url().match(/sites\/([^/]+)/)?.[1];
  const answer = await page.request.get(`${velarium.studio}/api/sites/${siteId}/traffic?days=1`);
  const traffic = trafficSchema.parse(await answer.json());
  const list = traffic.list.filter(({ pages }) => pages.every(({ atMs }) => atMs >= beganMs));
  expect(list).toHaveLength(4);
  const ours: Traffic = { ...traffic, visitors: list.length, list };
  const forecast = createForecast(
    manifest,
    ours,
    // Nobody closed anything: a message stays until its page goes.
    { ...USUAL_ASSUMPTIONS, leavesByMouse: 0, closesAfterSeconds: 600 },
    velarium.fell,
  );
  while (forecast.play(10));
  const shown: { id: string; showings: number }[] = await velarium.query(
    `SELECT campaign_id AS id, count(*)::integer AS showings FROM event
      WHERE kind = 'shown' AND at >= to_timestamp($1 / 1000.0) GROUP BY 1`,
    [beganMs],
  );
  expect(shown.reduce((sum, { showings }) => sum + showings, 0)).toBe(3);
  const really = new Map(shown.map(({ id, showings }) => [id, showings]));
  for (const { campaign, showings } of forecast.result().campaigns)
    expect([campaign, showings.value]).toEqual([campaign, really.get(campaign) ?? 0]);
});

test('the Workbench says in one line whom a draft would have reached, and Forecast what would change', async ({
  velarium,
  memberPage: page,
}) => {
  await restAll(velarium);
  // Of one in eight, for it waits for half a dozen replays.
  await page.route(/\/traffic\?/, async (route) => {
    const traffic: Traffic = await (await route.fetch()).json();
    const list = traffic.list.filter((_, n) => n % 8 === 0);
    await route.fulfill({ json: { ...traffic, list, visitors: list.length } });
  });
  await beginCampaign(page, velarium, 'Foreseen', /Corner invitation/);
  await say(page, 'after 5 seconds, everywhere, on every device, once per visitor');
  await saved(page);
  const line = page.getByText(/over the last 28 days: [\d,]+ of [\d,]+ visitors would meet it/);
  await expect(line).toBeVisible();
  await expect(line).not.toContainText('Still counting');
  const reached = async () =>
    Number(/: ([\d,]+) of/.exec((await line.textContent()) ?? '')?.[1]?.replace(',', ''));
  const everywhere = await reached();
  await say(page, 'desktop only');
  await saved(page);
  await expect.poll(reached).toBeLessThan(everywhere);
  await page.getByRole('link', { name: 'Forecast', exact: true }).last().click();
  await expect(page.getByText('Replayed to the last visitor.')).toBeVisible({ timeout: 40_000 });
  const row = page.getByRole('row').filter({ hasText: 'Foreseen' });
  await expect(row).toContainText('not running now');
  await expect(
    page
      .getByRole('region', { name: 'How far they come' })
      .getByRole('listitem')
      .filter({ hasText: 'are in its audience' }),
  ).toBeVisible();
  const wins = page.getByRole('region', { name: 'What one change would win' });
  await expect(wins.getByRole('listitem').filter({ hasText: 'On every device' })).toContainText(
    /\+\d+ % \(\+\d+ to \+\d+\) visitors/,
  );
  await expectAccessible(page);

  // Another rule beside it, on the same visits; what is not understood is named, and a reload loses nothing.
  const beside = page.getByRole('region', { name: 'Another rule beside it' });
  const typed = beside.getByLabel('What it would say instead');
  await typed.fill('on every device, with a full moon');
  await expect(beside.getByRole('status')).toContainText(/It would read:.*Not taken: with a full moon/s);
  await beside.getByRole('button', { name: 'Replay it' }).click();
  const said = beside.getByText(
    /^The other reaches [\d,]+ visitors more: \+\d+ % \(\+\d+ to \+\d+\), on the same visits\.$/,
  );
  await expect(said).toBeVisible({ timeout: 40_000 });
  await page.reload();
  await expect(said).toBeVisible({ timeout: 60_000 });
  await expectAccessible(page);
  await typed.fill('desktop only');
  await expect(beside.getByText('This says nothing else than the draft does.')).toBeVisible();
  await expect(beside.getByRole('button', { name: 'Replay it' })).toBeDisabled();
  await beside.getByRole('button', { name: 'Take it away' }).click();
  await expect(said).toHaveCount(0);

  // The same visits, with other limits of the site and with one campaign less; how they differ has an interval of its own.
  await page.getByText('With other limits of the site').click();
  await page.getByRole('textbox', { name: 'Per session, at most' }).fill('1');
  await expect(page.getByText('Replayed to the last visitor.')).toBeVisible({ timeout: 40_000 });
  await page.getByRole('button', { name: 'As they are' }).click();
  await page.getByRole('combobox', { name: 'With the draft of' }).click();
  await page.getByRole('option', { name: 'None: as it runs now' }).click();
  // A comparison that is over leaves nothing behind.
  const asItRuns = page.getByRole('columnheader', { name: 'As it runs now' });
  await expect(page.getByText('Replayed to the last visitor.')).toBeVisible({ timeout: 40_000 });
  await expect(asItRuns).toHaveCount(0);
  await page.getByText('With other limits of the site').click();
  await page.getByRole('textbox', { name: 'Per session, at most' }).fill('1');
  await expect(asItRuns.first()).toBeVisible({ timeout: 40_000 });
  await page.getByRole('button', { name: 'As they are' }).click();
  await expect(asItRuns).toHaveCount(0);
  await page.getByRole('combobox', { name: 'With the draft of' }).click();
  await page.getByRole('option', { name: 'Foreseen' }).click();
  await page.getByRole('combobox', { name: 'Without' }).click();
  await page.getByRole('option', { name: 'Foreseen' }).click();
  await expect(page.getByText('Replayed to the last visitor.')).toBeVisible({ timeout: 40_000 });
  await expect(row).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('combobox', { name: 'Without' })).toContainText('Foreseen');
  // Back, and nothing is lost.
  await page.getByRole('link', { name: 'Board', exact: true }).first().click();
  await openCampaign(page, 'Foreseen');

  // Launched with what was foreseen, and held against what came.
  await expect(line).toBeVisible();
  await expect(line).not.toContainText('Still counting');
  await launch(page);
  for (const [table, column] of [
    ['campaign_version', 'published_at'],
    ['campaign_move', 'at'],
  ])
    await velarium.query(
      `UPDATE ${table} SET ${column} = ${column} - interval '5.5 days'
        WHERE campaign_id = (SELECT id FROM campaign WHERE name = 'Foreseen')`,
    );
  await velarium.query(
    `INSERT INTO visitor_day (campaign_id, kind, visitor, day, first_at, events, variant)
     SELECT id, 'shown', gen_random_uuid(), (now() - n * interval '2 minutes')::date, now() - n * interval '2 minutes', 1, 'a'
       FROM campaign, generate_series(1, 3000) AS n WHERE name = 'Foreseen'`,
  );
  await page.reload();
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Forecast' }).click();
  const held = page.getByRole('region', { name: 'How forecasts have held' }).getByRole('listitem');
  await expect(held.filter({ has: page.getByRole('link', { name: 'Foreseen' }) })).toContainText(
    /[\d,]+ visitors met it in 5 days; [\d,]+ were foreseen \([\d,]+ to [\d,]+\)/,
  );
  await held.getByRole('link', { name: 'Foreseen' }).click();
  const chart = page.getByRole('region', { name: 'Foreseen, and what came' });
  await expect(chart.getByRole('img', { name: /visitors met it in 5 days/ })).toBeVisible();
  await expectAccessible(page);
});

test('a server’s log is replayed in the browser, and a site without either from visits that are plainly invented', async ({
  velarium,
  studioPage: page,
}) => {
  await restAll(velarium);
  await publish(velarium, {
    triggers: [{ kind: 'time', seconds: 20 }],
    reach: { pages: { include: [{ kind: 'exact', address: '/about' }], exclude: [], follows: null } },
  });
  const line = (
    n: number,
    time: string,
    path: string,
    agent = 'Mozilla/5.0 (Windows NT 10.0) Chrome/140.0',
  ) => `203.0.113.${n} - - [24/Nov/2026:${time} +0000] "GET ${path} HTTP/1.1" 200 512 "-" "${agent}"`;
  // Thirty stay on the page for 25 seconds, ten for 15; a robot and a picture are nobody.
  const log = [
    ...Array.from({ length: 40 }, (_, n) => [
      line(n, '10:00:00', '/about'),
      line(n, '10:00:00', '/drawn.png'),
      line(n, n < 30 ? '10:00:25' : '10:00:15', '/contact'),
    ]).flat(),
    line(200, '10:00:00', '/about', 'Examplebot/2.1 (+https://bot.example/bot.html)'),
    'and this is no line of a log',
  ].join('\n');
  const siteOf = () => page.url().match(/sites\/([^/]+)/)?.[1];
  await page.goto(`${velarium.studio}/sites/${siteOf()}/forecast?visits=log`);
  const file = page.getByLabel('Log file');
  const asked: string[] = [];
  page.on('request', (request) => asked.push(`${request.method()} ${request.postData() ?? ''}`));
  await file.setInputFiles({ name: 'access.log.gz', mimeType: 'application/gzip', buffer: gzipSync(log) });
  const part = page.getByRole('region', { name: 'The log' });
  await expect(part).toContainText('access.log.gz: 80 page views in 122 lines, 24 November 2026');
  await expect(part).toContainText('Left out: 40 files, 1 page view of robots, 1 line that cannot be read');
  await expect(part).toContainText('Line 122 is the first that cannot be read');
  await expect(page.getByText('40 visitors of 1 day in a server’s log, replayed')).toBeVisible();
  await expect(page.getByText('Replayed to the last visitor.')).toBeVisible({ timeout: 40_000 });
  const table = page.getByRole('table').first();
  await expect(table.getByRole('row').nth(1)).toHaveText(/^Test30 24 to 34/);
  // Nothing of it has left the browser.
  expect(asked.filter((one) => one.includes('203.0.113'))).toEqual([]);
  await expectAccessible(page);

  // Gone elsewhere and come back, it is still there; another that is none says what is wrong.
  await page.getByRole('link', { name: 'Coverage' }).first().click();
  await expect(page.getByRole('heading', { name: 'Coverage' })).toBeVisible();
  await page.goBack();
  await expect(part).toContainText('80 page views');
  await file.setInputFiles({
    name: 'broken.gz',
    mimeType: 'application/gzip',
    buffer: gzipSync(log).subarray(0, 60),
  });
  await expect(part.getByRole('alert')).toContainText('broken.gz cannot be read');
  await file.setInputFiles({ name: 'prices.csv', mimeType: 'text/csv', buffer: Buffer.from('a;b\n1;2') });
  await expect(part.getByRole('alert')).toContainText(
    'Line 1 is the first that cannot be read: it is not of the form',
  );
  await expect(page.getByRole('heading', { name: 'No page view in it' })).toBeVisible();

  // A site where nothing was ever recorded.
  const bare = await addSite(velarium, 'Moorland Hut', 'https://hut.example');
  await page.goto(`${velarium.studio}/sites/${bare}/forecast`);
  await page.getByRole('button', { name: 'Invent some visits' }).click();
  await expect(page.getByText(/visitors in 28 days, invented, replayed/)).toBeVisible();
  await page.getByRole('textbox', { name: 'Visits a day' }).fill('10');
  await expect(page.getByText(/^2\d\d visitors in 28 days, invented, replayed$/)).toBeVisible();
  await expectAccessible(page);
});
