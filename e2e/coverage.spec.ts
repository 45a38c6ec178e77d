import { readFileSync } from 'node:fs';
import type { Schedule } from '@velarium/contract';
import sharp from 'sharp';
import { expectAccessible } from './lib/accessibility.ts';
import { draft, publish, restAll } from './lib/api.ts';
import { expect, test } from './lib/velarium.ts';
import { openCampaign, openPlace } from './lib/workbench.ts';

test('who can appear where is read by keys, each cell says why, and a page leads into a rehearsal', async ({
  velarium,
  memberPage: page,
}) => {
  await restAll(velarium);
  const tours = { kind: 'begins', address: '/night-tours' } as const;
  await publish(velarium, {
    name: 'On tours',
    reach: {
      pages: { include: [tours], exclude: [], follows: null },
      devices: ['desktop'],
      audience: {
        match: 'all',
        groups: [
          {
            not: false,
            match: 'all',
            items: [{ not: false, condition: { kind: 'visitor', is: 'returning' } }],
          },
        ],
      },
    },
  });
  await publish(velarium, { name: 'Everywhere', triggers: [{ kind: 'time', seconds: 30 }] });
  await openPlace(page, velarium, 'coverage');
  await expect(page.getByText(/17 pages against 2 campaigns, on a desktop/)).toBeVisible();
  const grid = page.getByRole('grid', { name: 'What can appear where' });
  await expect(grid.getByRole('columnheader', { name: 'On tours' })).toBeVisible();

  // From the first page to the folder, into it, and to a cell of it.
  await grid.getByRole('rowheader', { name: /^\/ / }).click();
  for (let rows = 0; rows < 20; rows++) {
    if (
      await grid
        .getByRole('rowheader', { name: /night-tours/ })
        .first()
        .evaluate((one) => one.tabIndex === 0)
    )
      break;
    await page.keyboard.press('ArrowDown');
  }
  await page.keyboard.press('Enter');
  await expect(grid.getByRole('rowheader', { name: /^\/first-light/ })).toBeVisible();
  const chosen = page.getByRole('region', { name: 'What is chosen' });
  await grid.getByRole('rowheader', { name: /^\/first-light/ }).click();
  await expect(chosen).toContainText('2 campaigns can appear here');
  await expect(chosen.getByRole('listitem').first()).toContainText('On tours');
  await expect(chosen.getByRole('listitem').first()).toContainText(
    'Nobody has met it here in the last 28 days.',
  );
  const column = async (name: string) =>
    Number(await grid.getByRole('columnheader', { name }).getAttribute('aria-colindex'));
  for (let steps = 1; steps < (await column('On tours')); steps++) await page.keyboard.press('ArrowRight');
  await expect(chosen).toContainText('“On tours” can appear on /night-tours/first-light.');
  await expect(chosen).toContainText('Nobody has met it here in the last 28 days.');
  await page.getByRole('radio', { name: 'Phone' }).check({ force: true });
  await expect(chosen).toContainText('is never shown on phones');

  // The same map as one visitor meets it.
  await page.getByRole('radio', { name: 'Desktop' }).check({ force: true });
  const readFor = async (who: string) => {
    await page.getByRole('combobox', { name: 'For somebody whose visit begins there' }).click();
    await page.getByRole('option', { name: who }).click();
  };
  await readFor('A first reader at a desk');
  await expect(chosen).toContainText('this visitor is not in the audience of “On tours”');
  await expect(page.getByText('on a desktop, for a first reader at a desk')).toBeVisible();
  await readFor('Somebody who keeps coming back');
  await expect(chosen).toContainText('“On tours” can appear on /night-tours/first-light.');
  await readFor('Anybody');

  // What is missing is said, and leads to its place.
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as CSV' }).click(),
  ]);
  const lines = readFileSync(await saved.path(), 'utf8').split('\r\n');
  expect(lines).toHaveLength(17 + 1);
  expect(lines.find((line) => line.startsWith('"/contact"'))).toMatch(
    /"Not one of its pages","Can appear"|"Can appear","Not one of its pages"/,
  );
  await page.getByRole('searchbox', { name: 'Find a page' }).fill('no-such-page');
  await expect(page.getByText('No page of the site has these words')).toBeVisible();
  await page.getByRole('searchbox', { name: 'Find a page' }).fill('first-light');
  await chosen.getByRole('link', { name: 'Rehearse a visit to this page' }).click();
  await expect(page).toHaveURL(/rehearsal\?of=live/);
  const rehearsed = page.getByRole('combobox', { name: 'Page 1' });
  await expect(rehearsed).toHaveValue('/night-tours/first-light');
  await page.reload();
  await expect(rehearsed).toHaveValue('/night-tours/first-light');
});

