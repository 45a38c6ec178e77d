import { expectAccessible } from './lib/accessibility.ts';
import { restAll } from './lib/api.ts';
import { expect, newVisitor, test, visit } from './lib/velarium.ts';
import { addCondition, beginCampaign, launch, openPlace, sentence, side, stage } from './lib/workbench.ts';

test('the visit line: marks by key and by drag over the site’s curves, joined, and played on the stage', async ({
  memberPage: page,
  velarium,
}) => {
  await beginCampaign(page, velarium, 'Line', /Corner invitation/);
  await side(page, 'Reach');
  await page.getByRole('radio', { name: 'Everywhere', exact: true }).check();
  await side(page, 'Moment');
  const line = page.getByRole('region', { name: 'Visit line' });
  await expect(line.getByText(/^Of [\d,]+ views of these pages, \d+ % are still here at 0:08/)).toBeVisible();
  await page.keyboard.press('k');
  const depth = line.getByRole('slider', { name: 'Scroll depth' });
  await depth.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(sentence(page)).toContainText('after 8 seconds or after 40 % of the page');
  await page.getByRole('radio', { name: 'The last of them' }).check();
  await expect(sentence(page)).toContainText('after 8 seconds and after 40 % of the page (all of them)');

  const time = line.getByRole('slider', { name: 'Time on the page' });
  const [box, strip] = [await time.boundingBox(), await time.locator('..').boundingBox()];
  if (!box || !strip) throw new Error('expected a mark on a strip');
  await page.mouse.move(box.x, strip.y + strip.height - 8);
  await page.mouse.down();
  await page.mouse.move(strip.x + strip.width / 2, strip.y + strip.height - 8, { steps: 6 });
  await page.mouse.up();
  await expect(sentence(page)).toContainText('after 30 seconds and after 40 %');

  const host = stage(page, 'desktop').locator('velarium-message');
  await line.getByRole('button', { name: 'Play the visit' }).click();
  await line.getByRole('button', { name: 'Hold the visit' }).click();
  await expect(line.getByText('Not yet')).toBeVisible();
  await expect(host).toBeHidden();
  await line.getByRole('slider', { name: 'Second of the visit' }).fill('31');
  await expect(line.getByText('Not yet')).toBeVisible();
  await line.getByRole('slider', { name: 'Depth reached in the visit' }).fill('45');
  await expect(line.getByText('It is open')).toBeVisible();
  await expect(host).toBeVisible();
  await line.getByRole('button', { name: 'End the visit' }).click();
  await expectAccessible(page);
  await depth.focus();
  await page.keyboard.press('Delete');
  await expect(sentence(page)).toContainText('opens after 30 seconds on every page');
});

test('every kind of trigger has a form of its own, and one can be tried', async ({
  memberPage: page,
  velarium,
}) => {
  await beginCampaign(page, velarium, 'Triggers', /Corner invitation/);
  await side(page, 'Moment');
  const list = page.getByRole('list', { name: 'Triggers' });
  for (const [kind, words] of [
    ['Leaving by mouse', 'at a likely sign of leaving by mouse'],
    ['Inactivity', 'after 20 seconds of inactivity'],
    ['An event of the page', 'on the event “basket”'],
    ['A count', 'from the 3rd page view of the session onwards'],
  ] as const) {
    await page.getByRole('button', { name: 'Add a trigger' }).click();
    await page.getByRole('menuitem', { name: kind, exact: true }).click();
    await expect(sentence(page)).toContainText(words);
  }
  await page.clock.install();
  await list.getByText('at a likely sign of leaving by mouse').click();
  const pane = list.getByRole('region', { name: 'Try it here' });
  const box = await pane.boundingBox();
  if (!box) throw new Error('expected the little window');
  const at = (y: number) => page.mouse.move(box.x + 60, box.y + y);
  // Each sign has a picture and words of its own.
  for (const [sign, words] of [
    ['Early', 'A quick move up'],
    ['Certain', 'out through the top'],
    ['Likely', 'A move up, 40 pixels from the top'],
  ] as const) {
    await list.getByRole('radio', { name: sign }).check();
    await expect(list.getByText(words)).toBeVisible();
  }
  await at(60);
  await page.clock.runFor(1000);
  await expect(list.getByText(/Armed in [12]\.\d s/)).toBeVisible();
  // The arming time of three seconds goes by on a driven clock.
  await page.clock.fastForward(2100);
  await expect(list.getByText('Armed: leave now')).toBeVisible();
  await at(80);
  for (const y of [60, 40, 20, 3, -20]) await at(y);
  await expect(list.getByText('It would open now')).toBeVisible();
  await expectAccessible(page);
});

