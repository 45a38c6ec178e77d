import { expectAccessible } from './lib/accessibility.ts';
import { makeGroup, publish, restAll } from './lib/api.ts';
import { expect, newVisitor, test, visit } from './lib/velarium.ts';
import { beginCampaign, launch, openPlace, say } from './lib/workbench.ts';

test('Results say what the raw events say, of the site and of one campaign, and compare days with days', async ({
  velarium,
  studioPage: page,
  browser,
}) => {
  const raw = async () =>
    velarium.query(
      `SELECT c.name, count(*) FILTER (WHERE kind = 'shown')::integer AS showings,
              count(DISTINCT visitor) FILTER (WHERE kind IN ('shown', 'converted'))::integer AS visitors,
              count(DISTINCT visitor) FILTER (WHERE kind = 'converted')::integer AS converters
         FROM event e JOIN campaign c ON c.id = e.campaign_id JOIN site s ON s.id = e.site_id
        WHERE s.key = 'quillonfell2' AND (at AT TIME ZONE s.time_zone)::date > (now() AT TIME ZONE s.time_zone)::date - 28
        GROUP BY c.name`,
      [],
    ) as Promise<{ name: string; showings: number; visitors: number; converters: number }[]>;
  const figure = (count: number) => count.toLocaleString('en-GB');
  await page.keyboard.press('r');
  await expect(page.getByRole('heading', { name: 'Results' })).toBeVisible();
  const mailed = page.getByRole('button', { name: 'Mailed every Monday' });
  await mailed.click();
  await expect(mailed).toHaveAttribute('aria-pressed', 'true');
  const expectEqual = async () => {
    for (const { name, showings, visitors, converters } of await raw()) {
      const cells = page.getByRole('row', { name: new RegExp(`^${name}`) }).getByRole('cell');
      await expect(cells.nth(0)).toHaveText(figure(visitors));
      await expect(cells.nth(1)).toHaveText(figure(showings));
      await expect(cells.nth(4)).toHaveText(figure(converters));
    }
  };
  await expectEqual();

  const ofPlaces = async () => (await raw()).find(({ name }) => name.startsWith('Places'))?.showings ?? 0;
  const before = await ofPlaces();
  const site = await visit(await newVisitor(browser), `${velarium.fell}/night-tours/first-light`);
  await site.pass(30);
  await expect(site.message).toHaveCount(1);
  await site.message.getByRole('button', { name: /close/i }).first().click();
  await site.pass(2);
  // Results count what has arrived: everything the visit told is there before they are read.
  await site.settle();
  await expect.poll(ofPlaces).toBe(before + 1);
  await page.reload();
  await expectEqual();

  await page.getByRole('combobox', { name: 'Days' }).click();
  await page.getByRole('option', { name: 'Days of my choice' }).click();
  await page.getByLabel('The days: from').fill('2026-03-02');
  await page.getByLabel('The days: until').fill('2026-03-01');
  await expect(page.getByText('The last day of the period lies before the first.')).toBeVisible();
  await page.getByRole('combobox', { name: 'Days' }).click();
  await page.getByRole('option', { name: 'Last 90 days' }).click();
  const file = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save as a table' }).click();
  expect((await file).suggestedFilename()).toMatch(/^results .*\.csv$/);

  await page.getByRole('link', { name: 'Places on Friday’s tour' }).click();
  await expect(page.getByRole('heading', { name: 'Places on Friday’s tour' })).toBeVisible();
  // The period came along.
  expect(page.url()).toContain('period=90');
  await expect(page.getByText('had it in sight for a second')).toBeVisible();
  await page.getByRole('combobox', { name: /told apart/ }).click();
  await page.getByRole('option', { name: 'Weekday' }).click();
  await expect(page.getByRole('rowheader', { name: 'Sunday' })).toBeVisible();
  // A group that asks for what is not kept with visitors says so, where it would stand as one that nobody came to.
  await makeGroup(velarium, 'Early birds', [{ kind: 'parameter', name: 'offer', value: 'early' }]);
  await page.getByRole('combobox', { name: /told apart/ }).click();
  await page.getByRole('option', { name: 'Page group' }).click();
  await expect(page.getByRole('list', { name: 'What cannot be told by page group' })).toContainText(
    '“offer” is not among the parameters that tell pages of this site apart',
  );
  await expect(page.getByRole('list', { name: 'Ways of closing' })).toContainText('By its close button');

  await page.getByRole('radio', { name: 'Counts of mine' }).check();
  await page.getByLabel('The first day after').fill('2026-11-08');
  const lines = Array.from(
    { length: 14 },
    (_, n) => `2026-11-${String(n + 1).padStart(2, '0')},${n < 7 ? 10 : 30}`,
  );
  await page.getByLabel('A day and a count on each line').fill([...lines, '2026-11-31,4'].join('\n'));
  await expect(page.getByText('Line 15: “2026-11-31” is no day.')).toBeVisible();
  await page.getByLabel('A day and a count on each line').fill(lines.join('\n'));
  await expect(page.getByText(/10\.0 a day before, 30\.0 after: 3\.00 times as many/)).toBeVisible();
  await expectAccessible(page);
});