test('the map says how often each campaign was met where, or would be, and is given as a table and as a picture', async ({
  velarium,
  memberPage: page,
}) => {
  await openPlace(page, velarium, 'coverage');
  const grid = page.getByRole('grid', { name: 'What can appear where' });
  const status = page.getByRole('main').getByRole('status').first();
  await expect(grid.getByRole('gridcell').first()).toBeVisible();
  await expect(grid).not.toContainText(/met/);

  // The same as the raw events, slashes and tracking apart.
  const [most] = await velarium.query<{
    name: string;
    path: string;
    device: 'desktop' | 'tablet' | 'mobile';
    showings: number;
  }>(
    `SELECT c.name, regexp_replace(split_part(e.page, '?', 1), '(.)/+$', '\\1') AS path, e.device,
            count(*)::integer AS showings
       FROM event e JOIN campaign c ON c.id = e.campaign_id JOIN site s ON s.id = c.site_id
      WHERE e.kind = 'shown' AND e.at >= now() - interval '28 days' AND s.created_at = (SELECT min(created_at) FROM site)
        AND c.state IN ('running', 'scheduled')
        AND regexp_replace(split_part(e.page, '?', 1), '(.)/+$', '\\1') IN (SELECT path FROM site_page WHERE site_id = s.id)
      GROUP BY 1, 2, 3 ORDER BY e.device <> 'desktop' DESC, 4 DESC LIMIT 1`,
  );
  if (!most) throw new Error('the demo has been met by nobody');
  const [one, several] = most.device === 'mobile' ? ['Phone', 'phones'] : ['Tablet', 'tablets'];
  await page.getByRole('radio', { name: one }).click();
  await page.getByRole('radio', { name: 'How often met' }).click();
  await page.getByRole('searchbox', { name: 'Find a page' }).fill(most.path);
  const met = grid.getByRole('gridcell', {
    name: new RegExp(
      `^${most.name}: .*; met ${most.showings.toLocaleString('en-GB')} times on ${several} in the last 28 days`,
    ),
  });
  await expect(met.first()).toBeVisible();
  await expectAccessible(page);
  const [table] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as CSV' }).click(),
  ]);
  const line = readFileSync(await table.path(), 'utf8')
    .split('\r\n')
    .find((one) => one.startsWith(`"${most.path}",`));
  expect(line).toContain(`"${most.showings}"`);

  // And as it would be: the site's own visits replayed against what runs.
  await page.getByRole('searchbox', { name: 'Find a page' }).fill('');
  await page.getByRole('radio', { name: 'Foreseen' }).click();
  await expect(
    grid
      .getByRole('gridcell', {
        name: new RegExp(`would be met about [\\d,]+ times on ${several} in 28 days`),
      })
      .first(),
  ).toBeVisible();
  await expect(status).toBeEmpty();

  const [picture] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as picture' }).click(),
  ]);
  expect(picture.suggestedFilename()).toBe('coverage.png');
  const { data, info } = await sharp(await picture.path())
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  expect(info.width).toBeGreaterThan(800);
  // Paper, ink, and what lies between: something has been drawn.
  const colours = new Set<number>();
  for (let at = 0; at < data.length; at += 3) colours.add(data.readUIntBE(at, 3));
  expect(colours).toContain(0xf4efe4);
  expect(colours).toContain(0x1b2130);
});