test('an element is picked on the page itself', async ({ memberPage: page, velarium }) => {
  await beginCampaign(page, velarium, 'Picked', /Corner invitation/);
  await side(page, 'Reach');
  await page.getByRole('radio', { name: 'Everywhere', exact: true }).check();
  await side(page, 'Moment');
  await page.getByRole('button', { name: 'Add a trigger' }).click();
  await page.getByRole('menuitem', { name: 'An element reached' }).click();
  await page.getByRole('button', { name: 'Pick it on the page' }).click();
  const dialog = page.getByRole('dialog', { name: 'Pick an element of the page' });
  const framed = page.frameLocator('iframe[title="Page to pick from"]');
  await expect(async () => {
    // Beside its words and links. A press that falls into a change of the frame's size is lost; people press again.
    await framed.locator('footer').click({ position: { x: 4, y: 4 } });
    await expect(dialog.locator('code')).toHaveText('footer', { timeout: 1000 });
  }).toPass();
  await expect(dialog.getByText('It is the only one of its kind on this page.')).toBeVisible();
  await expect(dialog.getByText(/^Also on .*: 8 of 8 other pages that were looked into\.$/)).toBeVisible();
  // What is pressed goes nowhere, and no message lies over the page.
  await framed.getByRole('link', { name: 'Journal' }).first().click();
  await expect(dialog.locator('code')).not.toHaveText('footer');
  expect(page.frames().some((frame) => frame.url() === `${velarium.fell}/journal`)).toBe(false);
  // From what was pressed outwards by keys, and back by the trail.
  const trail = dialog.getByRole('list', { name: 'From the page inwards' });
  await expect(async () => {
    await framed.locator('h1').click();
    await expect(trail.getByRole('button', { pressed: true })).toHaveText(/^h1/, { timeout: 1000 });
  }).toPass();
  await expect(dialog.getByText('finds 1 element here.')).toBeVisible();
  await page.keyboard.press('ArrowUp');
  await expect(trail.getByRole('button', { pressed: true })).not.toHaveText(/^h1/);
  await trail.getByRole('button').last().click();
  await expect(dialog.locator('code')).toHaveText('h1');
  await dialog.getByRole('button', { name: 'Take it' }).click();
  await expect(sentence(page)).toContainText('on reaching “h1”');
});