test('a goal is made, and reached by somebody from whom the message was withheld', async ({
  velarium,
  memberPage: page,
  browser,
}) => {
  await restAll(velarium);
  await openPlace(page, velarium, 'site');
  await page.getByRole('tab', { name: 'Goals' }).click();
  await page.getByRole('button', { name: 'New goal' }).click();
  const dialog = page.getByRole('dialog', { name: 'New goal' });
  await dialog.getByLabel('Name').fill('Looked at the tours');
  await dialog.getByRole('combobox', { name: 'Find a page by title or path' }).fill('/night-tours');
  await dialog
    .getByRole('option', { name: /\/night-tours/ })
    .first()
    .click();
  await expect(dialog.getByText(/^Reached by \d+ page/)).toBeVisible();
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('list', { name: 'Goals' })).toContainText('Looked at the tours');

  await publish(velarium, { triggers: [{ kind: 'time', seconds: 1 }], limits: { holdout: 90 } });
  const told = () =>
    velarium.query(
      `SELECT kind, visitor FROM event WHERE kind IN ('shown', 'held')
          AND campaign_id = (SELECT id FROM campaign ORDER BY created_at DESC LIMIT 1)`,
      [],
    ) as Promise<{ kind: string; visitor: string }[]>;
  // One in ten is shown it: that forty in a row are happens as good as never.
  let visitors = 0;
  for (; visitors < 40 && !(await told()).some(({ kind }) => kind === 'held'); visitors++) {
    const context = await newVisitor(browser);
    const site = await visit(context, `${velarium.fell}/about`);
    await expect
      .poll(async () => {
        await site.pass(0.5);
        return (await told()).length;
      })
      .toBe(visitors + 1);
    // They go on a little later.
    await site.pass(5);
    await site.page.goto(`${velarium.fell}/night-tours`);
    await site.settle();
    await context.close();
  }
  const [campaign] = (await velarium.query(
    'SELECT name FROM campaign ORDER BY created_at DESC LIMIT 1',
    [],
  )) as { name: string }[];
  await page.getByRole('link', { name: 'Board', exact: true }).click();
  await page.getByRole('button', { name: `Actions for ${campaign?.name}` }).click();
  await page.getByRole('menuitem', { name: 'Results' }).click();
  const row = page.getByRole('row', { name: /^Looked at the tours/ });
  await expect(row.getByRole('cell').nth(1)).toContainText('1 of 1');
});

