import { expectAccessible } from '../lib/accessibility.ts';
import { publish, restAll } from '../lib/api.ts';
import { expect, newVisitor, test, visit } from '../lib/velarium.ts';
import { addCondition, beginCampaign, launch, rehearse, say, sentence } from '../lib/workbench.ts';

test('J14 tried it already: why it does not show, and again at once without touching real visitors', async ({
  velarium,
  memberPage: studio,
  context,
  browser,
}) => {
  await restAll(velarium);
  await publish(velarium, {
    name: 'In the way',
    template: 'sky-letter',
    triggers: [{ kind: 'time', seconds: 20 }],
  });
  await beginCampaign(studio, velarium, 'Before you go', /Sky letter/);
  await say(studio, 'on leaving, on home, on every device, once');
  await addCondition(studio, 'Came from');
  await addCondition(studio, 'Signed in or not');
  await studio.getByRole('list').getByText('a page that says they are signed out').click();
  await studio.getByRole('radio', { name: 'Signed in', exact: true }).check();
  await studio.getByRole('switch', { name: 'The opposite of this' }).last().click();
  await expect(sentence(studio)).toContainText(
    'for visitors with an arrival from search and without a sign-in',
  );
  // A visit that comes from nowhere and leaves is not its audience's.
  await rehearse(studio, {
    name: 'Before you go',
    path: '/',
    does: 'Leaves by mouse',
    comesTo: null,
  });
  await launch(studio);
  const events = async () => (await velarium.query('SELECT 1 FROM event')).length;
  const counted = await events();

  // From the Workbench to the page itself, in a new tab.
  await studio.getByRole('link', { name: 'Before you go', exact: true }).click();
  await studio.getByRole('button', { name: 'Try it' }).click();
  const opened = context.waitForEvent('page');
  await studio.getByRole('dialog', { name: 'Try it on the site' }).getByRole('button').first().click();
  const page = await opened;
  await page.waitForURL(`${velarium.fell}/**`);
  // A visitor who came from a search says so in the address. Time passes here only when the test lets it.
  await page.clock.install();
  await page.goto(`${velarium.fell}/?utm_medium=search`);
  const panel = page.getByRole('region', { name: 'Velarium preview' });
  const row = (name: string) => panel.getByRole('listitem').filter({ hasText: name });
  await panel.getByRole('button', { name: 'Start the visit again' }).click();
  await page.clock.runFor(300);
  await expect(row('Before you go')).toContainText('Waiting for its moment');

  const pass = (seconds: number) => page.clock.runFor(seconds * 1000);
  /** Leaving is believed after three seconds. */
  const leave = async () => {
    await pass(3.5);
    await page.mouse.move(900, 200);
    await page.mouse.move(900, -10, { steps: 3 });
    await pass(0.5);
  };
  const box = page.locator('velarium-message');
  await leave();
  await expect(box).toHaveCount(1);
  await pass(0.3);
  await expect(row('Before you go')).toContainText('Shown');
  await page.keyboard.press('Escape');
  await expect(box).toHaveCount(0);

  // A second try shows nothing, and says why.
  await page.reload();
  await expect(row('Before you go')).toContainText('This visitor closed it');

  // Again at once, without waiting and without clearing anything.
  await panel.getByRole('button', { name: 'Start the visit again' }).click();
  await page.clock.runFor(300);
  await expect(row('Before you go')).toContainText('Waiting for its moment');
  // The one that is tried comes first; the others are asked for.
  await expect(row('In the way')).toBeHidden();
  await panel.getByText('One other campaign of the site').click();
  await row('In the way')
    .getByRole('button', { name: /Show “In the way” now/ })
    .click();
  await pass(0.5);
  await expect(row('In the way')).toContainText('Shown');
  // The one in the way is named.
  await leave();
  await expect(row('Before you go')).toContainText('It is “In the way”');

  // Nothing was counted, and no real visitor's record was touched.
  expect(await events()).toBe(counted);
  expect(
    await page.evaluate(() => Object.keys(localStorage).filter((name) => name.startsWith('velarium'))),
  ).toEqual([]);
  const real = await visit(await newVisitor(browser), `${velarium.fell}/about`);
  await expect(real.page.locator('velarium-panel')).toHaveCount(0);

  await panel.getByRole('button', { name: 'Leave the preview' }).click();
  await expect(page.locator('velarium-panel')).toHaveCount(0);
});

test('what keeps a visitor out of an audience is named, and whoever tries it can pretend to be another', async ({
  velarium,
  memberPage: studio,
  context,
}) => {
  await restAll(velarium);
  await beginCampaign(studio, velarium, 'For regulars', /Corner invitation/);
  await say(studio, 'at once, everywhere, on every device, every time');
  await addCondition(studio, 'Sessions so far');
  await addCondition(studio, 'Came from');
  await expect(sentence(studio)).toContainText('with at least 3 sessions and with an arrival from search');
  await studio.getByRole('button', { name: 'Try it' }).click();
  const opened = context.waitForEvent('page');
  await studio.getByRole('dialog', { name: 'Try it on the site' }).getByRole('button').first().click();
  const page = await opened;
  const panel = page.getByRole('region', { name: 'Velarium preview' });
  const row = panel.getByRole('listitem').filter({ hasText: 'For regulars' });
  await expect(row).toContainText(
    'Not so of this visitor: with at least 3 sessions; with an arrival from search',
  );

  await panel.getByText('Pretend to be somebody else').click();
  await panel.getByLabel('Session number').fill('3');
  await panel.getByRole('button', { name: 'Begin the visit as this visitor' }).click();
  await expect(panel).toContainText('You pretend to be a visitor in their 3rd session.');
  await expect(row).toContainText('Not so of this visitor: with an arrival from search');

  await panel.getByText('Pretend to be somebody else').click();
  await panel.getByLabel('Came from', { exact: true }).selectOption('A search');
  await panel.getByLabel('Things in the basket').fill('2');
  await panel.getByRole('button', { name: 'Begin the visit as this visitor' }).click();
  await expect(panel).toContainText('with an arrival from search and with 2 in the basket');
  await expect(row).toContainText('Shown');
  // Also on the next page, until it is taken back.
  await page.goto(`${velarium.fell}/about`);
  await expect(row).toContainText('Shown');
  await expectAccessible(page);
  await panel.getByText('Pretend to be somebody else').click();
  await panel.getByRole('button', { name: 'Be myself again' }).click();
  await expect(row).toContainText('Not so of this visitor');
});

test('a preview that has ended says so and lets the page go on', async ({ velarium, visitor }) => {
  const page = await visitor.newPage();
  await page.goto(`${velarium.fell}/contact#velarium-preview=quillonfell2-1.nonsense`);
  await expect(page.getByText('This preview has ended')).toBeVisible();
  await expect(page).toHaveURL(`${velarium.fell}/contact`);
  await expect(page.locator('velarium-message')).toHaveCount(1);
  await page.getByRole('button', { name: 'Leave the preview' }).click();
  await expect(page.locator('velarium-panel')).toHaveCount(0);
});