test('what would meet, crowd or never open is found before anything is launched', async ({
  velarium,
  memberPage: page,
}) => {
  await restAll(velarium);
  const everywhere = { pages: { include: [{ kind: 'every' as const }], exclude: [], follows: null } };
  const dates = (start: string, end: string) => ({
    schedule: { zone: 'site' as const, start, end, days: [], hours: [], blackouts: [] },
  });
  const at = (days: number) =>
    new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 11).concat('00:00');
  for (const [n, name] of ['Advent', 'New Year', 'Members'].entries())
    await draft(velarium, {
      name,
      template: 'sky-letter',
      triggers: [{ kind: 'time', seconds: 5 + n }],
      reach: everywhere,
      limits: dates(at(3 + n), at(20 + n)),
    });
  await draft(velarium, { name: 'Last year', limits: dates('2025-12-01T00:00', '2025-12-24T00:00') });
  await openPlace(page, velarium, 'season');
  const meet = page.getByRole('region', { name: 'Where two meet' });
  const met = meet.getByRole('button', { name: /“Advent” and “New Year” want one place on 17 pages/ });
  await met.click();
  await expect(met).toHaveAttribute('aria-pressed', 'true');
  await expectAccessible(page);

  await page.getByRole('link', { name: 'Coverage' }).click();
  await page.getByRole('radio', { name: 'Every draft' }).click({ force: true });
  await expect(page).toHaveURL(/of=drafts/);
  await page.getByLabel('At', { exact: true }).fill(at(10).slice(0, 16));
  const notes = page.getByRole('region', { name: 'Worth a look' });
  await expect(notes).toContainText(/want one place: .*“Advent”/);
  await expect(notes).toContainText('“Last year” can never open. Its schedule is over');

  // Launch says it once more, of what runs by then.
  await publish(velarium, {
    name: 'There before',
    template: 'sky-letter',
    triggers: [{ kind: 'time', seconds: 3 }],
    reach: everywhere,
  });
  await page.getByRole('link', { name: 'Board', exact: true }).click();
  await openCampaign(page, 'Advent');
  let letCome = () => {};
  const isAimedAt = new Promise<void>((done) => {
    letCome = done;
  });
  await page.route('**/cast?of=*', async (route) => {
    await isAimedAt;
    await route.continue();
  });
  await page.getByRole('button', { name: /^Launch/ }).click();
  const publishButton = page.getByRole('button', { name: 'Publish', exact: true });
  await expect(publishButton).toBeEnabled();
  const before = await publishButton.boundingBox();
  letCome();
  await expect(page.getByRole('region', { name: 'Who else is there' })).toContainText(
    /“There before” and “Advent” want one place on 17 pages.* From /,
  );
  // What comes while somebody aims at the button does not move it.
  expect(await publishButton.boundingBox()).toEqual(before);
  await expectAccessible(page);
});

test('first and last days are moved in the season, by hand and by keys, and taken back', async ({
  velarium,
  memberPage: page,
}) => {
  await restAll(velarium);
  const day = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
  const id = await draft(velarium, {
    name: 'Advent',
    limits: {
      schedule: {
        zone: 'site',
        start: `${day(7)}T09:00`,
        end: `${day(21)}T18:00`,
        days: [],
        hours: [],
        blackouts: [],
      },
    },
  });
  const dates = () =>
    velarium
      .query<{ start: string; end: string }>(
        `SELECT draft #>> '{rule,limits,schedule,start}' AS start, draft #>> '{rule,limits,schedule,end}' AS end
           FROM campaign WHERE id = $1`,
        [id],
      )
      .then(([row]) => [row?.start, row?.end]);
  await openPlace(page, velarium, 'season');
  const last = page.getByRole('button', { name: /^Last day of Advent/ });
  const begun = (await last.getAttribute('aria-label')) ?? '';
  await last.focus();
  // As one change, however often it is pressed.
  for (let days = 0; days < 3; days++) await page.keyboard.press('ArrowRight');
  await expect.poll(dates).toEqual([`${day(7)}T09:00`, `${day(24)}T18:00`]);
  await expect(last).toBeFocused();
  await expect(page.getByText('The draft of “Advent” has the new times.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(dates).toEqual([`${day(7)}T09:00`, `${day(21)}T18:00`]);
  await expect(last).toHaveAttribute('aria-label', begun);

  // Thirteen weeks on the line: a day is a ninety-first of it.
  const grip = page.getByRole('button', { name: /^All its days of Advent/ });
  await expect(grip).toBeVisible();
  const line = await grip.locator('..').boundingBox();
  const box = await grip.boundingBox();
  if (!line || !box) throw new Error('expected a lane');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + (line.width / 91) * 3, y, { steps: 4 });
  await page.mouse.up();
  await expect.poll(dates).toEqual([`${day(10)}T09:00`, `${day(24)}T18:00`]);
  // What somebody else has made of it since is not taken back with it.
  await expect(page.getByText('The draft of “Advent” has the new times.')).toBeVisible();
  await velarium.query(
    `UPDATE campaign SET revision = revision + 1, draft = jsonb_set(draft, '{rule,limits,schedule,end}', $2) WHERE id = $1`,
    [id, JSON.stringify(`${day(40)}T18:00`)],
  );
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('The times of “Advent” have been changed since.')).toBeVisible();
  expect(await dates()).toEqual([`${day(10)}T09:00`, `${day(40)}T18:00`]);

  // Days the team should know of.
  await page.getByRole('button', { name: 'Note down days' }).click();
  const dialog = page.getByRole('dialog', { name: 'Note down days' });
  await dialog.getByLabel('What is then').fill('School holidays');
  await dialog.getByLabel('From').fill(day(14));
  await dialog.getByLabel('Last day').fill(day(13));
  await expect(dialog.getByText('It lies before the first day.')).toBeVisible();
  await dialog.getByLabel('Last day').fill(day(20));
  await dialog.getByRole('button', { name: 'Note it down' }).click();
  await page
    .getByRole('list', { name: 'Notes' })
    .getByRole('button', { name: /School holidays/ })
    .click();
  await page.getByRole('button', { name: 'Take it out' }).click();
  await expect(page.getByRole('list', { name: 'Notes' }).getByRole('button')).toHaveCount(0);

  // A calendar comes in, and goes out.
  await page.getByLabel('A calendar file').setInputFiles({
    name: 'holidays.ics',
    mimeType: 'text/calendar',
    buffer: Buffer.from(
      `BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nSUMMARY:Fair\r\nDTSTART;VALUE=DATE:${day(9).replaceAll('-', '')}\r\nEND:VEVENT\r\nEND:VCALENDAR`,
    ),
  });
  await expect(page.getByText('1 entry brought in')).toBeVisible();
  await expect(page.getByRole('list', { name: 'Notes' })).toContainText('Fair');
  await page.getByRole('button', { name: 'Calendar', exact: true }).click();
  await page.getByRole('menuitem', { name: /Give it out/ }).click();
  await page.getByRole('button', { name: 'Make an address' }).click();
  const address = await page.getByText(/\/calendar\/[\w-]{32}\.ics$/).textContent();
  const given = await page.request.get(address ?? '', { headers: { cookie: '' } });
  expect(await given.text()).toContain('BEGIN:VCALENDAR');
});