test('a purchase is told by the shop, with the worth of its basket, and a campaign is measured by it', async ({
  velarium,
  memberPage: page,
  browser,
}) => {
  await restAll(velarium);
  await openPlace(page, velarium, 'site');
  await page.getByRole('tab', { name: 'Goals' }).click();
  await page.getByRole('button', { name: 'New goal' }).click();
  const dialog = page.getByRole('dialog', { name: 'New goal' });
  await dialog.getByLabel('Name', { exact: true }).fill('An order');
  await dialog.getByRole('radio', { name: 'The page tells of it' }).check();
  await dialog.getByRole('combobox', { name: 'It is worth' }).click();
  await page.getByRole('option', { name: 'The basket' }).click();
  await expect(dialog).toContainText('velarium.event("bought")');
  await dialog.getByRole('radio', { name: 'Counts each time' }).check();
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('list', { name: 'Goals' })).toContainText(
    'on the event “bought”, worth the basket, within 7 days, each time',
  );

  await publish(velarium, { triggers: [{ kind: 'time', seconds: 1 }] });
  const context = await newVisitor(browser);
  const site = await visit(context, `${velarium.fell}/about`);
  await site.pass(2);
  await expect(site.message).toHaveCount(1);
  await site.settle();
  await site.go(`${velarium.fell}/shop`);
  for (const at of [0, 1]) await site.page.locator('[data-add]').nth(at).click();
  await site.go(`${velarium.fell}/shop/checkout`);
  for (const label of ['Name', 'Mail address', 'Address'])
    await site.page
      .getByLabel(label, { exact: true })
      .fill(label === 'Mail address' ? 'wren@example.org' : 'Wren');
  const together = await site.page.getByText(/^Together £/).textContent();
  await site.page.getByRole('button', { name: 'Place the order' }).click();
  await site.settle();
  const [told] = (await velarium.query(
    "SELECT worth FROM event WHERE kind = 'reached' ORDER BY at DESC LIMIT 1",
    [],
  )) as {
    worth: string;
  }[];
  const worth = Number(together?.replace('Together £', ''));
  expect(worth).toBeGreaterThan(10);
  expect(Number(told?.worth)).toBe(worth);
  await context.close();

  const [campaign] = (await velarium.query(
    'SELECT name FROM campaign ORDER BY created_at DESC LIMIT 1',
    [],
  )) as {
    name: string;
  }[];
  await page.getByRole('link', { name: 'Board', exact: true }).click();
  await page.getByRole('button', { name: `Actions for ${campaign?.name}` }).click();
  await page.getByRole('menuitem', { name: 'Results' }).click();
  const row = page.getByRole('row', { name: /^An order/ });
  await expect(row.getByRole('cell').first()).toContainText(`1 of 1`);
  await expect(row.getByRole('cell').first()).toContainText(
    `1 time, worth ${worth.toFixed(2)}, ${worth.toFixed(2)} a visitor`,
  );
  await page.getByRole('button', { name: 'Choose goals' }).click();
  const choice = page.getByRole('dialog', { name: 'Goals of this campaign' });
  await choice.getByRole('switch', { name: /^All goals/ }).click();
  await choice.getByRole('checkbox', { name: 'Came to the membership page' }).uncheck();
  await expectAccessible(page);
  await choice.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('row', { name: /^Came to the membership page/ })).toHaveCount(0);
  await expect(row).toBeVisible();
});