test('pages by folder, group and pattern; what they cover; any address tried; who, how often and when', async ({
  memberPage: page,
  velarium,
  browser,
}) => {
  await restAll(velarium);
  await beginCampaign(page, velarium, 'Reach', /Corner invitation/);
  await side(page, 'Reach');
  const opens = page.getByRole('group', { name: 'Opens on' });
  const find = (group: typeof opens) => group.getByRole('combobox', { name: 'Find a page by title or path' });
  await find(opens).fill('everything under /journal');
  await opens.getByRole('option', { name: /Everything under \/journal\// }).click();
  const never = page.getByRole('group', { name: 'But never on' });
  await find(never).fill('meteor');
  await never.getByRole('option', { name: /meteor/i }).click();
  await expect(sentence(page)).toContainText(
    'only on addresses that begin with /journal/ but not on /journal/meteor-notebook',
  );
  await expect(page.getByText(/^Covers \d of 17 pages$/)).toBeVisible();
  const trial = page.getByLabel('Try an address');
  await trial.fill('/journal/finding-saturn?utm_source=mail');
  await expect(page.getByText('It opens there: matched by rule 1.')).toBeVisible();
  await trial.fill('/journal/meteor-notebook');
  await expect(page.getByText('matched by rule 1, then taken out by exception 1')).toBeVisible();
  await opens.getByRole('button', { name: 'Another kind of rule' }).click();
  await page.getByRole('menuitem', { name: 'Address matches a regular expression' }).click();
  await opens.getByLabel('Regular expression').fill('^/shop(');
  await expect(opens.getByText(/This cannot be used: .*group is not closed/)).toBeVisible();
  await opens.getByLabel('Regular expression').fill('^/shop/');
  await expect(sentence(page)).toContainText('addresses that match “^/shop/”');

  await page.getByRole('button', { name: 'Only for some' }).click();
  await page.getByRole('menuitem', { name: 'Page views in this session' }).click();
  await page.getByLabel('Number', { exact: true }).fill('2');
  await expect(sentence(page)).toContainText('for visitors with at least 2 page views in this session');

  await side(page, 'Limits');
  await page.getByRole('radio', { name: /Once every so many days/ }).check();
  await page.getByRole('textbox', { name: 'Days' }).fill('2');
  await expect(page.getByRole('region', { name: 'Ten visits' })).toContainText('Seen at 6 of 10 visits');
  await page.getByText('Schedule', { exact: true }).click();
  await page.getByRole('switch', { name: 'Runs at certain times only' }).click();
  await page.getByRole('textbox', { name: 'Until' }).fill('2031-01-01T00:00');
  await expect(sentence(page)).toContainText('until 1 January 2031 at 00:00');
  await expect(page.getByText('It would run now.')).toBeVisible();
  await expectAccessible(page);
  await launch(page);

  const visitor = await newVisitor(browser);
  const site = await visit(visitor, `${velarium.fell}/journal/finding-saturn`);
  await site.pass(10);
  await expect(site.message).toHaveCount(0);
  await site.go(`${velarium.fell}/journal/meteor-notebook`);
  await site.pass(10);
  await expect(site.message).toHaveCount(0);
  await site.go(`${velarium.fell}/journal/aurora-over-the-fell`);
  await site.pass(8.2);
  await expect(site.message).toHaveCount(1);
});

test('on the Board many are labelled, rested and brought back; a campaign goes to the other site and into a file', async ({
  studioPage: page,
}) => {
  await page.getByRole('checkbox', { name: /Summit road/ }).check();
  await page.getByRole('checkbox', { name: /Places on Friday/ }).check();
  const bar = page.getByRole('toolbar', { name: 'Chosen campaigns' });
  await bar.getByRole('button', { name: 'Label' }).click();
  for (const word of ['hills', 'autumn']) {
    await page.getByLabel('New label').fill(word);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('list', { name: 'Campaigns' }).getByText(word)).toHaveCount(2);
  }
  await page.keyboard.press('Escape');
  // The older of the two is taken back, and nothing that came after it.
  await page
    .getByRole('listitem')
    .filter({ hasText: 'labelled “hills”' })
    .getByRole('button', { name: 'Undo' })
    .click();
  await expect(page.getByRole('list', { name: 'Campaigns' }).getByText('hills')).toHaveCount(0);
  await expect(page.getByRole('list', { name: 'Campaigns' }).getByText('autumn')).toHaveCount(2);
  await bar.getByRole('button', { name: 'Rest' }).click();
  await expect(page.getByText('2 campaigns: put to rest.')).toBeVisible();
  await page
    .getByRole('listitem')
    .filter({ hasText: '2 campaigns: put to rest.' })
    .getByRole('button', { name: 'Undo' })
    .click();
  await expect(page.locator('li[data-state=running]')).toHaveCount(2);
  await page.getByRole('combobox', { name: 'Label' }).click();
  await page.getByRole('option', { name: 'autumn' }).click();
  await expect(page).toHaveURL(/label=autumn/);
  await expect(page.getByRole('list', { name: 'Campaigns' }).getByRole('listitem')).toHaveCount(2);
  await expectAccessible(page);

  await page.getByRole('button', { name: 'Actions for Places on Friday’s tour' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Export to a file' }).click();
  const file = await (await download).path();
  expect((await download).suggestedFilename()).toBe('places-on-friday-s-tour.velarium.json');

  await page.getByRole('button', { name: 'Actions for Places on Friday’s tour' }).click();
  await page.getByRole('menuitem', { name: 'Copy to another site …' }).click();
  const dialog = page.getByRole('dialog', { name: /Copy/ });
  await expect(dialog.getByText('Everything comes along.')).toBeVisible();
  await dialog.getByRole('button', { name: 'Copy it as a draft' }).click();
  await expect(page.getByLabel('Campaign name')).toHaveValue('Places on Friday’s tour');
  await expect(page.getByRole('button', { name: /Skerry Line/ })).toBeVisible();

  await page.getByRole('link', { name: 'Board', exact: true }).first().click();
  await page.getByLabel('Campaign file').setInputFiles(file);
  await expect(page.getByLabel('Campaign name')).toHaveValue('Places on Friday’s tour');
  await expect(sentence(page)).toContainText('only on /night-tours/first-light and /night-tours/deep-sky');
});

test('the site: its tag is waited for and heard, pages come by hand and from a file, a group changes everywhere, limits are set', async ({
  memberPage: page,
  velarium,
  visitor,
}) => {
  await velarium.query('UPDATE site SET last_seen_at = NULL');
  // The edge notes once a minute that it has heard of a site; told that the site has changed, it begins anew.
  await velarium.query("SELECT pg_notify('velarium_site_changed', key) FROM site");
  await openPlace(page, velarium, 'site');
  await expect(page.getByText('Waiting for the tag.')).toBeVisible();
  await page.getByRole('tab', { name: 'Health' }).click();
  const signs = page.getByRole('list', { name: 'Signs of health' }).getByRole('listitem');
  await expect(signs.first()).toContainText('The tag was never heard from.');
  await page.getByRole('tab', { name: 'The tag' }).click();
  const site = await visit(visitor, `${velarium.fell}/about`);
  await site.settle();
  await expect(page.getByText(/Seen on \d+ of 17 pages/)).toBeVisible();
  await expectAccessible(page);

  await page.getByRole('tab', { name: 'Health' }).click();
  await expect(signs.filter({ hasText: 'The tag was last heard from' })).toContainText('Well');
  await expect(signs.filter({ hasText: /Yesterday had [\d,]+ page views/ })).toContainText('Well');

  await page.getByRole('tab', { name: 'Pages', exact: true }).click();
  await page.getByLabel('Path to add').fill('/hidden-page');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('row', { name: /hidden-page.*added by hand/ })).toBeVisible();
  await page.getByLabel('CSV file of pages').setInputFiles({
    name: 'pages.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('path,title\n/from-a-file,"A page, from a file"\n'),
  });
  await expect(page.getByRole('row', { name: /A page, from a file.*from a file/ })).toBeVisible();
  await page.getByRole('button', { name: 'Read the pages' }).click();
  await expect(page.getByText(/\d+ pages found by the sitemap/)).toBeVisible();
  await expectAccessible(page);

  await page.getByRole('tab', { name: 'Page groups' }).click();
  await page.getByRole('button', { name: 'New page group' }).click();
  const dialog = page.getByRole('dialog', { name: 'New page group' });
  await dialog.getByLabel('Name').fill('To read');
  await dialog.getByRole('combobox', { name: 'Find a page by title or path' }).fill('article');
  await dialog.getByRole('option', { name: /kind “article”/ }).click();
  await expect(dialog.getByText(/Covers 4 pages/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('list', { name: 'Page groups' })).toContainText('pages of the kind “article”');

  await page.getByRole('tab', { name: 'What holds here' }).click();
  await page.getByLabel('Try an address').fill('198.51.100.7');
  await expect(page.getByText('Norway.')).toBeVisible();
  await page.getByRole('switch', { name: 'Subdomains share a session' }).click();
  await page.getByLabel('The domain they share').fill('quillon');
  await expect(page.getByText(/This cannot be used: write it like quillonfell\.example/)).toBeVisible();
  await page.getByRole('switch', { name: 'Subdomains share a session' }).click();
  await page.getByLabel('Attributes to record as well, one a line').fill('plan\ntier');
  await page.getByLabel('Per page view, at most').fill('1');
  await expect(page.getByText(/A visitor meets at most 1 message on a page/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved. Every page follows at its next load.')).toBeVisible();
});

test('an audience says how many of the last visitors it would have held, and what was seen can be chosen', async ({
  memberPage: page,
  velarium,
  visitor,
}) => {
  const site = await visit(visitor, `${velarium.fell}/?utm_campaign=moonrise`);
  await site.settle();
  await beginCampaign(page, velarium, 'Audience', /Corner invitation/);
  await addCondition(page, 'Country');
  const held = page.getByRole('status').filter({ hasText: 'visitors of the last 30 days' });
  await expect(held).toContainText(
    /About [\d,]+ of about [\d,]+ .*: \d+ to \d+ %, reckoned from [\d,]+ of them/,
  );
  const before = await held.textContent();
  await page.getByRole('combobox', { name: 'Country' }).click();
  await page.getByRole('option', { name: /^Norway · [\d,]+$/ }).click();
  await expect(sentence(page)).toContainText('for visitors from Norway (no)');
  await expect(held).not.toHaveText(before ?? '');

  await page
    .getByRole('button', { name: /^Remove/ })
    .first()
    .click();
  await addCondition(page, 'Something the page tells');
  await expect(page.locator('datalist option[value=patron]')).toHaveCount(1);
  await page.getByRole('combobox', { name: 'Being' }).fill('patron');
  await expect(held).toContainText(/would have been in it: \d+ to \d+ %/);
  await page.getByRole('combobox', { name: 'Name' }).fill('shoe-size');
  await expect(held).toContainText('About 0 of');
  await expectAccessible(page);
});