test('days that are drawn over a lane are left out and let in again; in the window of a day, hours are', async ({
  velarium,
  memberPage: page,
}) => {
  await restAll(velarium);
  const id = await draft(velarium, { name: 'Advent' });
  const schedule = () =>
    velarium
      .query<{ schedule: Schedule | null }>(
        `SELECT draft #> '{rule,limits,schedule}' AS schedule FROM campaign WHERE id = $1`,
        [id],
      )
      .then(([row]) => row?.schedule ?? null);
  await openPlace(page, velarium, 'season');
  await page.getByRole('radio', { name: 'Week', exact: true }).click();
  await page.getByRole('button', { name: 'Later' }).click();
  // The address says so before it is drawn.
  await expect(page.getByRole('button', { name: 'Today' })).toBeEnabled();
  const lane = page
    .getByRole('list', { name: 'Campaigns' })
    .getByRole('listitem')
    .filter({ hasText: 'Advent' });
  const ground = await lane.locator('.cursor-cell').boundingBox();
  if (!ground) throw new Error('expected a lane');
  // From the third of the seven days into the fourth.
  const across = async (from: number, to: number) => {
    await page.mouse.move(ground.x + ground.width * from, ground.y + ground.height / 2);
    await page.mouse.down();
    await page.mouse.move(ground.x + ground.width * to, ground.y + ground.height / 2, { steps: 3 });
    await page.mouse.up();
  };
  await across(2.4 / 7, 3.2 / 7);
  const asked = page.getByRole('dialog', { name: 'Days of Advent' });
  const [first, last] = [
    await asked.getByLabel('First day').inputValue(),
    await asked.getByLabel('Last day').inputValue(),
  ];
  expect((Date.parse(last) - Date.parse(first)) / 86_400_000).toBe(1);
  await expectAccessible(page);
  await asked.getByRole('button', { name: /^Leaves out / }).click();
  await expect.poll(schedule).toMatchObject({ blackouts: [{ from: first, to: last }] });

  // The same by keys alone.
  const byKeys = lane.getByRole('button', { name: 'Days of Advent' });
  await byKeys.focus();
  await page.keyboard.press('Enter');
  await asked.getByLabel('First day').fill(first);
  await asked.getByLabel('Last day').fill(last);
  await asked.getByRole('button', { name: /in again$/ }).press('Enter');
  await expect.poll(schedule).toBeNull();

  await page.getByRole('radio', { name: 'Day', exact: true }).click();
  await expect(lane.getByRole('button', { name: 'Hours of Advent' })).toBeVisible();
  await across(18.3 / 24, 21.7 / 24);
  await page.getByRole('button', { name: 'Runs from 18:00 to 22:00 only' }).click();
  await expect.poll(schedule).toMatchObject({ hours: [{ from: '18:00', to: '22:00' }] });
  // Of the last of them, and there is no other.
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(schedule).toBeNull();
});