test('the way down begins before the showing and knows who began to answer; what was done is drawn on the message', async ({
  velarium,
  memberPage: page,
  browser,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Letter tried', /Sky letter/);
  await say(page, 'at once, everywhere, on every device, every time');
  await launch(page);
  const answerIn = async (isSent: boolean) => {
    const site = await visit(await newVisitor(browser), `${velarium.fell}/about`);
    await site.pass(1);
    await expect(site.message).toHaveCount(1);
    await site.pass(5);
    const field = site.page.getByLabel('Your mail address');
    await field.pressSequentially('keir');
    await field.fill(`keir-${isSent}@example.org`);
    if (isSent) {
      await site.page.getByRole('checkbox').check();
      await site.page.getByRole('button', { name: 'Send me the sky' }).click();
      await expect(site.message).toContainText('Clear skies');
    } else await site.message.getByRole('button', { name: 'Close' }).click();
    await site.settle();
  };
  await answerIn(true);
  await answerIn(false);
  const told = await velarium.query<{ part: string; events: number }>(
    `SELECT e.part, count(*)::integer AS events FROM event e JOIN campaign c ON c.id = e.campaign_id
      WHERE c.name = 'Letter tried' AND e.kind = 'answering' GROUP BY e.part`,
  );
  // Once a visitor and field, however much is written.
  expect(told).toEqual([{ part: 'email', events: 2 }]);

  await page.keyboard.press('r');
  await expect(page.getByRole('heading', { name: 'Results' })).toBeVisible();
  await page.getByRole('link', { name: 'Letter tried' }).click();
  const way = page.getByRole('listitem').filter({ hasText: 'began to answer' });
  await expect(way).toContainText('2');
  const onMessage = page.getByRole('region', { name: 'On the message itself' });
  await expect(onMessage.getByRole('listitem').filter({ hasText: 'Your mail address' })).toContainText(
    '1 of them went no further',
  );
  await expect(onMessage.getByRole('listitem').filter({ hasText: 'Button' })).toHaveCount(0);
  // The field is marked where it stands on the picture.
  const frame = onMessage.locator('iframe');
  await expect(frame).toBeVisible();
  const isMarked = () =>
    expect
      .poll(async () => {
        const [mark, drawn] = await Promise.all([
          onMessage.locator('[data-part="email"]').boundingBox(),
          frame.contentFrame().locator('[data-field="email"]').boundingBox(),
        ]);
        return (['x', 'y', 'width', 'height'] as const).map((side) =>
          Math.round(((mark?.[side] ?? 0) - (drawn?.[side] ?? 0)) / 2),
        );
      })
      .toEqual([0, 0, 0, 0]);
  await isMarked();
  // Also once the window is narrower than the picture was.
  await page.setViewportSize({ width: 480, height: 800 });
  await expect.poll(async () => (await frame.boundingBox())?.width).toBeLessThan(480);
  await isMarked();
  await page.setViewportSize({ width: 1280, height: 800 });

  const before = page.getByRole('region', { name: 'Before it is shown' });
  await expect(before.getByRole('listitem').last()).toBeVisible({ timeout: 30_000 });
  await expect(before).not.toContainText('Still counting', { timeout: 30_000 });
  const steps = await before.getByRole('listitem').allInnerTexts();
  expect(steps.map((text) => text.split('\n')[0])).toEqual([
    'Visitors of the site',
    'came to its pages at its times',
    'are in its audience',
    'were there when its moment came',
    'would have met it',
  ]);
  await expectAccessible(page);

  // What a later version changed stands where its numbers will.
  await page.getByRole('link', { name: 'To its Workbench' }).click();
  await say(page, 'after 5 seconds, everywhere, on every device, every time');
  await launch(page);
  await page.keyboard.press('r');
  await expect(page.getByRole('heading', { name: 'Results' })).toBeVisible();
  await page.getByRole('link', { name: 'Letter tried' }).click();
  await page.getByRole('button', { name: /^version 2,/ }).click();
  const versions = page.getByRole('region', { name: 'What each version did' });
  await expect(versions).toContainText('Version 2 was met by nobody on these days.');
  await expect(versions.getByRole('row', { name: /at once.*after 5 seconds/ })).toBeVisible();
  await versions.getByRole('button', { name: 'What it changed' }).click();
  await expect(versions).toContainText('It was the first');

  // A mark on the chart opens what was published there: the latest of today.
  const chart = page.getByRole('img', { name: /conversions? over 28 days$/ });
  await chart.scrollIntoViewIfNeeded();
  const mark = await chart.evaluate((drawing) => {
    const hold = getComputedStyle(document.documentElement).getPropertyValue('--color-hold').trim();
    const lines = [...drawing.querySelectorAll(`path[stroke="${hold}"]`)].map((one) =>
      one.getBoundingClientRect(),
    );
    const last = lines.filter(({ height }) => height > 20).at(-1);
    return last && { x: last.x + last.width / 2, y: last.y + last.height / 2 };
  });
  await page.mouse.click(mark?.x ?? 0, mark?.y ?? 0);
  await expect(versions).toContainText('Version 2 was met by nobody on these days.');
});
